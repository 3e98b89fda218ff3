export { readLeads } from './readLeads.ts'
export type { LeadLine, LeadTable, SentRow } from './readLeads.ts'
export { questionCounter, wordsIn } from './numbers.ts'
export type { QuestionCounter } from './numbers.ts'
export { LEAD_COLUMNS, leadFileLook } from './leadFile.ts'
export type { LeadColumn, LeadFileLook } from './leadFile.ts'
export { leadStates, NEW_STATE, USUAL_STATES } from './states.ts'
export type { LeadStateRow, LeadStates } from './states.ts'
export { HELD_REASONS } from './held.ts'
export type { HeldReason } from './held.ts'
export { leadChange, leadFilter, LEAD_LINES_MAX, leadsApi } from './contract.ts'
export { NUMBERS_BY, RATES_BY } from './numbersShapes.ts'
export type {
  AnswerCount,
  AnsweredForm,
  LeadNumbers,
  LeadRate,
  NumbersBy,
  QuestionNumbers,
  RatesBy,
} from './numbersShapes.ts'
export { answerRange } from './answerRange.ts'
export type { Lead, LeadAnswer, LeadChange, LeadFilter, LeadSummary } from './contract.ts'
