export { unusualEndpoints } from './endpoints.ts'
export { lookForUnusual, startLookingForUnusual } from './look.ts'
