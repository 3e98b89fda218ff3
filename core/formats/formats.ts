import { formatDistanceStrict } from 'date-fns'

const whole = new Intl.NumberFormat('en-GB')
const shares = new Intl.NumberFormat('en-GB', { style: 'percent', maximumFractionDigits: 1 })

/** A number with its thousands apart: "1,234". */
export const number = (n: number): string => whole.format(n)

/** A part of a whole as a percentage to one decimal: "12.5%"; a dash where there is no whole. */
export function share(part: number, all: number): string {
  return all === 0 ? '–' : shares.format(part / all)
}

/** A figure that was written with a hyphen, with the sign for minus: "−12.5". */
export const withMinus = (figure: string): string => figure.replace('-', '−')

/** A part as a percentage, always to one decimal: "5.0 %", "−12.5 %". */
export const percent = (part: number): string => `${withMinus((100 * part).toFixed(1))} %`

/** The ends of an interval: "22.3 to 39.9 %". */
export const bounds = ({ low, high }: { readonly low: number; readonly high: number }): string =>
  `${withMinus((100 * low).toFixed(1))} to ${percent(high)}`

/** A part with the ends of its interval: "30.4 % (22.3 to 39.9 %)"; a dash where there is none. */
export function rateWithin(
  rate: { readonly value: number; readonly low: number; readonly high: number } | null | undefined,
): string {
  if (!rate) return '–'
  return `${percent(rate.value)} (${bounds(rate)})`
}

/** "1 scan", "2 scans". */
export function quantity(n: number, one: string, many = `${one}s`): string {
  return `${number(n)} ${n === 1 ? one : many}`
}

/** How long ago a moment was: "3 min ago". */
export function age(at: number, now: number): string {
  if (now - at < 45_000) return 'just now'
  return `${formatDistanceStrict(at, now)
    .replace(/ minutes?/, ' min')
    .replace(/ hours?/, ' h')
    .replace(/ seconds?/, ' s')} ago`
}

/** A moment in a zone: "24 Nov 2026, 14:05". */
export function moment(at: number, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  }).format(at)
}

/** A calendar day: "1 Jul 2026". */
export function day(text: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    timeZone: 'UTC',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(Date.parse(text))
}

/** Days from one to another, both included: "3 Jul 2026 to 9 Jul 2026"; one day alone. */
export const dayRange = ({ from, to }: { readonly from: string; readonly to: string }): string =>
  from === to ? day(from) : `${day(from)} to ${day(to)}`
