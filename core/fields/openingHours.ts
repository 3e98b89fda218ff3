import { z } from 'zod'
import { line } from '../api/index.ts'
import {
  calendarDay,
  clockFace,
  dayIn,
  minutesOf,
  momentOf,
  QUARTER_MS,
  shiftDay,
  zoneName,
  zoneOffsetMs,
} from '../time/index.ts'

const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time of day as 08:30.')

/** From a time to another; one that is not later is on the next day, so that `18:00` to `02:00` runs over midnight. */
const slot = z.strictObject({ from: time, upTo: time })
export type OpeningSlot = z.infer<typeof slot>

const SLOTS_MAX = 4
const slots = z.array(slot).max(SLOTS_MAX, `A day has at most ${String(SLOTS_MAX)} spans.`)

/** When something is open: on each day of the week, Monday first (ISO 8601), and on days that are otherwise. */
export const openingHours = z.strictObject({
  zone: zoneName,
  week: z.array(slots).length(7, 'Give the hours of seven days.'),
  except: z
    .array(
      z
        .strictObject({ from: calendarDay, to: calendarDay, slots, note: line('the note', 80) })
        .refine(({ from, to }) => from <= to, {
          message: 'The last day lies before the first.',
          path: ['to'],
        }),
    )
    .max(60, 'Give at most 60 spans of days that are otherwise.'),
})
export type OpeningHours = z.infer<typeof openingHours>

/** The hours of one calendar day: the first exception that names it, or those of its weekday. */
export function slotsOn({ week, except }: OpeningHours, day: string): readonly OpeningSlot[] {
  const otherwise = except.find(({ from, to }) => from <= day && day <= to)
  if (otherwise) return otherwise.slots
  // 1 January 1970 was a Thursday.
  return week[(((Math.floor(Date.parse(day) / DAY_MS) + 3) % 7) + 7) % 7] ?? []
}

/** Whether something is open by the clock of its zone at a moment (UTC milliseconds). */
export function isOpen(hours: OpeningHours, at: number): boolean {
  const { minute } = clockFace(hours.zone, at)
  const today = dayIn(hours.zone, at)
  return (
    slotsOn(hours, today).some(
      ({ from, upTo }) => minute >= minutesOf(from) && (runsOver({ from, upTo }) || minute < minutesOf(upTo)),
    ) || slotsOn(hours, shiftDay(today, -1)).some((each) => runsOver(each) && minute < minutesOf(each.upTo))
  )
}
const runsOver = ({ from, upTo }: OpeningSlot) => minutesOf(upTo) <= minutesOf(from)

/** Whether something is open, and until when that is so. */
export interface OpenState {
  readonly isOpen: boolean
  /** UTC milliseconds; null where nothing changes within eight days. */
  readonly until: number | null
}

const DAY_MS = 86_400_000
const DAYS_AHEAD = 8

/**
 * Whether something is open at a moment (UTC milliseconds), and when that changes. An hour that comes twice is open
 * twice, one that is left out is not.
 */
export function openState(hours: OpeningHours, at: number): OpenState {
  const open = isOpen(hours, at)
  const until = changesAfter(hours, at).find((moment) => isOpen(hours, moment) !== open)
  return { isOpen: open, until: until ?? null }
}

/** Every moment of the next days at which something may open or close, ascending. */
function changesAfter(hours: OpeningHours, at: number): number[] {
  const { zone } = hours
  const today = dayIn(zone, at)
  const moments = new Set<number>()
  for (let i = -1; i <= DAYS_AHEAD; i++) {
    const day = shiftDay(today, i)
    for (const each of slotsOn(hours, day)) {
      moments.add(momentOf(zone, `${day}T${each.from}`))
      moments.add(momentOf(zone, `${runsOver(each) ? shiftDay(day, 1) : day}T${each.upTo}`))
    }
    // An exception ends what runs over midnight no sooner, but a day of its own may begin in the middle of nothing.
    moments.add(momentOf(zone, `${day}T00:00`))
    for (const moment of aroundChange(zone, momentOf(zone, `${day}T00:00`), hours, day)) moments.add(moment)
  }
  return [...moments]
    .filter((moment) => moment > at && moment <= at + DAYS_AHEAD * DAY_MS)
    .sort((a, b) => a - b)
}

/** On a day the clock changes, what it shows twice: each time a second time, and the moment of the change itself. */
function* aroundChange(zone: string, start: number, hours: OpeningHours, day: string): Generator<number> {
  const end = start + DAY_MS + 4 * QUARTER_MS
  if (zoneOffsetMs(zone, start) === zoneOffsetMs(zone, end)) return
  let change = start
  while (zoneOffsetMs(zone, change) === zoneOffsetMs(zone, start)) change += QUARTER_MS
  yield change
  const back = zoneOffsetMs(zone, start) - zoneOffsetMs(zone, end)
  if (back <= 0) return
  for (const { from, upTo } of [...slotsOn(hours, day), ...slotsOn(hours, shiftDay(day, -1))])
    for (const time of [from, upTo]) yield momentOf(zone, `${day}T${time}`) + back
}
