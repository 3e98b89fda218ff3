export { buckets, BUCKETS_MAX, TooManyBuckets, unitFor, UNITS } from './buckets.ts'
export type { Unit } from './buckets.ts'
export { dayIn, openSpanOfDays, spanOfDays, startOfDay } from './calendar.ts'
export type { Span } from './calendar.ts'
export { clockFace, minutesOf, momentOf, WEEKDAYS, withinHours } from './clock.ts'
export type { ClockFace } from './clock.ts'
export {
  calendarDay,
  dayForward,
  daysBefore,
  daysBetween,
  FIRST_DAY,
  isKnownDay,
  LAST_DAY,
  localMoment,
  shiftDay,
  shiftYear,
} from './day.ts'
export { firstOfMonth, firstOfNextMonth, mondayOf, nextTime } from './recurrence.ts'
export type { Recurrence } from './recurrence.ts'
export { readDay, readMoment } from './readDay.ts'
export type { ReadDay } from './readDay.ts'
export { isZone, QUARTER_MS, zoneName, zoneOffsetMs } from './zone.ts'
