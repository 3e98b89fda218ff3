import { contentOf, shortLink, type Code } from '@flimbo/core/codes'
import { filesOf } from '@flimbo/core/houseStyles'
import { freeLevel, laidOn, printedSymbol, styledScene } from '@flimbo/core/symbol'
import { useMemo } from 'react'
import { useLookParts } from '../symbol/index.ts'
import type { Draft } from './draft.ts'
import { useProof } from './useProof.ts'

/** What is printed: what its symbol carries, and the short link as people type it, empty where there is none. */
export interface Printable {
  readonly name: string
  readonly text: string
  readonly link: string
}

/** A code as it is printed. */
export const printableOf = (code: Pick<Code, 'name' | 'origin' | 'slug'>): Printable => ({
  name: code.name,
  text: contentOf(code),
  link: shortLink(code.origin, code.slug).replace(/^https?:\/\//, ''),
})

/** How something is printed. */
export type Printing = Pick<Draft, 'look' | 'level' | 'sizeMm' | 'viewingM'> & {
  readonly placement?: Draft['placement']
}

/** Something as it is drafted: its symbol, and its scene. */
export function usePieceScene(
  { name, text, link }: Printable,
  { look, level, sizeMm: mm, placement = null }: Printing,
) {
  const parts = useLookParts([look], placement?.file)
  const symbol = useMemo(() => printedSymbol(text, level), [text, level])
  const scene = useMemo(
    () => styledScene(symbol, look, mm, name, link, parts),
    [symbol, look, mm, name, link, parts],
  )
  const size = placement && parts.pictureSize(placement.file)
  /** All that is printed: with the picture that the piece lies on. */
  const whole = useMemo(
    () => (placement && size ? laidOn(scene, placement, size) : scene),
    [scene, placement, size],
  )
  return { text, link, parts, symbol, scene, whole, free: freeLevel(text, level) }
}

/** The same, with what is measured of it. */
export function usePiece(printable: Printable, printing: Printing) {
  const { look, level, sizeMm: mm, viewingM, placement = null } = printing
  const sums = useMemo(() => [...filesOf(look), ...(placement ? [placement.file] : [])], [look, placement])
  const drawn = usePieceScene(printable, printing)
  const { text, link, parts } = drawn
  const sizes = useMemo(
    () =>
      Object.fromEntries(
        sums.flatMap((sum) => {
          const size = parts.pictureSize(sum)
          return size ? [[sum, size] as const] : []
        }),
      ),
    [sums, parts],
  )
  const isWhole = Object.keys(sizes).length === new Set(sums).size
  const measured = useProof(isWhole ? { text, level, look, mm, link, placement, viewingM, sizes } : null)
  return { ...drawn, measured }
}
export type PieceOf = ReturnType<typeof usePiece>
