export { symbolEndpoints } from './endpoints.ts'
export { scenePng } from './png.ts'
