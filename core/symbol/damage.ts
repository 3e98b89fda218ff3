import { blocksOf, type Level } from './capacity.ts'
import { codewordPlaces, layoutOf } from './layout.ts'

/** What one block of a symbol has lost, and what it can lose. */
export interface BlockDamage {
  /** Codewords that would be read wrongly. */
  readonly lost: number
  /** So many wrong codewords the block's error correction makes good. */
  readonly correctable: number
}

/**
 * Codewords of the smallest symbols that are kept for telling a misread from a good one, and correct nothing
 * (ISO/IEC 18004, table 9, from memory).
 */
const MISREAD: Readonly<Record<string, number>> = {
  '1-L': 3,
  '1-M': 2,
  '1-Q': 1,
  '1-H': 1,
  '2-L': 2,
  '3-L': 1,
}

/** How many wrong codewords each block of a symbol can have and still be read. Two codewords make good one error. */
export function correctableOf(version: number, level: Level): number {
  const spare = MISREAD[`${String(version)}-${level}`] ?? 0
  return Math.floor((blocksOf(version, level).correction - spare) / 2)
}

/**
 * Counts the modules that a drawing hides or turns into the codewords they belong to. Exact for what it is told: a
 * codeword with one wrong module is as lost as one with eight.
 *
 * @param wrong whether the module at a column and a row would be read wrongly
 * @returns what each block has lost
 */
export function blockDamage(
  version: number,
  level: Level,
  wrong: (x: number, y: number) => boolean,
): BlockDamage[] {
  const { side, bits } = layoutOf(version)
  const places = codewordPlaces(version, level)
  const lost = new Set<number>()
  bits.forEach((bit, i) => {
    const word = bit >> 3
    // The last few modules of some versions belong to no codeword.
    if (bit >= 0 && word < places.length && wrong(i % side, Math.floor(i / side))) lost.add(word)
  })
  const correctable = correctableOf(version, level)
  const blocks = Array.from({ length: blocksOf(version, level).count }, () => 0)
  for (const word of lost) {
    const block = places[word]?.block ?? 0
    blocks[block] = (blocks[block] ?? 0) + 1
  }
  return blocks.map((words) => ({ lost: words, correctable }))
}

/**
 * The share of a symbol's error correction that is left in the block that lost most: 1 − lost / correctable, the
 * unused error correction of ISO/IEC 15415; below 0 where it cannot be read.
 */
export function unusedCorrection(blocks: readonly BlockDamage[]): number {
  return Math.min(1, ...blocks.map(({ lost, correctable }) => 1 - lost / correctable))
}
