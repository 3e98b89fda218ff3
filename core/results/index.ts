export { destinationChange, results, resultsApi, resultsQuery } from './contract.ts'
export type { DestinationChange, Period, Results, Share } from './contract.ts'
export { chancesOfBeing, difference, trialsNeeded, wilson } from './proportion.ts'
export type { Counted, Interval } from './proportion.ts'
export { meanInterval, spreadOf, studentT } from './mean.ts'
export type { Spread } from './mean.ts'
export { splitVerdict } from './splitVerdict.ts'
export type { SplitVerdict, VariantVerdict } from './splitVerdict.ts'
export { countInto, emptyBuckets } from './countInto.ts'
export type { BucketCount, QuarterCounts } from './countInto.ts'
export { DIMENSION_NAMES, DIMENSIONS, hasOrder, isOfKind } from './dimensions.ts'
export type {
  Dimension,
  DimensionKind,
  PieceDimension,
  RecurringDimension,
  ScanDimension,
  TimeDimension,
} from './dimensions.ts'
export { distanceBand, DISTANCE_BANDS } from './distanceBands.ts'
export {
  byMeasure,
  intervalOf,
  isRanked,
  measured,
  MEASURE_NAMES,
  MEASURES,
  RANKED_FROM,
} from './measures.ts'
export type { Figures, Measure } from './measures.ts'
export { AGAINST, CROSSED_MAX, daysAgainst, FILTER_KEYS_MAX, QUESTIONS_MAX, ROWS_MAX } from './question.ts'
export type { Against, Answer, AnswerRow, Answers, Asked, Filters, Of, Question } from './question.ts'
export { rankRows } from './rankRows.ts'
export type { KeyedFigures } from './rankRows.ts'
export { hourOfWeek, RECURRING_KEYS, RECURRING_PLACE, timeKey } from './timeKeys.ts'
