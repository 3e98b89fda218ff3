export { startReader } from './reader.ts'
export type { Reader } from './reader.ts'
