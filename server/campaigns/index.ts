export { campaignsEndpoints } from './endpoints.ts'
