export { WATCH_EVERY, WATCH_OF, WATCH_WHAT } from './watch.ts'
export type { WatchEvery, WatchOf, WatchWhat } from './watch.ts'
