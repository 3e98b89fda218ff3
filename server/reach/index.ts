export { isPublicAddress } from './addresses.ts'
export { ForbiddenAddress, requestTo } from './reach.ts'
export type { Reach } from './reach.ts'
