export { visitTagsApi } from './contract.ts'
export type { QueueRow, ReceivedHit } from './contract.ts'
export { bodyFault, hitAddress, hitBody, VISIT_FIELDS } from './fill.ts'
export type { VisitField, VisitValues } from './fill.ts'
export {
  firedBy,
  FIRINGS,
  HIT,
  KIND_NAMES,
  NO_TAGS,
  TAG_KINDS,
  tagInWords,
  TAGS_MAX,
  visitTag,
  visitTagSettings,
} from './visitTag.ts'
export type { Fired, Firing, TagKind, VisitTag, VisitTagSettings } from './visitTag.ts'
export { isHitOf } from './isHitOf.ts'
