export { check, checkRun, checksApi, hop, VERDICTS } from './contract.ts'
export type { Check, CheckRun, Hop, Verdict } from './contract.ts'
export { CHECK_LIMITS, checkSentence, isFailure, judge, lostTags } from './judge.ts'
export type { Ending, WantedTags } from './judge.ts'
