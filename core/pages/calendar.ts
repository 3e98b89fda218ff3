import { said } from '../fields/index.ts'
import { foldedLines, propertyLine } from '../contents/index.ts'
import { momentOf, shiftDay, zoneOffsetMs } from '../time/index.ts'
import type { PartOf } from './parts.ts'

const MINUTE_MS = 60_000
const DAY_MS = 86_400_000
/** No zone keeps its offset, and changes it in other years, for longer than this back from an event that is soon. */
const LOOK_BACK_DAYS = 400

/** A moment at which the clocks of a zone change. */
interface Change {
  readonly at: number
  /** Offsets from UTC, in milliseconds. */
  readonly from: number
  readonly to: number
}

/** Every change of a zone's clocks between two moments (UTC milliseconds), to the minute. */
export function clockChanges(zone: string, start: number, end: number): Change[] {
  const changes: Change[] = []
  for (let day = start; day < end; day += DAY_MS) {
    const [from, to] = [zoneOffsetMs(zone, day), zoneOffsetMs(zone, Math.min(end, day + DAY_MS))]
    if (from === to) continue
    let [before, after] = [day, Math.min(end, day + DAY_MS)]
    while (after - before > MINUTE_MS) {
      const middle = before + Math.floor((after - before) / 2 / MINUTE_MS) * MINUTE_MS
      if (middle === before) break
      if (zoneOffsetMs(zone, middle) === from) before = middle
      else after = middle
    }
    changes.push({ at: Math.floor(after / MINUTE_MS) * MINUTE_MS, from, to })
  }
  return changes
}

const two = (n: number) => String(n).padStart(2, '0')
function offsetText(ms: number): string {
  const minutes = Math.abs(Math.round(ms / MINUTE_MS))
  return `${ms < 0 ? '-' : '+'}${two(Math.floor(minutes / 60))}${two(minutes % 60)}`
}
/** A moment as digits by the clock that is so far from UTC. */
const clockDigits = (at: number, offset: number) =>
  new Date(at + offset).toISOString().replace(/[-:]|\.\d+Z/g, '')
const localDigits = (local: string) => `${local.replace(/[-:]/g, '')}00`
const dayDigits = (day: string) => day.slice(0, 10).replaceAll('-', '')

/** What a zone's clocks show from before an event to its end (RFC 5545, section 3.6.5). */
function zoneLines(zone: string, start: number, end: number): string[] {
  const from = start - LOOK_BACK_DAYS * DAY_MS
  const first = zoneOffsetMs(zone, from)
  const changes = [{ at: from, from: first, to: first }, ...clockChanges(zone, from, end + DAY_MS)]
  const lowest = Math.min(...changes.map(({ to }) => to))
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${zone}`,
    ...changes.flatMap((change) => {
      const kind = change.to > lowest ? 'DAYLIGHT' : 'STANDARD'
      return [
        `BEGIN:${kind}`,
        `DTSTART:${clockDigits(change.at, change.from)}`,
        `TZOFFSETFROM:${offsetText(change.from)}`,
        `TZOFFSETTO:${offsetText(change.to)}`,
        `END:${kind}`,
      ]
    }),
    'END:VTIMEZONE',
  ]
}

/** What is known of an event beside its part. */
export interface EventFacts {
  readonly zone: string
  /** The same for as long as it is the same event: calendars know it again. */
  readonly uid: string
  /** When it was last changed, in UTC milliseconds. */
  readonly changedAt: number
  readonly language: string
  readonly languages: readonly string[]
}

/**
 * An event as a calendar of one (RFC 5545): its times by the clock of its zone, which is described with them; whole days as
 * days, the end the day after the last.
 *
 * @throws nothing; an event without its two moments gives null
 */
export function eventCalendar(event: PartOf<'event'>, facts: EventFacts): string | null {
  const { from, upTo, isWholeDay, label, place, description } = event
  if (from === '' || upTo === '') return null
  const { zone, uid, changedAt } = facts
  const text = (name: string, value: string) =>
    value === '' ? [] : [propertyLine('icalendar', name, 'text', value)]
  const times = isWholeDay
    ? [
        `DTSTART;VALUE=DATE:${dayDigits(from)}`,
        `DTEND;VALUE=DATE:${dayDigits(shiftDay(upTo.slice(0, 10), 1))}`,
      ]
    : [`DTSTART;TZID=${zone}:${localDigits(from)}`, `DTEND;TZID=${zone}:${localDigits(upTo)}`]
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Flimbo//EN',
    'METHOD:PUBLISH',
    ...(isWholeDay ? [] : zoneLines(zone, momentOf(zone, from), momentOf(zone, upTo))),
    'BEGIN:VEVENT',
    `UID:${uid}`,
    `DTSTAMP:${clockDigits(changedAt, 0)}Z`,
    ...times,
    ...text('summary', said(facts, label).text),
    ...text('location', said(facts, place).text),
    ...text('description', said(facts, description).text),
    'END:VEVENT',
    'END:VCALENDAR',
  ]
  return foldedLines(lines)
}
