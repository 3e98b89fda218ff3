export { CAMERA, GOOD_VIEW, photograph } from './camera.ts'
export type { Subject, View } from './camera.ts'
export { CONDITIONS, CONDITION_NAMES, goodDistance } from './conditions.ts'
export type { Condition, ConditionName } from './conditions.ts'
export { lightOf } from './light.ts'
export type { Light } from './light.ts'
export { findLimits } from './limits.ts'
export type { Limit } from './limits.ts'
export type { Decoder, Frame } from './read.ts'
export { CHOICES, choiceCosts } from './costs.ts'
export type { Choice, ChoiceCost } from './costs.ts'
export { gradesOf, proof } from './proof.ts'
export type { Piece, Proof, ProofParts, Readiness, Reason } from './proof.ts'
export {
  correctionSentence,
  costSentence,
  distanceWords,
  limitsSentence,
  limitWords,
  reasonSentence,
} from './words.ts'
export { fixesFor } from './fixes.ts'
export type { Fix, FixSet } from './fixes.ts'
