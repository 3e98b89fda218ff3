import type { Season } from './pieces.ts'

const DAY_MS = 24 * 60 * 60_000

/** How far into a year a day is, from 0 to 1. */
function yearShare(day: string): number {
  return (Date.parse(day) - Date.parse(`${day.slice(0, 4)}-01-01`)) / (365 * DAY_MS)
}

/** A hump around a share of the year, 1 at its top, wrapping at New Year. */
function hump(at: number, top: number, width: number): number {
  const away = Math.min(Math.abs(at - top), 1 - Math.abs(at - top))
  return Math.exp(-((away / width) ** 2))
}

/** How busy a season makes a day: 1 is a day in July for the summer pieces. */
export function seasonFactor(season: Season, day: string): number {
  const at = yearShare(day)
  switch (season) {
    case 'summer':
      return 0.06 + 0.94 * hump(at, 0.56, 0.17)
    case 'winter':
      return 0.05 + 0.95 * hump(at, 0.96, 0.16)
    case 'year':
      return 0.45 + 0.55 * hump(at, 0.5, 0.25)
    case 'festival':
      if (day >= '2026-08-21' && day <= '2026-08-23') return 2.4
      return day > '2026-08-23' && day < '2026-09-10' ? 0.02 : 0.001
  }
}

/** Sunday to Saturday: day-trippers come at the weekend. */
const WEEKDAYS = [1.5, 0.75, 0.75, 0.8, 0.9, 1.1, 1.6]

export function weekdayFactor(day: string): number {
  return WEEKDAYS[new Date(day).getUTCDay()] ?? 1
}

/** How many scans each hour of a local day gets, in parts; printed pieces are scanned when people are out. */
export const HOURS = [
  1, 0.5, 0.3, 0.2, 0.3, 0.8, 2, 4.5, 8, 10, 11, 11, 10, 9, 9.5, 10, 9.5, 8, 7, 6, 5, 4, 3, 2,
] as const
