export { codesEndpoints } from './endpoints.ts'
export { changeCode, insertCode } from './store.ts'
