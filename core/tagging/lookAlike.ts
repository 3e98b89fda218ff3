import { distance } from 'fastest-levenshtein'

/** A value without what spellings of the same thing differ by: case, accents, separators. */
export function bareForm(value: string): string {
  return value
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]/gu, '')
    .toLowerCase()
}

const tokens = (value: string) =>
  value
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
const digits = (value: string) => value.replace(/\D+/g, '·')

/** Slips of the finger that still look like the same word: one in five letters or more, two in ten or more. */
function slipsFor(length: number): number {
  if (length >= 10) return 2
  return length >= 5 ? 1 : 0
}

/** A part shorter than this is a name of its own ("line-a", "line-b"), not a misspelling. */
const WORD = 4

/**
 * Whether two values are probably one, spelled in two ways. Numbers always tell apart: `line-2` is not
 * `line-7`. Letters are compared by Levenshtein distance, word by word where both have as many words.
 */
export function isLookAlike(a: string, b: string): boolean {
  if (a === b) return false
  const [bareA, bareB] = [bareForm(a), bareForm(b)]
  if (bareA === bareB) return bareA !== ''
  if (digits(a) !== digits(b)) return false
  const length = Math.min(bareA.length, bareB.length)
  if (Math.abs(bareA.length - bareB.length) > 2) return false
  const [wordsA, wordsB] = [tokens(a), tokens(b)]
  if (
    wordsA.length === wordsB.length &&
    wordsA.some((word, i) => word !== wordsB[i] && Math.min(word.length, wordsB[i]?.length ?? 0) < WORD)
  )
    return false
  const slips = slipsFor(length)
  return slips > 0 && distance(bareA, bareB) <= slips
}

/** Values in use, each with the number of pieces that carry it. */
export interface ValuesInUse {
  /** The spelling a value should have taken: a look-alike that more pieces carry; null where there is none. */
  better(value: string): string | null
}

/** With more values than this, only spellings that differ by case and separators are looked for: longer lists are serial numbers. */
const COMPARED_MAX = 1500

/**
 * Indexes the values of one field. Of several spellings the one that most pieces carry is the right
 * one; of equals the one the house would write, then the first by alphabet.
 *
 * @param isTidy whether a value is written as the house writes it
 */
export function valuesInUse(
  counts: Iterable<readonly [value: string, pieces: number]>,
  isTidy: (value: string) => boolean,
): ValuesInUse {
  const pieces = new Map(counts)
  pieces.delete('')
  const spellings = new Map<string, string[]>()
  for (const value of pieces.keys()) {
    const bare = bareForm(value)
    spellings.set(bare, [...(spellings.get(bare) ?? []), value])
  }
  const compared = pieces.size <= COMPARED_MAX ? [...pieces.keys()] : null
  const known = new Map<string, string | null>()

  const outranks = (a: string, b: string): boolean => {
    const more = (pieces.get(a) ?? 0) - (pieces.get(b) ?? 0)
    if (more !== 0) return more > 0
    const [tidyA, tidyB] = [isTidy(a), isTidy(b)]
    return tidyA === tidyB ? a < b : tidyA
  }

  function find(value: string): string | null {
    const candidates = compared ?? spellings.get(bareForm(value)) ?? []
    let best: string | null = null
    for (const other of candidates) {
      if (!isLookAlike(value, other) || !outranks(other, value)) continue
      if (best === null || outranks(other, best)) best = other
    }
    return best
  }

  return {
    better(value) {
      if (value === '') return null
      let found = known.get(value)
      if (found === undefined) {
        found = find(value)
        known.set(value, found)
      }
      return found
    },
  }
}

export const NO_VALUES: ValuesInUse = { better: () => null }
