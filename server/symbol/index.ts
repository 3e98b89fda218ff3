export { symbolEndpoints } from './endpoints.ts'
export { symbolPng } from './png.ts'
