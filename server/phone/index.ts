export { phoneEndpoints } from './endpoints.ts'
