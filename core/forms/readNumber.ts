/** How a language writes numbers: its decimal sign and what it groups digits with (Unicode CLDR, by `Intl`). */
function signsOf(language: string): { decimal: string; group: string } {
  const parts = new Intl.NumberFormat(language, { useGrouping: 'always' }).formatToParts(1_234_567.8)
  const find = (type: string) => parts.find((part) => part.type === type)?.value ?? ''
  return { decimal: find('decimal'), group: find('group') }
}

/** Digits of other scripts as they are written in ASCII. */
const plainDigits = (text: string) =>
  text.replace(/[\u0660-\u0669\u06f0-\u06f9]/g, (digit) => String((digit.codePointAt(0) ?? 0) & 0xf))

/**
 * Reads a number as people write it: `1,5` and `1.5`, `1 000`, `1'000`; a sign that stands once is taken as the language
 * takes it.
 *
 * @returns null where it is none
 */
export function readNumber(text: string, language: string): number | null {
  const { decimal, group } = signsOf(language)
  const bare = plainDigits(text)
    .trim()
    .replace(/[\s\u00a0\u202f'’]/g, '')
    .replace(/\u066b/g, '.')
    .replace(/\u066c/g, '')
    .replace(/^\u2212/, '-')
  if (!/^[-+]?[\d.,]*\d[\d.,]*$/.test(bare)) return null
  const last = Math.max(bare.lastIndexOf('.'), bare.lastIndexOf(','))
  if (last < 0) return finite(bare)
  const sign = bare[last] ?? ''
  const isAlone = bare.indexOf(sign) === last
  const hasBoth = bare.includes('.') && bare.includes(',')
  const looksGrouped = /^[-+]?\d{1,3}([.,]\d{3})+$/.test(bare)
  const isDecimal = hasBoth ? isAlone : isAlone && !(looksGrouped && sign === group && sign !== decimal)
  if (!isDecimal && !/^[-+]?\d{1,3}([.,]\d{3})+$/.test(bare)) return null
  const whole = (isDecimal ? bare.slice(0, last) : bare).replace(/[.,]/g, '')
  return finite(
    isDecimal ? `${whole === '' || whole === '-' ? `${whole}0` : whole}.${bare.slice(last + 1)}` : whole,
  )
}

function finite(text: string): number | null {
  const value = Number(text)
  return Number.isFinite(value) ? value : null
}
