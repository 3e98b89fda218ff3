import type Sqlite from 'better-sqlite3'
import { LRUCache } from 'lru-cache'
import {
  mergeColumns,
  packColumns,
  withValues,
  type Columns,
  type Folded,
  type FoldedTable,
  type Sums,
} from '@flimbo/core/figures'
import type { Fact } from './fact.ts'
import { foldReader, type FoldBlock, type FoldHead } from './folds.ts'
import { isPackedFrom, manifestEdition, noSegments, readManifest, type Manifest } from './manifest.ts'
import { packedRows } from './packedRows.ts'
import { foldedPart, loosePart, segmentPart, type LoosePart, type Part } from './part.ts'
import { codeTotals, readColumns, readHead, spanOfColumns, type Head, type Segment } from './segment.ts'

/** How much is kept in memory. */
export interface StoreSizes {
  /** Columns that were read, in bytes: about 28 a fact. */
  readonly columnsBytes: number
  /** Sums of what is folded, in bytes. */
  readonly foldedBytes: number
  /** Sums of segments that have no sheet. */
  readonly sums: number
  /** Facts that are in no segment; more are read again each time they are asked for. */
  readonly looseFacts: number
  /** Facts that are read at a time. */
  readonly atOnce: number
}
const SIZES: StoreSizes = {
  columnsBytes: 320 << 20,
  foldedBytes: 64 << 20,
  sums: 4000,
  looseFacts: 300_000,
  atOnce: 32_768,
}

/** Facts as they are now, wherever they stand. */
export interface FactStore<D extends string> {
  /** All facts that are there now, some at a time, each once. */
  parts(): Iterable<Part<D>>
  /** The same, and the number of the newest of them. */
  state(): { readonly newest: number; readonly parts: Iterable<Part<D>> }
}

/** Reads the facts of a database, and the segments that stand beside it. */
export function factStore<D extends string>(
  database: Sqlite.Database,
  directory: string,
  fact: Fact<D>,
  given: Partial<StoreSizes> = {},
): FactStore<D> {
  const sizes = { ...SIZES, ...given }
  const reader = fact.reader(database)
  const heads = new Map<string, Head<D>>()
  const columns = new LRUCache<string, Columns<D>>({
    maxSize: sizes.columnsBytes,
    sizeCalculation: ({ at }) => Math.max(1, at.buffer.byteLength),
  })
  const sums = new LRUCache<string, Sums<D>>({ max: sizes.sums })
  const folds = foldReader(database, fact)
  const foldedTables = new LRUCache<string, FoldedTable>({
    maxSize: sizes.foldedBytes,
    sizeCalculation: ({ step }) => Math.max(1, step.buffer.byteLength),
  })
  let blocks: Part<D>[] = []
  let edition = ''
  let manifest: Manifest = noSegments('')
  /** Facts above the mark, up to the number in `looseTo`, the largest parts first. */
  let loose: LoosePart<D>[] = []
  let looseTo = 0

  function lookAtManifest(): void {
    const now = manifestEdition(directory)
    const folded = folds.edition()
    if (now === edition && folded === manifest.folds) return
    edition = now
    if (folded !== manifest.folds) blocks = folds.blocks().map(blockPart)
    const found = readManifest(directory, folded)
    manifest = isPackedFrom(found, reader) ? found : noSegments(folded)
    const there = new Set(manifest.segments.map(({ name }) => name))
    for (const name of heads.keys()) if (!there.has(name)) heads.delete(name)
    for (const name of columns.keys()) if (!there.has(name)) columns.delete(name)
    loose = []
    looseTo = manifest.mark
  }

  function blockPart(block: FoldBlock): Part<D> {
    const head = folds.head(block.id)
    return foldedPart(block, head, foldedOf(block, head), sums)
  }
  function foldedOf({ id, facts, start, end }: FoldBlock, head: FoldHead<D>): Folded<D> {
    const { codes, lastAt } = head.totals
    const tables = {} as Record<D, FoldedTable>
    for (const dimension of fact.dimensions)
      Object.defineProperty(tables, dimension, {
        enumerable: true,
        get: () => foldedTable(id, dimension, head),
      })
    return { length: facts, span: { start, end }, codes, lastAt, first: folds.first, tables }
  }
  function foldedTable(id: number, dimension: D, head: FoldHead<D>): FoldedTable {
    const key = `${String(id)} ${dimension}`
    const known = foldedTables.get(key)
    if (known) return known
    const read = folds.table(id, dimension, head)
    foldedTables.set(key, read)
    return read
  }

  function keepLoose(newest: number): void {
    while (looseTo < newest && newest - manifest.mark <= sizes.looseFacts) {
      const rows = reader.between(looseTo, newest, sizes.atOnce)
      looseTo = rows.id.length < sizes.atOnce ? newest : (rows.id.at(-1) ?? newest)
      if (rows.id.length === 0) continue
      let fresh = packColumns(rows)
      // Small parts are put together as they become as many as a larger one: there are never many.
      for (let last = loose.at(-1); last && last.columns().length <= 2 * fresh.length; last = loose.at(-1)) {
        loose.pop()
        fresh = mergeColumns([last.columns(), fresh])
      }
      loose.push(partOf(fresh))
    }
  }
  const partOf = (packed: Columns<D>): LoosePart<D> =>
    loosePart(packed, codeTotals(packed), spanOfColumns(packed), fact)

  function* fromRows(after: number, upTo: number): Generator<Part<D>> {
    for (const packed of packedRows(reader, after, upTo, sizes.atOnce)) yield partOf(packed)
  }

  /** @returns null where the segment is damaged, or was replaced a moment ago */
  function headOf(segment: Segment): Head<D> | null {
    const known = heads.get(segment.name)
    if (known) return known
    try {
      const head = readHead(directory, segment, fact)
      heads.set(segment.name, head)
      return head
    } catch {
      return null
    }
  }
  function columnsOf(segment: Segment, head: Head<D>): Columns<D> {
    const known = columns.get(segment.name)
    if (known) return known
    const read = readOrPack(segment, head)
    columns.set(segment.name, read)
    return read
  }
  function readOrPack(segment: Segment, head: Head<D>): Columns<D> {
    try {
      return readColumns(directory, segment, head, fact)
    } catch {
      // Sums name values by their places among those of the head.
      return withValues(
        mergeColumns([...packedRows(reader, segment.firstId - 1, segment.lastId, sizes.atOnce)]),
        head.values,
      )
    }
  }

  function* partsOf(
    folded: readonly Part<D>[],
    segments: readonly Segment[],
    kept: readonly Part<D>[],
    keptTo: number,
    newest: number,
  ) {
    yield* folded
    for (const segment of segments) {
      const head = headOf(segment)
      if (head) yield segmentPart(segment, head, fact, () => columnsOf(segment, head), sums)
      else yield* fromRows(segment.firstId - 1, segment.lastId)
    }
    yield* kept
    yield* fromRows(keptTo, newest)
  }

  function state() {
    // In this order: whatever is in a segment by now is not newer than the newest. What is folded meanwhile is for
    // the caller's transaction to keep out: a question sees one state of the database.
    lookAtManifest()
    const newest = reader.newest()
    keepLoose(newest)
    return { newest, parts: partsOf(blocks, manifest.segments, [...loose], looseTo, newest) }
  }
  return { state, parts: () => state().parts }
}
