export { pagesEndpoints } from './endpoints.ts'
