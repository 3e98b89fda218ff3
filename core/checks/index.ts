export { check, checksApi, hop, VERDICTS } from './contract.ts'
export type { Check, Hop, Verdict } from './contract.ts'
export { CHECK_LIMITS, checkSentence, isFailure, judge, lostTags } from './judge.ts'
export type { Ending, WantedTags } from './judge.ts'
