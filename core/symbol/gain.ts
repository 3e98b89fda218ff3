import type { Level } from './capacity.ts'
import { encode, SymbolTooLong } from './encode.ts'

/** What a short link saves against the long tagged address, in modules a side. */
export interface Gain {
  readonly short: number
  /** Null where the long address does not fit any symbol at this level. */
  readonly long: number | null
}

/** Compares the symbol of the printed short link with that of the tagged address, at one level. */
export function densityGain(printedLink: string, taggedAddress: string, level: Level): Gain {
  const short = encode(printedLink, level).side
  try {
    return { short, long: encode(taggedAddress, level).side }
  } catch (error) {
    if (error instanceof SymbolTooLong) return { short, long: null }
    throw error
  }
}

/** The gain as a phrase: "29 × 29 instead of 53 × 53 modules". */
export function gainPhrase({ short, long }: Gain): string {
  const square = (n: number) => `${String(n)} × ${String(n)}`
  return long === null
    ? `${square(short)} modules, where the long address would fit no symbol at all`
    : `${square(short)} instead of ${square(long)} modules`
}
