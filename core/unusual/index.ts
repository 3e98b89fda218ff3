export { expectedDay, unusual, unusualApi } from './contract.ts'
export type { ExpectedDay, Unusual } from './contract.ts'
export {
  ALARM_SPREADS,
  COUNT_LEAST,
  MISSED_SCANS,
  programWave,
  stoppedPieces,
  UNUSUAL_KINDS,
  unexpectedCountries,
  unusualDays,
} from './findings.ts'
export type { CampaignDays, CountryCounts, Finding, PieceDays, UnusualKind } from './findings.ts'
export { deviation, expectedDays, LEAST_DAYS } from './forecast.ts'
export type { Expected } from './forecast.ts'
export { findingInWords } from './inWords.ts'
