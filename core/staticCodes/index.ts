export { newStaticCode, staticCode, STATIC_CODES_MAX, staticCodesApi } from './contract.ts'
export type { NewStaticCode, StaticCode } from './contract.ts'
