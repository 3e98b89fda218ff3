import { isKnownDay } from './day.ts'

/** No day is written longer than this; what is, is refused before any expression tries its parts. */
const WRITTEN_MAX = 100

/** What a person's text for a day came to: the day as ISO 8601 has it, or a sentence that says what to do. */
export type ReadDay =
  { readonly ok: true; readonly value: string } | { readonly ok: false; readonly sentence: string }

const refused = (sentence: string): ReadDay => ({ ok: false, sentence })

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

function dayOf(year: number, month: number, date: number): string | null {
  const day = new Date(Date.UTC(year, month - 1, date))
  return day.getUTCFullYear() === year && day.getUTCMonth() === month - 1 && day.getUTCDate() === date
    ? day.toISOString().slice(0, 10)
    : null
}

/**
 * Reads a calendar day: `2026-07-01` (ISO 8601), `1.7.2026`, `1 Jul 2026`, and `1/7/2026` only where one of
 * the first two numbers is above twelve, because elsewhere nobody can know which of them is the month.
 */
export function readDay(typed: string): ReadDay {
  if (typed.length > WRITTEN_MAX)
    return refused(`“${typed.slice(0, 40)}…” is no day. Write it as 3 Jul 2026.`)
  const text = typed.trim().replace(/[T ]\d{2}:\d{2}.*$/, '')
  const numbers = (match: RegExpExecArray) => match.slice(1).map(Number) as [number, number, number]
  let day: string | null = null
  const iso = /^(\d{4})[-./](\d{1,2})[-./](\d{1,2})$/.exec(text)
  const dotted = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})$/.exec(text)
  const slashed = /^(\d{1,2})[/-](\d{1,2})[/-](\d{4})$/.exec(text)
  const named = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?,?\s+(\d{4})$/i.exec(text)
  if (iso) day = dayOf(...numbers(iso))
  else if (dotted) {
    const [d, m, y] = numbers(dotted)
    day = dayOf(y, m, d)
  } else if (named)
    day = dayOf(Number(named[3]), MONTHS.indexOf((named[2] ?? '').toLowerCase()) + 1, Number(named[1]))
  else if (slashed) {
    const [a, b, y] = numbers(slashed)
    if (a <= 12 && b <= 12 && a !== b)
      return refused(`In “${text}” day and month cannot be told apart. Write the day as 3 Jul 2026.`)
    day = a > 12 ? dayOf(y, b, a) : dayOf(y, a, b)
  }
  return day === null
    ? refused(`“${typed.slice(0, 40)}” is no day. Write it as 3 Jul 2026.`)
    : { ok: true, value: day }
}

/** What a person's text for a moment came to, as `2026-07-01T08:00`. */
export function readMoment(typed: string): ReadDay {
  const text = typed.trim()
  const [, day = text, hour = '0', minute = '00'] = /^(.*?)[,\sT]+(\d{1,2})[:.](\d{2})$/.exec(text) ?? []
  const read = readDay(day)
  if (!read.ok) return read
  if (!isKnownDay(read.value)) return refused('Give a day from 1970 to 2200.')
  if (Number(hour) > 23 || Number(minute) > 59) return refused('Give the time from 00:00 to 23:59.')
  return { ok: true, value: `${read.value}T${hour.padStart(2, '0')}:${minute}` }
}
