export { openLog } from './log.ts'
export { sparingly } from './sparing.ts'
