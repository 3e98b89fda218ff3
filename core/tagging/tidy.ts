import type { HouseRules } from './houseRules.ts'

export type Spelling = Pick<HouseRules, 'letterCase' | 'separator'>

/** Letters that Unicode does not decompose, as they are usually written in ASCII. Common practice, no published source. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  ẞ: 'SS',
  æ: 'ae',
  Æ: 'AE',
  ø: 'o',
  Ø: 'O',
  œ: 'oe',
  Œ: 'OE',
  ð: 'd',
  Ð: 'D',
  þ: 'th',
  Þ: 'TH',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  Đ: 'D',
}

/** Signs that stand in a query as they are: the unreserved ones of RFC 3986, section 2.3. */
const KEPT = /[^A-Za-z0-9._~-]+/g

/**
 * A tag as the house writes it: in plain letters, with the house's case and separator, and only signs
 * that need no escaping in an address (RFC 3986, section 2.3). Tidying twice is tidying once.
 */
export function tidyValue(value: string, { letterCase, separator }: Spelling): string {
  const joint = separator === 'any' ? '-' : separator
  let text = value
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\0-\x7f]/gu, (sign) => PLAIN[sign] ?? ' ')
  text = text.replace(/['’`]/g, '').replace(KEPT, joint)
  if (separator !== 'any') text = text.replace(/[-_]+/g, separator)
  else text = text.replace(/-{2,}/g, '-').replace(/_{2,}/g, '_')
  text = text.replace(/^[-_]+|[-_]+$/g, '')
  return letterCase === 'lower' ? text.toLowerCase() : text
}
