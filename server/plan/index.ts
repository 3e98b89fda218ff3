export { planEndpoints } from './endpoints.ts'
export { sheetReader } from './sheets.ts'
export type { SheetReader } from './sheets.ts'
