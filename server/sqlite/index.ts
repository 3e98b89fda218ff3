export { BUSY_MS, whenFree, whenFreeSync } from './lock.ts'
export { prepareWriter } from './pragmas.ts'
