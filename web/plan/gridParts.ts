import type { Code } from '@flimbo/core/codes'
import { ApiProblem } from '../api/index.ts'
import type { Named } from './cells.ts'
import type { GridColumn } from './columns.tsx'
import type { Range } from './range.ts'
import type { Arrangement } from './useArrangement.ts'
import type { Blocks, Listing } from '../codes/index.ts'
import type { Edits } from './useEdits.ts'

/** Pieces that are selected; `all` is everything the listing holds, on the screen or not. */
export type Selected = ReadonlySet<number> | 'all'

/** What the actions of the grid work on. */
export interface GridParts {
  readonly blocks: Blocks
  readonly listing: Listing
  readonly columns: readonly GridColumn[]
  readonly named: Named
  readonly edits: Edits
  readonly total: number
  readonly arrangement: Arrangement
  readonly campaignId: number
  readonly selected: Selected
  readonly setSelected: (change: (old: Selected) => Selected) => void
  readonly copyPieces: (ids: number[]) => Promise<{ ids: number[] }>
  readonly open: (id: number) => void
  readonly setMoving: (ids: readonly number[]) => void
  readonly setClosed: (change: (old: ReadonlySet<string>) => ReadonlySet<string>) => void
  readonly navigate: (to: string) => void
}

/** The parts as they are when somebody acts: actions themselves stay the same, so that rows are not drawn anew for them. */
export interface Latest {
  readonly current: GridParts
}

/** Says beside the grid why nothing was done. */
export function refuse({ current }: Latest, sentence: string): void {
  current.edits.say({ kind: 'trouble', sentence, details: [] })
}

/** Says beside the grid what was done. */
export function report({ current }: Latest, sentence: string): void {
  current.edits.say({ kind: 'done', sentence, details: [] })
}

/** Does what nobody waits for, and says what went wrong with it. */
export function run(latest: Latest, work: () => Promise<unknown>): void {
  work().catch((error: unknown) => {
    const sentence = 'That could not be done. Nothing was changed.'
    refuse(latest, error instanceof ApiProblem ? error.problem.detail : sentence)
  })
}

export const columnsIn = ({ current }: Latest, { left, right }: Range) =>
  current.columns.slice(left, right + 1)

/** The selected pieces, by number. */
export async function selectedIds({ current }: Latest): Promise<number[]> {
  const { selected, blocks, total } = current
  if (selected !== 'all') return [...selected]
  return (await blocks.between(0, total - 1)).map(({ id }: Code) => id)
}
