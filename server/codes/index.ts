export { codesEndpoints } from './endpoints.ts'
export { insertCode } from './store.ts'
