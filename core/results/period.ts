import {
  dayIn,
  firstOfMonth,
  firstOfNextMonth,
  isKnownDay,
  mondayOf,
  shiftDay,
  shiftYear,
} from '../time/index.ts'

/** Days a choice of period stands for, on a day. */
const lastDays = (count: number) => (today: string) => ({ from: shiftDay(today, 1 - count), to: today })
/** Weeks begin on Monday (ISO 8601). */
const lastWeek = (today: string) => {
  const from = shiftDay(mondayOf(today), -7)
  return { from, to: shiftDay(from, 6) }
}

/** Periods that go with the days, in the order in which people are offered them. */
export const PRESETS = [
  { id: 'today', label: 'Today', days: lastDays(1) },
  {
    id: 'yesterday',
    label: 'Yesterday',
    days: (today: string) => ({ from: shiftDay(today, -1), to: shiftDay(today, -1) }),
  },
  { id: '7', label: 'Last 7 days', days: lastDays(7) },
  { id: '30', label: 'Last 30 days', days: lastDays(30) },
  { id: '90', label: 'Last 90 days', days: lastDays(90) },
  { id: '365', label: 'Last 365 days', days: lastDays(365) },
  {
    id: 'week',
    label: 'This week',
    days: (today: string) => ({ from: mondayOf(today), to: today }),
  },
  { id: 'last-week', label: 'Last week', days: lastWeek },
  {
    id: 'month',
    label: 'This month',
    days: (today: string) => ({ from: firstOfMonth(today), to: today }),
  },
  {
    id: 'last-month',
    label: 'Last month',
    days: (today: string) => {
      const from = firstOfMonth(shiftDay(firstOfMonth(today), -1))
      return { from, to: shiftDay(firstOfNextMonth(from), -1) }
    },
  },
  {
    id: 'year',
    label: 'This year',
    days: (today: string) => ({ from: `${today.slice(0, 4)}-01-01`, to: today }),
  },
  {
    id: 'last-year',
    label: 'Last year',
    days: (today: string) => {
      const year = shiftYear(today, -1).slice(0, 4)
      return { from: `${year}-01-01`, to: `${year}-12-31` }
    },
  },
] as const
export type Preset = (typeof PRESETS)[number]['id']
export const PRESET_IDS = PRESETS.map(({ id }) => id)
export const DEFAULT_PRESET: Preset = '30'
/** The preset a text names; the usual one where it names none. */
export const presetNamed = (text: string): Preset => PRESET_IDS.find((id) => id === text) ?? DEFAULT_PRESET

/** Days that go with the day on which they are asked for, or days that stay. */
export type Period = { readonly preset: Preset } | { readonly from: string; readonly to: string }

/** The days a period stands for at a moment, in a zone; both included. */
export function daysOf(period: Period, zone: string, now: number): { from: string; to: string } {
  if ('from' in period) return { from: period.from, to: period.to }
  const { days } = PRESETS.find(({ id }) => id === period.preset) ?? PRESETS[3]
  return days(dayIn(zone, now))
}

/** The period two days name, where they do. */
export function periodBetween(from: string, to: string): Period | null {
  return isKnownDay(from) && isKnownDay(to) && from <= to ? { from, to } : null
}
