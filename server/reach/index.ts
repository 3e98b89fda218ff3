export { isPublicAddress } from './addresses.ts'
export { connectionFor, ForbiddenAddress } from './reach.ts'
export type { Reach } from './reach.ts'
