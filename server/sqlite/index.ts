export { BUSY_MS, retryWhenLocked, retryWhenLockedSync } from './lock.ts'
export { prepareWriter } from './pragmas.ts'
export { packedVisitor, SCANS_VIEW, SCANS_VIEW_WHILE_MOVING } from './scansView.ts'
export { rememberedRows } from './rememberedRows.ts'
