export { openLog } from './log.ts'
export { createSparingLog } from './sparingLog.ts'
