export { limitedThread } from './limited.ts'
export { startThread } from './thread.ts'
export { places, queue } from './turns.ts'
