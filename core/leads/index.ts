export { questionCounter, wordsIn } from './numbers.ts'
export type { AnswerCount, QuestionCounter, QuestionNumbers } from './numbers.ts'
export { HELD_REASONS } from './held.ts'
export type { HeldReason } from './held.ts'
export {
  LEAD_STATE_NAMES,
  LEAD_STATES,
  leadChange,
  leadFilter,
  leadsApi,
  NUMBERS_BY,
  RATES_BY,
} from './contract.ts'
export type { AnsweredForm, LeadNumbers, LeadRate, NumbersBy, RatesBy } from './contract.ts'
export { answerRange } from './answerRange.ts'
export type { Lead, LeadAnswer, LeadChange, LeadFilter, LeadState, LeadSummary } from './contract.ts'
