/** No number, day or place is written longer than this; what is, is refused before any expression tries its parts. */
const FIGURE_MAX = 100

/** What a person's text for a cell came to. */
export type Read<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly sentence: string }

const ok = <T>(value: T): Read<T> => ({ ok: true, value })
const no = (sentence: string): Read<never> => ({ ok: false, sentence })

/**
 * Reads a number as people of several countries write it: `1,234.5`, `1.234,5`, `1 234,5`, `12,5`. Where
 * both signs stand, the last one parts the decimals. One comma before exactly three digits groups
 * thousands; a point there does so only where `grouping` is both, as for money and print runs, which are
 * never given to a thousandth.
 */
export function readNumber(typed: string, grouping: 'comma' | 'both' = 'comma'): Read<number> {
  if (typed.length > FIGURE_MAX) return no(`“${typed.slice(0, 40)}…” is no number.`)
  let text = typed.replace(/[\s\u00a0\u202f'’_]/g, '').replace(/\u2212/g, '-')
  const comma = text.lastIndexOf(',')
  const point = text.lastIndexOf('.')
  if (comma >= 0 && point >= 0)
    text = comma > point ? text.replaceAll('.', '').replace(',', '.') : text.replaceAll(',', '')
  else if (/^-?\d{1,3}(,\d{3})+$/.test(text)) text = text.replaceAll(',', '')
  else if (/^-?\d{1,3}(\.\d{3}){2,}$/.test(text) || (grouping === 'both' && /^-?\d{1,3}\.\d{3}$/.test(text)))
    text = text.replaceAll('.', '')
  else text = text.replace(',', '.')
  return /^-?(\d+(\.\d*)?|\.\d+)$/.test(text) ? ok(Number(text)) : no(`“${typed.slice(0, 40)}” is no number.`)
}

/** A number that may have a unit after it; each unit tells by how much to multiply. */
export function readMeasure(typed: string, units: Readonly<Record<string, number>>): Read<number> {
  const text = typed.trim()
  const unit = text.length > FIGURE_MAX ? '' : (/[a-zµ"″]*$/i.exec(text)?.[0] ?? '')
  const figure = text.slice(0, text.length - unit.length).trim()
  if (figure === '') return no(`“${typed.slice(0, 40)}” is no size.`)
  const factor = unit === '' ? 1 : units[unit.toLowerCase()]
  if (factor === undefined) return no(`“${unit}” is no unit here. Use ${Object.keys(units).join(', ')}.`)
  const number = readNumber(figure)
  // Rounded to a millionth, so that 2.54 cm is 25.4 mm and not a hair beside it.
  return number.ok
    ? ok(Math.round(number.value * factor * 1e6) / 1e6)
    : no(`“${typed.slice(0, 40)}” is no size.`)
}

/**
 * An amount of money: signs and codes of currencies around it are passed over.
 *
 * @param grouping as for `readNumber`; `comma` where amounts may be given to a thousandth
 */
export function readMoney(typed: string, grouping: 'comma' | 'both' = 'both'): Read<number> {
  if (typed.length > FIGURE_MAX) return readNumber(typed)
  return readNumber(typed.replace(/\p{Sc}|\b[A-Z]{3}\b/gu, '').trim(), grouping)
}

/** A point on the earth in degrees (WGS 84). */
export interface Point {
  readonly latitude: number
  readonly longitude: number
}

/** Reads `54.12, 8.86`, `54,12; 8,86`, `54.12 N 8.86 E` or a geo URI (RFC 5870). */
export function readPoint(typed: string): Read<Point> {
  const wrong = no(
    `“${typed.slice(0, 40)}” is no place on the map. Write it as 54.12, 8.86: latitude, then longitude.`,
  )
  if (typed.length > FIGURE_MAX) return wrong
  let text = typed
    .trim()
    .replace(/^geo:/i, '')
    .replace(/;(u|crs)=.*$/i, '')
    .replace(/°/g, '')
  if (!text.includes('.') && /^\S*\d,\d+\s*[;\s]/.test(text)) text = text.replace(/(\d),(\d)/g, '$1.$2')
  const match = /^(-?\d+(?:\.\d+)?)\s*([NS])?\s*[,;\s]\s*(-?\d+(?:\.\d+)?)\s*([EW])?$/i.exec(text)
  if (!match) return wrong
  const signed = (figure: string | undefined, side: string | undefined, minus: string) =>
    Number(figure) * (side?.toUpperCase() === minus ? -1 : 1)
  const point = { latitude: signed(match[1], match[2], 'S'), longitude: signed(match[3], match[4], 'W') }
  return Math.abs(point.latitude) > 90 || Math.abs(point.longitude) > 180 ? wrong : ok(point)
}
