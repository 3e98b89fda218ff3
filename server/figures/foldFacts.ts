import {
  foldColumns,
  mergeColumns,
  pickFacts,
  type Columns,
  type Folding,
  type Step,
} from '@flimbo/core/figures'
import type { Fact, FactReader } from './fact.ts'
import type { FoldWriter, WorkspaceFold } from './folds.ts'
import { groupsOf } from './groups.ts'
import { packedRows } from './packedRows.ts'
import { codeTotals, type Segment } from './segment.ts'
import { sheetsOf, type SheetOwner } from './sheets.ts'

/** What is to be folded. */
export interface FoldPlan<D extends string = string> {
  /** A name that no fold had before. */
  readonly edition: string
  /** When it is done, UTC milliseconds. */
  readonly at: number
  /** Up to which moment facts are folded, by workspace. */
  readonly before: ReadonlyMap<number, number>
  /** The workspace of a code; null where there is none. */
  workspaceOf(code: number): number | null
  stepOf: Folding<D>['stepOf']
}

interface Parts<D extends string> {
  readonly fact: Fact<D>
  readonly reader: FactReader<D>
  readonly segments: readonly Segment[]
  readonly mark: number
  readonly columnsOf: (segment: Segment) => Columns<D> | null
  readonly ownersOf: (columns: Columns<D>) => SheetOwner[]
  readonly segmentOf: (columns: Columns<D>, level: number) => Segment
  readonly plan: FoldPlan<D>
  readonly writer: FoldWriter<D>
}

const AT_ONCE = 16_384

/**
 * Sums up the facts that are to be folded, from their rows, and writes segments without them.
 *
 * @returns the segments that there are then, and what was folded; all of it counts once the fold is in force
 */
export function* foldFacts<D extends string>({
  fact,
  reader,
  segments,
  mark,
  columnsOf,
  segmentOf,
  ownersOf,
  plan,
  writer,
}: Parts<D>): Generator<void, { segments: Segment[]; folds: WorkspaceFold[] }> {
  // Numbers go on from the newest fact, and segments are known by that at the mark: these two stay for now.
  const lastId = reader.newest() - 1
  const [first] = fact.everyFact
  const folding: Folding<D> = { first, stepOf: (code, quarter) => plan.stepOf(code, quarter) }
  const latest = Math.max(...plan.before.values())
  /** Counted facts that are folded, by workspace. */
  const countedOf = new Map<number, number>()

  /** Those of some facts that are to be folded, 1 each. */
  function foldedAmong({ codes, starts, at, id, firstId, length }: Columns<D>): Uint8Array {
    const found = new Uint8Array(length)
    for (const [c, code] of codes.entries()) {
      const before = plan.before.get(plan.workspaceOf(code) ?? 0) ?? -Infinity
      for (let i = starts[c] ?? 0; i < (starts[c + 1] ?? 0) && (at[i] ?? 0) < before; i++) {
        const number = firstId + (id[i] ?? 0)
        if (number <= lastId && number !== mark) found[i] = 1
      }
    }
    return found
  }

  function save(columns: Columns<D>): void {
    const totals = codeTotals(columns)
    for (const [c, code] of columns.codes.entries()) {
      const workspaceId = plan.workspaceOf(code) ?? 0
      countedOf.set(workspaceId, (countedOf.get(workspaceId) ?? 0) + (totals.count[c] ?? 0))
    }
    writer.block(plan.edition, foldColumns(columns, folding), {
      totals,
      groups: groupsOf(columns, fact),
      sheets: sheetsOf(columns, fact, ownersOf(columns)),
    })
  }

  function* foldRows(after: number, upTo: number): Generator<void, Columns<D>[]> {
    const [stay, gone]: [Columns<D>[], Columns<D>[]] = [[], []]
    for (const rows of packedRows(reader, after, upTo, AT_ONCE)) {
      const isFolded = foldedAmong(rows)
      const [left, folded] = [0, 1].map((which) => pickFacts(rows, placesOf(isFolded, which)))
      if (left) stay.push(left)
      if (folded) gone.push(folded)
      yield
    }
    if (gone.length > 0)
      for (const month of monthsOf(mergeColumns(gone))) {
        save(month)
        yield
      }
    return stay
  }

  const next: Segment[] = []
  for (const segment of segments) {
    if (segment.start >= latest) {
      next.push(segment)
      continue
    }
    // Looking through columns is quick; where they are damaged, rows are looked through.
    const columns = columnsOf(segment)
    if (columns && !foldedAmong(columns).includes(1)) {
      next.push(segment)
      continue
    }
    const stay = yield* foldRows(segment.firstId - 1, segment.lastId)
    if (stay.length > 0) next.push(segmentOf(mergeColumns(stay), segment.level))
  }
  yield* foldRows(mark, lastId)
  const folds = [...countedOf].map(([workspaceId, facts]) => ({
    workspaceId,
    before: plan.before.get(workspaceId) ?? 0,
    lastId,
    keptId: mark,
    facts,
  }))
  return { segments: next, folds }
}

const placesOf = (isFolded: Uint8Array, which: number): Uint32Array => {
  const places = new Uint32Array(isFolded.reduce((sum, each) => sum + Number(each === which), 0))
  let to = 0
  for (let i = 0; i < isFolded.length; i++) if (isFolded[i] === which) places[to++] = i
  return places
}

/** Facts of one calendar month (UTC) at a time: a block of sums is read whole. */
function* monthsOf<D extends string>(columns: Columns<D>): Generator<Columns<D>> {
  const places = new Map<number, number[]>()
  let last: Step & { month: number } = { from: 0, to: 0, month: 0 }
  for (let i = 0; i < columns.length; i++) {
    const at = columns.at[i] ?? 0
    if (at < last.from || at >= last.to) last = monthOf(at)
    const found = places.get(last.month)
    if (found) found.push(i)
    else places.set(last.month, [i])
  }
  for (const found of places.values()) {
    const picked = pickFacts(columns, Uint32Array.from(found))
    if (picked) yield picked
  }
}

function monthOf(at: number): Step & { month: number } {
  const date = new Date(at)
  const [year, month] = [date.getUTCFullYear(), date.getUTCMonth()]
  return { from: Date.UTC(year, month), to: Date.UTC(year, month + 1), month: year * 12 + month }
}
