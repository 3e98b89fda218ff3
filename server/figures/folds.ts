import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type Sqlite from 'better-sqlite3'
import type { Folded, FoldedTable, Numbers } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { decodeTable, encodeTable } from './arrow.ts'
import type { Fact } from './fact.ts'
import { groupsFrom, type Groups } from './groups.ts'
import type { CodeTotals } from './segment.ts'

/**
 * Folds: sums that stand in the database in place of facts whose rows go. Each fold has an edition; from the moment it
 * is in the database, its blocks count and the facts that were folded do not, wherever they still stand.
 */
export interface FoldBlock extends Span {
  readonly id: number
  readonly facts: number
}

/** All that is known of a block without its sums. */
export interface FoldHead {
  readonly totals: CodeTotals
  readonly groups: Groups
}

const HEAD = 'head'
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

  function starts(id: number, dimension: D, length: number): Uint32Array {
    const found = new Uint32Array(length + 1)
    const head = tableOf(id, HEAD)
    found.set(head.plain(`start ${dimension}`, Uint32Array))
    found[length] = (head.note as { ends: Record<D, number> }).ends[dimension]
    return found
  }

  return {
    /** Names what is folded; nothing where nothing is. */
    edition: () => (edition.get(fact.name) as string | undefined) ?? '',
    blocks: () => blocks.all(fact.name) as FoldBlock[],
    head(id: number): FoldHead {
      const table = tableOf(id, HEAD)
      const { groups } = table.note as { groups: { group: number[]; code: number[] } }
      return {
        totals: {
          codes: table.plain('code', Uint32Array),
          count: table.plain('count', Uint32Array),
          uniques: table.plain('uniques', Uint32Array),
          lastAt: table.plain('lastAt', Float64Array),
        },
        groups: groupsFrom(Uint32Array.from(groups.group), Uint32Array.from(groups.code)),
      }
    },
    /** The sums of a block by one dimension. */
    table(id: number, dimension: D, { totals }: FoldHead): FoldedTable {
      const table = tableOf(id, dimension)
      const { values, index } = table.dimension('value')
      return {
        values,
        value: index,
        starts: starts(id, dimension, totals.codes.length),
        firstStep: (table.note as { firstStep: number }).firstStep,
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
    block(edition: string, folded: Folded<D>, totals: CodeTotals, groups: Groups): void {
      const id = retryWhenLockedSync(() =>
        insertBlock.run(edition, folded.span.start, folded.span.end, folded.length),
      ).lastInsertRowid
      for (const [name, bytes] of tablesOf(folded, totals, groups)) {
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
  { codes, tables }: Folded<D>,
  { count, uniques, lastAt }: CodeTotals,
  { group, code }: Groups,
): Generator<[name: string, bytes: Uint8Array]> {
  const all = Object.entries<FoldedTable>(tables)
  const starts = all.map(([name, table]) => [`start ${name}`, table.starts.subarray(0, codes.length)])
  const ends = all.map(([name, { starts: s }]) => [name, s[codes.length] ?? 0])
  const groups = { group: [...group], code: [...code] }
  yield [
    HEAD,
    encodeTable(
      { code: codes, count, uniques, lastAt, ...(Object.fromEntries(starts) as Record<string, Numbers>) },
      { groups, ends: Object.fromEntries(ends) as Record<string, number> },
    ),
  ]
  for (const [name, { values, value, step, count: n, uniques: u, apart, firstStep }] of all)
    yield [
      name,
      encodeTable({ value: { values, index: value }, step, count: n, uniques: u, apart }, { firstStep }),
    ]
}
