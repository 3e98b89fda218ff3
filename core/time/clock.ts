import { QUARTER_MS, zoneOffsetMs } from './zone.ts'

/** The days of the week in their order, Monday first (ISO 8601). */
export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const

/** What a clock in a zone shows. */
export interface ClockFace {
  /** 1 for Monday to 7 for Sunday (ISO 8601). */
  readonly weekday: number
  /** Minutes since midnight, 0 to 1,439. */
  readonly minute: number
}

const DAY_MINUTES = 1440

/** Weekday and minute of the day in a zone at a moment in UTC milliseconds. */
export function clockFace(zone: string, at: number): ClockFace {
  const minutes = Math.floor((at + zoneOffsetMs(zone, at)) / 60_000)
  const day = Math.floor(minutes / DAY_MINUTES)
  // 1 January 1970 was a Thursday.
  return { weekday: ((((day + 3) % 7) + 7) % 7) + 1, minute: minutes - day * DAY_MINUTES }
}

/** Minutes since midnight of `08:30`. */
export function minutesOf(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))
}

/**
 * Whether a clock stands within weekly hours. Hours that end at or before they begin run over midnight and
 * belong to the day they begin on; equal ends are a whole day.
 */
export function withinHours(
  { weekday, minute }: ClockFace,
  days: ReadonlySet<number>,
  from: number,
  upTo: number,
): boolean {
  if (from < upTo) return days.has(weekday) && minute >= from && minute < upTo
  const dayBefore = weekday === 1 ? 7 : weekday - 1
  return (days.has(weekday) && minute >= from) || (days.has(dayBefore) && minute < upTo)
}

/**
 * The UTC milliseconds at which the clock of a zone shows `2026-07-01T08:00`: the earlier moment where it
 * shows it twice, and the moment the clock jumps where it never does.
 */
export function momentOf(zone: string, local: string): number {
  const wanted = Date.parse(`${local}Z`)
  const shows = (at: number) => at + zoneOffsetMs(zone, at)
  // Of the offsets about the moment, the larger gives the earlier moment.
  const near = [
    ...new Set(
      [-30, -3, 3, 30].map((hours) =>
        zoneOffsetMs(zone, wanted - zoneOffsetMs(zone, wanted) + hours * 3_600_000),
      ),
    ),
  ].sort((a, b) => b - a)
  for (const offset of near) if (shows(wanted - offset) === wanted) return wanted - offset
  // The clock jumps over it: the first moment that shows anything later.
  let at = wanted - Math.max(...near)
  at -= at % QUARTER_MS
  while (shows(at) < wanted) at += QUARTER_MS
  return at
}
