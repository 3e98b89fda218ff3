/** Signs people write between digits (RFC 3966, visual-separator, and spaces). */
const SEPARATORS = /[-.()\s/\u2010-\u2015]/g

/** A telephone number without what only makes it readable; `00` in front is the + of abroad. */
export function phoneDigits(number: string): string {
  return (
    number
      .trim()
      // "+49 (0) 4931": what is dialled at home alone.
      .replace(/^(\+|00)([\d\s]+?)\s*\(0\)/, '$1$2')
      .replace(SEPARATORS, '')
      .replace(/^00/, '+')
  )
}

/** The most digits a number has anywhere (ITU-T E.164). */
const DIGITS_MAX = 15
const DIGITS_MIN = 5

/** What is wrong with a telephone number that is to be dialled from anywhere; null where nothing is. */
export function phoneFault(number: string): string | null {
  const digits = phoneDigits(number)
  if (digits === '') return 'Give a telephone number.'
  if (!/^\+?\d+$/.test(digits))
    return 'Write digits alone, such as +49 4931 555 0142; letters and extensions are not dialled by every phone.'
  if (!digits.startsWith('+'))
    return 'Begin with + and the country’s number, such as +49: phones abroad would dial something else.'
  const count = digits.length - 1
  if (count > DIGITS_MAX) return `A telephone number has at most ${String(DIGITS_MAX)} digits.`
  if (count < DIGITS_MIN) return 'This is too short for a telephone number with its country.'
  return null
}
