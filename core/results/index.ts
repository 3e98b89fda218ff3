export {
  buckets,
  BUCKETS_MAX,
  countInto,
  dayIn,
  daysBefore,
  daysBetween,
  QUARTER_MS,
  shiftDay,
  spanOfDays,
  startOfDay,
  TooManyBuckets,
  unitFor,
  UNITS,
} from './buckets.ts'
export type { BucketCount, QuarterCount, Span, Unit } from './buckets.ts'
export { destinationChange, results, resultsApi, resultsQuery } from './contract.ts'
export type { DestinationChange, Period, Results, Share } from './contract.ts'
export { chancesOfBeing, difference, trialsNeeded, wilson } from './proportion.ts'
export type { Counted, Interval } from './proportion.ts'
