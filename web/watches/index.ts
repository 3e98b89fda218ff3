export { Notices } from './Notices.tsx'
export { WatchButton } from './WatchButton.tsx'
export { WatchesPart } from './WatchesPart.tsx'
