import { number, percent, withMinus } from '../formats/index.ts'
import { MEASURES, type Measure } from '../results/index.ts'

/** Writes amounts of a currency (ISO 4217): whole ones without their cents. */
function money(amount: number, currency: string): string {
  return new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    maximumFractionDigits: 2,
    minimumFractionDigits: Number.isInteger(amount) ? 0 : 2,
  }).format(amount)
}

/** A figure as it is read; "no figure" where there is none. */
export function measureText(measure: Measure, value: number | null, currency: string): string {
  if (value === null) return 'no figure'
  const { form } = MEASURES[measure]
  if (form === 'share' || form === 'ratio') return percent(value)
  return form === 'money' ? money(value, currency) : number(value)
}

/** The same where there is little room: along an axis or in a cell. */
export function measureShort(measure: Measure, value: number | null, currency: string): string {
  if (value === null) return '–'
  const { form } = MEASURES[measure]
  if (form === 'share' || form === 'ratio') return `${withMinus(String(Math.round(value * 1000) / 10))} %`
  const short = new Intl.NumberFormat('en-GB', { notation: 'compact', maximumFractionDigits: 1 })
  return form === 'money' && Math.abs(value) < 1000 ? money(value, currency) : short.format(value)
}
