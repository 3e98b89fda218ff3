import ICAL from 'ical.js'

/** One octet of each further line is the space it begins with. */
const OCTETS = 74

/** Lines of a vCard or calendar, cut where they are longer than 75 octets and never within a sign (RFC 6350, section 3.2; RFC 5545, section 3.1). */
export function foldedLines(lines: readonly string[]): string {
  ICAL.foldLength = OCTETS
  return lines.map((line) => `${ICAL.helpers.foldline(line)}\r\n`).join('')
}
