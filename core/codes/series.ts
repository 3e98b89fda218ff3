import type { z } from 'zod'
import { fieldFaults } from '../api/index.ts'
import type { seriesPiece } from './piece.ts'
import { newCode } from './piece.ts'
import type { seriesNumbers } from './lists.ts'

type Numbers = z.output<typeof seriesNumbers>

/** The texts a number can stand in. */
const NUMBERED = ['name', 'content', 'term', 'place', 'slug', 'reference', 'key', 'note'] as const

/**
 * Writes out a numbered series: each `{n}` in a piece's texts becomes its number with leading zeros. A
 * name without `{n}` gets the number at its end; a short link and a key without one would be the same for
 * all and are left out.
 *
 * @throws RangeError with a sentence where a number makes a text that no piece can have
 */
export function seriesOf(
  piece: z.input<typeof seriesPiece>,
  { from, to, digits }: Numbers,
): z.output<typeof newCode>[] {
  return Array.from({ length: to - from + 1 }, (_, i) => {
    const n = String(from + i).padStart(digits, '0')
    const one: Record<string, unknown> = { ...piece }
    for (const field of NUMBERED) {
      const text = piece[field]
      if (typeof text !== 'string') continue
      if (text.includes('{n}')) one[field] = text.replaceAll('{n}', n)
      else if (field === 'slug' || field === 'key') one[field] = field === 'slug' ? undefined : ''
      else if (field === 'name') one[field] = `${text} ${n}`
    }
    const read = newCode.safeParse(one)
    if (!read.success)
      throw new RangeError(
        `Number ${n}: ${fieldFaults(read.error)
          .map(({ message }) => message)
          .join(' ')}`,
      )
    return read.data
  })
}
