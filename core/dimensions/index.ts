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
export { dimension, FILTER_KEYS_MAX, filters, filtersQuery, toggleKey, withoutDimension } from './filters.ts'
export type { Filters } from './filters.ts'
export { hourOfWeek, RECURRING_KEYS, RECURRING_PLACE, timeKey } from './timeKeys.ts'
