export { symbolEndpoints } from './endpoints.ts'
