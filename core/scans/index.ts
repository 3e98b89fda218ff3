export { APART, apartAfter, apartKind, isPersons, isVisit, programKind } from './apart.ts'
export type { RowFormat } from './contract.ts'
export type { Apart, RequestSigns } from './apart.ts'
export {
  hasAtMostOne,
  hasOneScope,
  liveEvent,
  ONE_AT_MOST,
  ONE_SCOPE,
  OUTCOMES,
  scan,
  LAST_HOUR_SECONDS,
  ROW_FORMAT_NAMES,
  ROW_FORMATS,
  scanFilter,
  scansApi,
  scopeIds,
  thingsIn,
} from './contract.ts'
export type { KnownPlace, LiveEvent, Of, Outcome, Scan, Scope } from './contract.ts'
export { deviceOf } from './device.ts'
export type { Device } from './device.ts'
export { DEVICE_TYPES } from './deviceTypes.ts'
export type { DeviceType } from './deviceTypes.ts'
export { acceptedLanguages, canonicalTag, preferredLanguage, primaryLanguage } from './language.ts'
export type { LanguageRange } from './language.ts'
export { NOWHERE, PLACE_NOTE } from './place.ts'
export type { Place } from './place.ts'
export { KEEP_FOR_EVER, keptSince, MONTHS_KEPT, retention } from './retention.ts'
export type { Retention } from './retention.ts'
export { referrerHost } from './referrer.ts'
export { NO_SCANS, tally } from './tally.ts'
export type { Tally } from './tally.ts'
