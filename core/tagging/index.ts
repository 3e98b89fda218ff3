export { tag, tagsIn, withoutNames } from './address.ts'
export type { TagClash, Tagged } from './address.ts'
export {
  CHANNEL_FIELDS,
  CHANNEL_TESTS,
  channelOf,
  channelRule,
  channelRules,
  channelSentence,
  UNASSIGNED,
  DEFAULT_CHANNELS,
} from './channels.ts'
export type { ChannelCondition, ChannelRule, ChannelTags } from './channels.ts'
export { fillPattern, PATTERN_FIELDS, patternFault } from './contentPattern.ts'
export type { PatternFields } from './contentPattern.ts'
export { tagContext, tagCounts, tagsKey } from './context.ts'
export type { TagCounts, ValueCounts } from './context.ts'
export { review, taggingApi, tagValues } from './contract.ts'
export type { Review, TagValues } from './contract.ts'
export { houseRules, ownParameter, DEFAULT_RULES } from './houseRules.ts'
export type { HouseRules, OwnParameter } from './houseRules.ts'
export {
  applyFixes,
  finding,
  FINDING_KINDS,
  fixesOf,
  fixSet,
  lint,
  contentFromPattern,
  TAG_FIELDS,
  TAG_LENGTH_SENSIBLE,
} from './lint.ts'
export type { Finding, FindingKind, TagContext, TaggedPiece, TagField } from './lint.ts'
export { bareForm, isLookAlike, NO_VALUES, valuesInUse } from './lookAlike.ts'
export type { ValuesInUse } from './lookAlike.ts'
export { personalPart } from './personal.ts'
export { plainName } from './plainName.ts'
export { reviewPieces } from './reviewPieces.ts'
export type { ReviewedPieces } from './reviewPieces.ts'
export { tidyValue } from './tidy.ts'
export { tagPairs, UTM_FIELDS, UTM_VALUE_MAX, utmName, utmOf, utmPairs, utmValue } from './utm.ts'
export type { ExtraValues, UtmField, UtmValues } from './utm.ts'
