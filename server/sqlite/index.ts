export { BUSY_MS, retryWhenLocked, retryWhenLockedSync } from './lock.ts'
export { prepareWriter } from './pragmas.ts'
