import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type Sqlite from 'better-sqlite3'
import type { DimensionValue, Folded, FoldedTable } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { decodeTable, encodeTable, type ReadTable } from './arrow.ts'
import type { Fact } from './fact.ts'
import { groupsFrom, type Groups } from './groups.ts'
import type { CodeTotals, Summary } from './segment.ts'
import { decodeSheets, encodeSheets, type KeyedSheet } from './sheets.ts'

/**
 * Folds: sums that stand in the database in place of facts whose rows go. Each fold has an edition; from the moment it
 * is in the database, its blocks count and the facts that were folded do not, wherever they still stand.
 */
export interface FoldBlock extends Span {
  readonly id: number
  readonly facts: number
}

/** All that is known of a block without its sums. */
export interface FoldHead<D extends string = string> extends Summary<D> {
  /** Where the sums of each code stand in the table of a dimension. */
  readonly starts: Readonly<Record<D, Uint32Array>>
}

/** What is written of a block beside its tables. */
export interface FoldSummary<D extends string> {
  readonly totals: CodeTotals
  readonly groups: Groups
  readonly sheets: readonly KeyedSheet<D>[]
}

/** What else is to be known of a block. */
interface HeadNote<D extends string> {
  readonly groups: { readonly group: readonly number[]; readonly code: readonly number[] }
  readonly ends: Readonly<Record<D, number>>
  readonly values: Readonly<Record<D, readonly DimensionValue[]>>
}

const [HEAD, SHEETS] = ['head', 'sheets']
/** A block is written in pieces of so many bytes, each in a transaction of its own: no scan waits for more. */
const PIECE_BYTES = 256 << 10

/** Reads the folds of a fact. */
export function foldReader<D extends string>(database: Sqlite.Database, fact: Fact<D>) {
  const [first] = fact.everyFact
  const edition = database
    .prepare('SELECT edition FROM folds WHERE fact = ? ORDER BY id DESC LIMIT 1')
    .pluck()
  const blocks = database.prepare(
    `SELECT id, start, "end", facts FROM fold_blocks WHERE edition IN (SELECT edition FROM folds WHERE fact = ?) ORDER BY id`,
  )
  const pieces = database
    .prepare('SELECT content FROM fold_pieces WHERE blockId = ? AND name = ? ORDER BY id')
    .pluck()
  const tableOf = (id: number, name: string) =>
    decodeTable(new Uint8Array(inflateRawSync(Buffer.concat(pieces.all(id, name) as Buffer[]))))

  function startsIn(head: ReadTable, dimension: D, end: number): Uint32Array {
    const starts = head.plain(`start ${dimension}`, Uint32Array)
    const found = new Uint32Array(starts.length + 1)
    found.set(starts)
    found[starts.length] = end
    return found
  }

  return {
    /** Names what is folded; nothing where nothing is. */
    edition: () => (edition.get(fact.name) as string | undefined) ?? '',
    blocks: () => blocks.all(fact.name) as FoldBlock[],
    head(id: number): FoldHead<D> {
      const table = tableOf(id, HEAD)
      // Written by `foldWriter`.
      const { groups, ends, values } = table.note as HeadNote<D>
      return {
        totals: {
          codes: table.plain('code', Uint32Array),
          count: table.plain('count', Uint32Array),
          uniques: table.plain('uniques', Uint32Array),
          lastAt: table.plain('lastAt', Float64Array),
        },
        groups: groupsFrom(Uint32Array.from(groups.group), Uint32Array.from(groups.code)),
        values,
        starts: Object.fromEntries(
          fact.dimensions.map((each) => [each, startsIn(table, each, ends[each])]),
        ) as Record<D, Uint32Array>,
        sheets: decodeSheets(tableOf(id, SHEETS), fact),
      }
    },
    /** The sums of a block by one dimension. */
    table(id: number, dimension: D, { values, starts }: FoldHead<D>): FoldedTable {
      const table = tableOf(id, dimension)
      return {
        values: values[dimension],
        starts: starts[dimension],
        firstStep: (table.note as { firstStep: number }).firstStep,
        value: table.numbers('value'),
        step: table.numbers('step'),
        count: table.numbers('count'),
        uniques: table.numbers('uniques'),
        apart: table.numbers('apart'),
      }
    },
    first,
  }
}
export type FoldReader<D extends string> = ReturnType<typeof foldReader<D>>

/** Which facts of a workspace a fold took: those before a moment, up to a number, but for one. */
export interface WorkspaceFold {
  readonly workspaceId: number
  readonly before: number
  readonly lastId: number
  /** The number of a fact that stays for now: segments are known by it. */
  readonly keptId: number
  /** How many of them are counted. */
  readonly facts: number
}

/** Writes folds of a fact. */
export function foldWriter<D extends string>(database: Sqlite.Database, fact: Fact<D>) {
  const insertBlock = database.prepare(
    'INSERT INTO fold_blocks (edition, start, "end", facts) VALUES (?, ?, ?, ?)',
  )
  const insertPiece = database.prepare('INSERT INTO fold_pieces (blockId, name, content) VALUES (?, ?, ?)')
  const insertFold = database.prepare(
    `INSERT INTO folds (edition, fact, workspaceId, before, lastId, keptId, facts, at, clearedTo)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0)`,
  )
  const unfinished = database
    .prepare('SELECT id FROM fold_blocks WHERE edition NOT IN (SELECT edition FROM folds)')
    .pluck()
  const deletePiece = database.prepare(
    'DELETE FROM fold_pieces WHERE id = (SELECT id FROM fold_pieces WHERE blockId = ? LIMIT 1)',
  )
  const deleteBlock = database.prepare('DELETE FROM fold_blocks WHERE id = ?')

  return {
    /** Writes some sums, which do not count before their fold is in force. */
    block(edition: string, folded: Folded<D>, summary: FoldSummary<D>): void {
      const id = retryWhenLockedSync(() =>
        insertBlock.run(edition, folded.span.start, folded.span.end, folded.length),
      ).lastInsertRowid
      for (const [name, bytes] of tablesOf(fact, folded, summary)) {
        const content = deflateRawSync(bytes, { level: 3 })
        for (let from = 0; from < content.length; from += PIECE_BYTES)
          retryWhenLockedSync(() => insertPiece.run(id, name, content.subarray(from, from + PIECE_BYTES)))
      }
    },
    /** Brings a fold into force: at once, or not at all. */
    commit(edition: string, folds: readonly WorkspaceFold[], at: number): void {
      const all = database.transaction(() => {
        for (const { workspaceId, before, lastId, keptId, facts } of folds)
          insertFold.run(edition, fact.name, workspaceId, before, lastId, keptId, facts, at)
      })
      retryWhenLockedSync(() => {
        all.immediate()
      })
    },
    /** Removes what a fold that was stopped has left. */
    tidy(): void {
      for (const id of unfinished.all()) {
        while (retryWhenLockedSync(() => deletePiece.run(id)).changes > 0);
        retryWhenLockedSync(() => deleteBlock.run(id))
      }
    },
  }
}
export type FoldWriter<D extends string> = ReturnType<typeof foldWriter<D>>

function* tablesOf<D extends string>(
  fact: Fact<D>,
  { codes, tables }: Folded<D>,
  { totals: { count, uniques, lastAt }, groups: { group, code }, sheets }: FoldSummary<D>,
): Generator<[name: string, bytes: Uint8Array]> {
  const all = Object.entries<FoldedTable>(tables)
  const byDimension = <T>(of: (table: FoldedTable) => T) =>
    Object.fromEntries(all.map(([name, table]) => [name, of(table)])) as Record<D, T>
  const starts = all.map(([name, table]) => [`start ${name}`, table.starts.subarray(0, codes.length)])
  const note: HeadNote<D> = {
    groups: { group: [...group], code: [...code] },
    ends: byDimension((table) => table.starts[codes.length] ?? 0),
    values: byDimension(({ values }) => values),
  }
  yield [
    HEAD,
    encodeTable(
      { code: codes, count, uniques, lastAt, ...(Object.fromEntries(starts) as Record<string, Uint32Array>) },
      note,
    ),
  ]
  yield [SHEETS, encodeSheets(fact, sheets)]
  for (const [name, { value, step, count: n, uniques: u, apart, firstStep }] of all)
    yield [name, encodeTable({ value, step, count: n, uniques: u, apart }, { firstStep })]
}
