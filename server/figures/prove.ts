import type Sqlite from 'better-sqlite3'
import { fingerprintOf, mergeColumns, sumsOf, type Columns, type Dimension } from '@flimbo/core/figures'
import type { Fact, FactReader } from './fact.ts'
import { foldReader, type FoldBlock, type FoldReader } from './folds.ts'
import { groupsOf } from './groups.ts'
import { isPackedFrom, readManifest } from './manifest.ts'
import { ownersIn } from './owners.ts'
import { packedRows } from './packedRows.ts'
import { codeTotals, readColumns, readHead, type Head, type Segment } from './segment.ts'
import { EVER } from './sheets.ts'

/** What a recount of the rows came to. */
export interface Proof {
  readonly segments: number
  readonly facts: number
  /** What does not agree with the rows, a sentence each. */
  readonly wrong: readonly string[]
}

const AT_ONCE = 32_768

/** Segments are put together while they are recounted: so often it is begun anew. */
const TRIES = 5

/**
 * Recounts every segment from the rows it was packed from: the facts one by one, what each code comes to, which codes
 * each group has facts at, and every sheet that would be answered from today.
 */
export function proveSegments<D extends string>(
  database: Sqlite.Database,
  directory: string,
  fact: Fact<D>,
  report: (facts: number) => void = () => undefined,
): Proof {
  for (let i = 1; ; i++) {
    const proof = recount(database, directory, fact, report)
    if (proof || i === TRIES)
      return (
        proof ?? {
          segments: 0,
          facts: 0,
          wrong: ['The segments were put together all the while. Try again.'],
        }
      )
  }
}

/** @returns null where a segment was replaced meanwhile */
function recount<D extends string>(
  database: Sqlite.Database,
  directory: string,
  fact: Fact<D>,
  report: (facts: number) => void,
): Proof | null {
  const reader = fact.reader(database)
  const folds = foldReader(database, fact)
  const manifest = readManifest(directory, folds.edition())
  const { segments } = manifest
  const wrong: string[] = []
  if (!isPackedFrom(manifest, reader)) wrong.push('The segments were packed from another database.')
  let facts = 0
  for (const segment of segments) {
    const found = faultsOf(database, directory, fact, reader, segment)
    const isStillThere = readManifest(directory, folds.edition()).segments.some(
      ({ name }) => name === segment.name,
    )
    if (found.length > 0 && !isStillThere) return null
    wrong.push(...found.map((each) => `${segment.name}: ${each}`))
    facts += segment.length
    report(facts)
  }
  for (const block of folds.blocks()) wrong.push(...faultsOfBlock(folds, fact, block))
  return { segments: segments.length, facts, wrong }
}

/** The rows of what is folded are gone; its sums, each by another dimension, are to come to the same. */
function faultsOfBlock<D extends string>(
  folds: FoldReader<D>,
  fact: Fact<D>,
  { id, facts }: FoldBlock,
): string[] {
  const name = `the sums in block ${String(id)}`
  try {
    const head = folds.head(id)
    const total = (sums: ArrayLike<number>) => Array.from(sums).reduce((sum, each) => sum + each, 0)
    const counted = total(head.totals.count)
    return fact.dimensions
      .filter((dimension) => {
        const { count, apart } = folds.table(id, dimension, head)
        if (total(count) !== counted) return true
        return dimension === folds.first && total(apart) !== facts - counted
      })
      .map((dimension) => `${name} by ${dimension} differ from the others`)
  } catch (error) {
    return [`${name}: ${String(error)}`]
  }
}

function faultsOf<D extends string>(
  database: Sqlite.Database,
  directory: string,
  fact: Fact<D>,
  reader: FactReader<D>,
  segment: Segment,
): string[] {
  try {
    const head = readHead(directory, segment, fact)
    const found = readColumns(directory, segment, head, fact)
    return differences(database, fact, head, found, fromRows(reader, segment))
  } catch (error) {
    return [String(error)]
  }
}

function fromRows<D extends string>(reader: FactReader<D>, { firstId, lastId }: Segment): Columns<D> {
  return mergeColumns([...packedRows(reader, firstId - 1, lastId, AT_ONCE)])
}

function differences<D extends string>(
  database: Sqlite.Database,
  fact: Fact<D>,
  head: Head<D>,
  found: Columns<D>,
  counted: Columns<D>,
): string[] {
  const wrong: string[] = []
  const same = (what: string, a: ArrayLike<number>, b: ArrayLike<number>) => {
    if (!isSame(a, b)) wrong.push(`${what} differ from the rows`)
  }
  for (const name of ['codes', 'starts', 'at', 'id', 'flags'] as const) same(name, found[name], counted[name])
  for (const name of fact.dimensions)
    if (!isSameDimension(found.dimensions[name], counted.dimensions[name]))
      wrong.push(`${name} differs from the rows`)
  const totals = codeTotals(counted)
  for (const name of ['count', 'uniques', 'lastAt'] as const)
    same(`totals of codes (${name})`, head.totals[name], totals[name])
  const groups = groupsOf(counted, fact)
  same('groups', head.groups.group, groups.group)
  same('codes of groups', head.groups.code, groups.code)
  for (const [key, codes] of ownersIn(database, counted)) {
    const sheet = head.sheets.get(key)
    // Of other codes it is never asked.
    if (sheet?.fingerprint !== fingerprintOf(counted, codes)) continue
    const sums = sumsOf(found, codes, EVER, fact.everyFact)
    const isRight =
      sums.count === sheet.sums.count &&
      sums.uniques === sheet.sums.uniques &&
      sums.lastAt === sheet.sums.lastAt &&
      (['quarter', 'count', 'uniques', 'apart'] as const).every((name) =>
        isSame(sums.quarters[name], sheet.sums.quarters[name]),
      ) &&
      fact.dimensions.every((dimension) =>
        (['value', 'count', 'uniques'] as const).every((name) =>
          isSame(sums.dimensions[dimension][name], sheet.sums.dimensions[dimension][name]),
        ),
      )
    if (!isRight) wrong.push(`the sheet of ${key} differs from the rows`)
  }
  return wrong
}

function isSame(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}

/** Whether each fact has the same value, whichever place that stands at. */
function isSameDimension(a: Dimension, b: Dimension): boolean {
  if (a.index.length !== b.index.length) return false
  const places = new Map(b.values.map((value, place) => [value, place]))
  const inOther = Int32Array.from(a.values, (value) => places.get(value) ?? -1)
  for (let i = 0; i < a.index.length; i++) if (inOther[a.index[i] ?? 0] !== b.index[i]) return false
  return true
}
