export { findReached } from './reached.ts'
export type { FindReached, Reached } from './reached.ts'
