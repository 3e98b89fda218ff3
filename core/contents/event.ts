import { momentOf, shiftDay } from '../time/index.ts'
import { propertyLine } from './contact.ts'
import type { ContentOf } from './content.ts'

/** Who wrote a calendar (RFC 5545, section 3.7.3). */
const PRODUCT = '-//Flimbo//EN'

/**
 * An event as a calendar of one (RFC 5545). Times are written in UTC, which needs no zone to be described; whole days
 * as days, the end the day after the last.
 */
export function writeEvent(event: ContentOf<'event'>): string {
  const { title, start, end, allDay, zone, place, description, web } = event
  const when = (name: string, local: string, isEnd: boolean) => {
    const day = local.slice(0, 10)
    return allDay
      ? propertyLine('icalendar', name, 'date', isEnd ? shiftDay(day, 1) : day)
      : propertyLine('icalendar', name, 'date-time', utc(momentOf(zone, local)))
  }
  const text = (name: string, value: string) =>
    value.trim() === '' ? [] : [propertyLine('icalendar', name, 'text', value.trim())]
  const began = utc(momentOf(zone, start))
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    `PRODID:${PRODUCT}`,
    'BEGIN:VEVENT',
    // The same event is the same one in a calendar, however often it is scanned.
    `UID:${shortSum(JSON.stringify(event))}@flimbo`,
    propertyLine('icalendar', 'dtstamp', 'date-time', began),
    when('dtstart', start, false),
    when('dtend', end, true),
    ...text('summary', title),
    ...text('location', place),
    ...text('description', description),
    ...(web.trim() === '' ? [] : [propertyLine('icalendar', 'url', 'uri', web.trim())]),
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n')
}

/** A moment as jCal writes it (RFC 7265): whole seconds, UTC. */
const utc = (at: number) => new Date(at).toISOString().replace(/\.\d+/, '')

/** Eight digits made of a text (FNV-1a of 32 bits): a name, nothing secret. */
function shortSum(text: string): string {
  let sum = 0x811c9dc5
  for (const byte of new TextEncoder().encode(text)) sum = Math.imul(sum ^ byte, 0x01000193)
  return (sum >>> 0).toString(16).padStart(8, '0')
}
