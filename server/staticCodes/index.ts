export { staticCodesEndpoints } from './endpoints.ts'
