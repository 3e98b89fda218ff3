/** Modes a part of a text can be written in, the most compact first (ISO/IEC 18004). */
export const MODES = ['numeric', 'alphanumeric', 'byte'] as const
export type Mode = (typeof MODES)[number]

/** A part of a text, and the mode it is written in. */
export interface Segment {
  readonly mode: Mode
  readonly text: string
}

/** The sizes of version between which the character count indicator grows: 1–9, 10–26, 27–40 (ISO/IEC 18004, table 3). */
export type SizeClass = 0 | 1 | 2
export const CLASS_ENDS = [9, 26, 40] as const

/** Bits of the character count indicator, by mode and class of version (ISO/IEC 18004, table 3). */
export const COUNT_BITS: Readonly<Record<Mode, readonly [number, number, number]>> = {
  numeric: [10, 12, 14],
  alphanumeric: [9, 11, 13],
  byte: [8, 16, 16],
}
const MODE_BITS = 4

/** The 45 signs of the alphanumeric mode, each by its value (ISO/IEC 18004, table 5). */
export const ALPHANUMERIC = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:'

const utf8 = new TextEncoder()
const isDigit = (sign: string) => sign >= '0' && sign <= '9'
const isAlphanumeric = (sign: string) => ALPHANUMERIC.includes(sign)

/** The most compact mode that can carry a whole text. */
export function modeOf(text: string): Mode {
  if (/^\d+$/.test(text)) return 'numeric'
  return /^[0-9A-Z $%*+\-./:]+$/.test(text) ? 'alphanumeric' : 'byte'
}

/** How many signs, or bytes, a segment's indicator counts. */
export function countOf({ mode, text }: Segment): number {
  return mode === 'byte' ? utf8.encode(text).length : text.length
}

/** Bits of a segment's own data, without what stands before it (ISO/IEC 18004, sections 7.4.3 to 7.4.5). */
function dataBits(segment: Segment): number {
  const n = countOf(segment)
  switch (segment.mode) {
    case 'numeric':
      return Math.floor(n / 3) * 10 + ([0, 4, 7][n % 3] ?? 0)
    case 'alphanumeric':
      return Math.floor(n / 2) * 11 + (n % 2) * 6
    case 'byte':
      return n * 8
  }
}

/** Bits of some segments in a symbol of a class of version; null where one counts more than its indicator can. */
export function bitsOf(segments: readonly Segment[], size: SizeClass): number | null {
  let bits = 0
  for (const segment of segments) {
    const count = COUNT_BITS[segment.mode][size]
    if (countOf(segment) >= 2 ** count) return null
    bits += MODE_BITS + count + dataBits(segment)
  }
  return bits
}

/** Sixths of a bit are the largest part of which a digit, half a pair of signs and a byte are whole numbers. */
const SIXTHS = 6
const DIGIT = 20
const SIGN = 33
const BYTE = 48

interface Way {
  /** In sixths of a bit, what is begun of a group of digits or signs not yet filled up. */
  readonly cost: number
  /** The mode before each sign of the text so far. */
  readonly modes: Mode | null
  readonly before: Way | null
}

/**
 * Parts a text into the segments that take the fewest bits in a class of version, switching modes where that pays
 * (what ISO/IEC 18004, annex J, approximates by looking ahead, here found exactly: the cheapest way to have written the
 * text up to each sign, in each mode). Of equally short ways the one that switches least.
 */
export function segmentsOf(text: string, size: SizeClass): Segment[] {
  const signs = [...text]
  if (signs.length === 0) return [{ mode: 'byte', text }]
  const head = (mode: Mode) => (MODE_BITS + COUNT_BITS[mode][size]) * SIXTHS
  const whole = (cost: number) => Math.ceil(cost / SIXTHS) * SIXTHS
  let ways = new Map<Mode, Way>()
  signs.forEach((sign, i) => {
    const next = new Map<Mode, Way>()
    for (const mode of MODES) {
      const own = signCost(mode, sign)
      if (own === null) continue
      const stay = ways.get(mode)
      let best: Way | null = stay ? { cost: stay.cost + own, modes: mode, before: stay } : null
      if (i === 0) best = { cost: head(mode) + own, modes: mode, before: null }
      for (const [from, way] of ways) {
        if (from === mode) continue
        const cost = whole(way.cost) + head(mode) + own
        if (!best || cost < best.cost) best = { cost, modes: mode, before: way }
      }
      if (best) next.set(mode, best)
    }
    ways = next
  })
  const [cheapest] = [...ways.values()].sort((a, b) => whole(a.cost) - whole(b.cost))
  const modes: Mode[] = []
  for (let way: Way | null = cheapest ?? null; way; way = way.before) if (way.modes) modes.push(way.modes)
  return joined(signs, modes.reverse())
}

function signCost(mode: Mode, sign: string): number | null {
  if (mode === 'byte') return utf8.encode(sign).length * BYTE
  if (mode === 'alphanumeric') return isAlphanumeric(sign) ? SIGN : null
  return isDigit(sign) ? DIGIT : null
}

/** Signs that follow each other in one mode are one segment. */
function joined(signs: readonly string[], modes: readonly Mode[]): Segment[] {
  const segments: { mode: Mode; text: string }[] = []
  signs.forEach((sign, i) => {
    const mode = modes[i] ?? 'byte'
    const last = segments.at(-1)
    if (last?.mode === mode) last.text += sign
    else segments.push({ mode, text: sign })
  })
  return segments
}
