import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import { countOf, type Columns, type Dimension, type DimensionValue } from '@flimbo/core/figures'
import { decodeTable, encodeTable } from './arrow.ts'
import type { Fact } from './fact.ts'
import { groupsFrom, groupsOf, type Groups } from './groups.ts'
import { decodeSheets, encodeSheets, sheetsOf, type Sheet, type SheetOwner } from './sheets.ts'

/**
 * A segment: facts with consecutive numbers, packed into columns and never changed. It is a directory of tables:
 * `columns`, the facts; `codes`, where those of each code stand and what they come to; `groups`, which codes each
 * group has facts at; `sheets`, the sums of whatever has so many facts in it that nobody should count them again.
 */
export interface Segment {
  readonly name: string
  readonly firstId: number
  readonly lastId: number
  readonly length: number
  /** From the first fact to just after the last, UTC milliseconds. */
  readonly start: number
  readonly end: number
  /** How often it was put together out of smaller ones. */
  readonly level: number
}

/** What each code of a segment comes to. */
export interface CodeTotals {
  readonly codes: Uint32Array
  readonly count: Uint32Array
  readonly uniques: Uint32Array
  /** The moment of the last fact that is counted; -1 where there is none. */
  readonly lastAt: Float64Array
}

/** What is known of some facts without looking at them. */
export interface Summary<D extends string = string> {
  readonly totals: CodeTotals
  readonly values: Readonly<Record<D, readonly DimensionValue[]>>
  readonly sheets: ReadonlyMap<string, Sheet<D>>
  readonly groups: Groups
}

/** All that is known of a segment without its facts. */
export interface Head<D extends string = string> extends Summary<D> {
  /** Where the facts of each code stand: those of the first from `starts[0]` to `starts[1]`. */
  readonly starts: Uint32Array
}

const FILES = {
  columns: 'columns.arrow',
  codes: 'codes.arrow',
  sheets: 'sheets.arrow',
  groups: 'groups.arrow',
} as const

/** What each code of some columns comes to. */
export function codeTotals(columns: Columns): CodeTotals {
  const { codes, starts } = columns
  const [count, uniques] = [new Uint32Array(codes.length), new Uint32Array(codes.length)]
  const lastAt = new Float64Array(codes.length)
  for (const [c, code] of codes.entries()) {
    const sum = countOf(columns, [{ code, from: starts[c] ?? 0, to: starts[c + 1] ?? 0 }])
    count[c] = sum.count
    uniques[c] = sum.uniques
    lastAt[c] = sum.lastAt
  }
  return { codes, count, uniques, lastAt }
}

/** The span from the first fact to just after the last. */
export function spanOfColumns({ codes, starts, at }: Columns): { start: number; end: number } {
  let [start, end] = [Infinity, -Infinity]
  for (let c = 0; c < codes.length; c++) {
    start = Math.min(start, at[starts[c] ?? 0] ?? Infinity)
    end = Math.max(end, (at[(starts[c + 1] ?? 1) - 1] ?? -Infinity) + 1)
  }
  return { start, end }
}

/**
 * Writes a segment, whole or not at all.
 *
 * @param edition of what is folded: the same numbers have other facts then
 */
export function writeSegment<D extends string>(
  directory: string,
  fact: Fact<D>,
  columns: Columns<D>,
  owners: readonly SheetOwner[],
  level: number,
  edition: string,
): Segment {
  const ids = `${String(columns.firstId)}-${String(columns.lastId)}`
  const name = edition === '' ? ids : `${ids}-${edition}`
  const incoming = join(directory, `incoming-${name}`)
  rmSync(incoming, { recursive: true, force: true })
  mkdirSync(incoming, { recursive: true })
  const { at, id, flags, dimensions, firstId, lastId, length } = columns
  const { starts } = columns
  const { codes, count, uniques, lastAt } = codeTotals(columns)
  const all: Record<string, Dimension> = dimensions
  writeWhole(join(incoming, FILES.columns), encodeTable({ at, id, flags, ...all }, { firstId, lastId }))
  writeWhole(
    join(incoming, FILES.codes),
    encodeTable(
      { code: codes, start: starts.subarray(0, codes.length), count, uniques, lastAt },
      {
        length,
        values: Object.fromEntries(fact.dimensions.map((each) => [each, dimensions[each].values])),
      },
    ),
  )
  writeWhole(join(incoming, FILES.sheets), encodeSheets(fact, sheetsOf(columns, fact, owners)))
  const { group, code } = groupsOf(columns, fact)
  writeWhole(join(incoming, FILES.groups), encodeTable({ group, code }))
  const whole = join(directory, name)
  rmSync(whole, { recursive: true, force: true })
  renameSync(incoming, whole)
  syncDirectory(directory)
  return { name, firstId, lastId, length, ...spanOfColumns(columns), level }
}

/** @throws Error where the segment is not there any more, or is damaged */
export function readHead<D extends string>(directory: string, { name }: Segment, fact: Fact<D>): Head<D> {
  const codes = readTable(join(directory, name, FILES.codes))
  const groups = readTable(join(directory, name, FILES.groups))
  // Written by `writeSegment`.
  const { length, values } = codes.note as { length: number; values: Record<D, DimensionValue[]> }
  const start = codes.plain('start', Uint32Array)
  const starts = new Uint32Array(start.length + 1)
  starts.set(start)
  starts[start.length] = length
  return {
    totals: {
      codes: codes.plain('code', Uint32Array),
      count: codes.plain('count', Uint32Array),
      uniques: codes.plain('uniques', Uint32Array),
      lastAt: codes.plain('lastAt', Float64Array),
    },
    starts,
    values,
    sheets: decodeSheets(readTable(join(directory, name, FILES.sheets)), fact),
    groups: groupsFrom(groups.plain('group', Uint32Array), groups.plain('code', Uint32Array)),
  }
}

/** @throws Error where the segment is not there any more, or is damaged */
export function readColumns<D extends string>(
  directory: string,
  { name, length }: Segment,
  { totals: { codes }, starts }: Head<D>,
  fact: Fact<D>,
): Columns<D> {
  const table = readTable(join(directory, name, FILES.columns))
  const { firstId, lastId } = table.note as { firstId: number; lastId: number }
  if (table.length !== length) throw new Error('A segment is of another length.')
  return {
    length,
    firstId,
    lastId,
    codes,
    starts,
    at: table.plain('at', Float64Array),
    id: table.plain('id', Uint32Array),
    flags: table.plain('flags', Uint8Array),
    dimensions: Object.fromEntries(
      fact.dimensions.map((each) => [each, table.dimension(each)]),
    ) as unknown as Record<D, Dimension>,
  }
}

const readTable = (path: string) => decodeTable(aligned(readFileSync(path)))

/** Columns are views of what was read: it must begin where an array of eight bytes each may begin. */
function aligned(bytes: Buffer): Uint8Array {
  return bytes.byteOffset % 8 === 0
    ? new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.length)
    : new Uint8Array(bytes)
}

/** Writes a file and waits for the disk. */
export function writeWhole(path: string, content: Uint8Array | string): void {
  const file = openSync(path, 'w')
  try {
    const bytes = typeof content === 'string' ? Buffer.from(content) : content
    for (let written = 0; written < bytes.length;) written += writeSync(file, bytes, written)
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
}

/** What was renamed in a directory is on disk once this is done. */
export function syncDirectory(path: string): void {
  const directory = openSync(path, 'r')
  try {
    fsyncSync(directory)
  } finally {
    closeSync(directory)
  }
}
