export { HELD_REASONS } from './held.ts'
export type { HeldReason } from './held.ts'
