import { _BYTES, _ECC_BLOCKS, _WORDS_PER_BLOCK } from 'qr'

/** Error correction levels, from about 7 to about 30 % of codewords (ISO/IEC 18004). */
export const LEVELS = ['L', 'M', 'Q', 'H'] as const
export type Level = (typeof LEVELS)[number]

/** Share of codewords each level can recover, about (ISO/IEC 18004). */
export const RECOVERY: Readonly<Record<Level, number>> = { L: 0.07, M: 0.15, Q: 0.25, H: 0.3 }

/** What the encoding library calls the levels. */
export const LIBRARY_LEVEL = { L: 'low', M: 'medium', Q: 'quartile', H: 'high' } as const

export const VERSION_MAX = 40

/** How the codewords of a version are parted at a level (ISO/IEC 18004, table 9). */
export interface Blocks {
  /** Codewords that carry data. */
  readonly data: number
  readonly count: number
  /** Error correction codewords of each block. */
  readonly correction: number
}

/** @param version 1 to 40 */
export function blocksOf(version: number, level: Level): Blocks {
  const name = LIBRARY_LEVEL[level]
  const correction = _WORDS_PER_BLOCK[name][version - 1] ?? 0
  const count = _ECC_BLOCKS[name][version - 1] ?? 0
  return { data: (_BYTES[version - 1] ?? 0) - correction * count, count, correction }
}

/** How many data codewords each block has: the first ones have one fewer where they cannot all be equal (ISO/IEC 18004, table 9). */
export function blockLengths({ data, count }: Blocks): number[] {
  const short = Math.floor(data / count)
  const longFrom = count - (data % count)
  return Array.from({ length: count }, (_, block) => short + (block < longFrom ? 0 : 1))
}
