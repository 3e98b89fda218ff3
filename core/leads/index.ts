export { HELD_REASONS } from './held.ts'
export type { HeldReason } from './held.ts'
export { LEAD_STATE_NAMES, LEAD_STATES, leadChange, leadFilter, leadsApi } from './contract.ts'
export type { Lead, LeadAnswer, LeadChange, LeadFilter, LeadState, LeadSummary } from './contract.ts'
