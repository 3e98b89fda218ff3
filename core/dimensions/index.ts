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
  dimension,
  FILTER_KEYS_MAX,
  filterEntries,
  filters,
  filtersQuery,
  toggleKey,
  withoutDimension,
} from './filters.ts'
export type { Filters } from './filters.ts'
export {
  DAY_QUARTERS,
  hoursOfWeek,
  RECURRING_KEYS,
  RECURRING_PLACE,
  timeKey,
  timePieces,
} from './timeKeys.ts'
export type { TimePiece } from './timeKeys.ts'
