import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type Sqlite from 'better-sqlite3'
import { fingerprintOf, mergeColumns, packColumns, type Columns } from '@flimbo/core/figures'
import type { Fact } from './fact.ts'
import { fileLock } from './lock.ts'
import { foldFacts, type FoldPlan } from './foldFacts.ts'
import { foldReader, type FoldWriter } from './folds.ts'
import {
  dropNextManifest,
  isPackedFrom,
  manifestEdition,
  noSegments,
  readManifest,
  writeManifest,
  writeNextManifest,
  type Manifest,
} from './manifest.ts'
import { ownersIn } from './owners.ts'
import { readColumns, readHead, writeSegment, type Segment } from './segment.ts'
import type { SheetOwner } from './sheets.ts'

/** How large segments are. */
export interface PackingSizes {
  /** So many facts make a segment, and so many segments of one level one of the next, up to the last level. */
  readonly facts: number
  readonly together: number
  readonly lastLevel: number
  /** An owner of fewer facts in a segment has no sheet: they are counted as soon as they are read. */
  readonly sheetFacts: number
}
const SIZES: PackingSizes = { facts: 32_768, together: 8, lastLevel: 2, sheetFacts: 4096 }

/** No question takes so long. */
const READ_MS = 30_000

/** How far the packing is. */
export interface Packed {
  /** Facts that are in segments, by the number of the last, and the newest number there is. */
  readonly mark: number
  readonly newest: number
  /** Whether there is more to do at once. */
  readonly hasMore: boolean
  /** Whether it is this one that packs; another process does otherwise. */
  readonly isPacking: boolean
}

/** Somebody removed the manifest, to have everything packed anew. */
class ManifestChanged extends Error {
  override readonly name = 'ManifestChanged'
}

/**
 * Packs facts into segments beside the database, unless another process does. What it was in the middle of when it was
 * stopped was not begun.
 */
export function packer<D extends string>(
  database: Sqlite.Database,
  directory: string,
  fact: Fact<D>,
  { facts: segmentFacts, together, lastLevel, sheetFacts }: PackingSizes = SIZES,
) {
  /** Where so many wait, segments of the next level are made at once. */
  const manyFacts = segmentFacts * together
  const reader = fact.reader(database)
  mkdirSync(directory, { recursive: true })
  const folds = foldReader(database, fact)
  const lock = fileLock(join(directory, 'lock'))
  /** Directories of segments that were replaced, and when: whoever reads them still may for a while. */
  let replaced: { readonly name: string; readonly at: number }[] = []
  let manifest = noSegments('')
  /** That of the manifest in memory; none before it is read for the first time. */
  let edition: string | null = null

  function lookAtManifest(): void {
    const folded = folds.edition()
    if (edition === manifestEdition(directory) && folded === manifest.folds) return
    const found = readManifest(directory, folded)
    write(isPackedFrom(found, reader) ? found : noSegments(folded))
    dropNextManifest(directory)
    const damaged = manifest.segments.find((segment) => columnsOf(segment) === null)
    if (damaged) dropFrom(damaged)
    replaced = []
    tidy()
  }

  function write(next: Manifest): void {
    writeManifest(directory, next)
    manifest = next
    edition = manifestEdition(directory)
  }

  function replace(segments: readonly Segment[]): void {
    replaced.push(...segments.map(({ name }) => ({ name, at: performance.now() })))
  }
  function removeReplaced(): void {
    const old = replaced.filter(({ at }) => performance.now() - at > READ_MS)
    for (const { name } of old) rmSync(join(directory, name), { recursive: true, force: true })
    replaced = replaced.filter((each) => !old.includes(each))
  }

  /** Removes what no manifest names. */
  function tidy(): void {
    const known = new Set(manifest.segments.map(({ name }) => name))
    for (const { name } of readdirSync(directory, { withFileTypes: true }).filter((each) =>
      each.isDirectory(),
    ))
      if (!known.has(name)) rmSync(join(directory, name), { recursive: true, force: true })
  }

  function keep(segments: readonly Segment[], mark = segments.at(-1)?.lastId ?? 0): void {
    checkUnchanged()
    write({ mark, proof: reader.proof(mark), segments, folds: manifest.folds })
  }
  function checkUnchanged(): void {
    if (edition !== manifestEdition(directory)) throw new ManifestChanged('The segments are packed anew.')
  }

  /** @returns null where the segment is damaged */
  function columnsOf(segment: Segment): Columns<D> | null {
    try {
      return readColumns(directory, segment, readHead(directory, segment, fact), fact)
    } catch {
      return null
    }
  }

  /** Has a damaged segment, and those after it, packed anew. */
  function dropFrom(segment: Segment): void {
    keep(manifest.segments.slice(0, manifest.segments.indexOf(segment)))
  }

  /** Campaigns, routes and codes that have so many facts in some columns that a sheet of them is kept. */
  function ownersOf(columns: Columns<D>): SheetOwner[] {
    const { codes, starts } = columns
    const factsOf = new Map([...codes].map((code, c) => [code, (starts[c + 1] ?? 0) - (starts[c] ?? 0)]))
    const factsIn = (own: ReadonlySet<number>) =>
      [...own].reduce((sum, code) => sum + (factsOf.get(code) ?? 0), 0)
    return [...ownersIn(database, columns)]
      .filter(([, own]) => factsIn(own) >= sheetFacts)
      .map(([key, own]) => ({ key, codes: own, fingerprint: fingerprintOf(columns, own) }))
  }

  function packSome(newest: number): void {
    const waiting = newest - manifest.mark
    const limit = waiting >= manyFacts ? manyFacts : segmentFacts
    const rows = reader.between(manifest.mark, newest, limit)
    if (rows.id.length < segmentFacts) return
    const columns = packColumns(rows)
    const level = rows.id.length >= manyFacts ? 1 : 0
    keep([...manifest.segments, segmentOf(columns, level)])
  }
  const segmentOf = (columns: Columns<D>, level: number, folded = manifest.folds) =>
    writeSegment(directory, fact, columns, ownersOf(columns), level, folded)

  /** Puts the last segments together where there are enough of one level. @returns whether there were */
  function mergeSome(): boolean {
    const last = manifest.segments.slice(-together)
    const level = last[0]?.level ?? 0
    if (last.length < together || level >= lastLevel || last.some((each) => each.level !== level))
      return false
    const read: Columns<D>[] = []
    for (const segment of last) {
      const found = columnsOf(segment)
      if (!found) {
        dropFrom(segment)
        return false
      }
      read.push(found)
    }
    const merged = segmentOf(mergeColumns(read), level + 1)
    // What is folded at the end of it is in no segment, and packed all the same.
    keep([...manifest.segments.slice(0, -together), merged], manifest.mark)
    replace(last)
    return true
  }

  /**
   * Folds facts into sums, a little at a time. Until the end nothing has happened; then all of it has, at once. Nothing
   * may be packed meanwhile.
   */
  function* fold(plan: FoldPlan<D>, writer: FoldWriter<D>): Generator<void, void> {
    if (!lock.take()) return
    lookAtManifest()
    writer.tidy()
    const { mark } = manifest
    const folded = yield* foldFacts({
      fact,
      reader,
      segments: manifest.segments,
      mark,
      columnsOf,
      segmentOf: (columns, level) => segmentOf(columns, level, plan.edition),
      ownersOf,
      plan,
      writer,
    })
    if (folded.folds.length === 0) return
    checkUnchanged()
    const next = { mark, proof: manifest.proof, segments: folded.segments, folds: plan.edition }
    writeNextManifest(directory, next)
    writer.commit(plan.edition, folded.folds, plan.at)
    const before = manifest.segments.filter((each) => !folded.segments.includes(each))
    write(next)
    dropNextManifest(directory)
    replace(before)
  }

  return {
    fold,
    /** Packs a segment's worth, where there is one, and puts segments together. */
    step(): Packed {
      const newest = reader.newest()
      if (!lock.take()) {
        const { mark } = readManifest(directory, folds.edition())
        return { mark, newest, hasMore: newest - mark >= segmentFacts, isPacking: false }
      }
      lookAtManifest()
      removeReplaced()
      const before = manifest.mark
      if (newest - before >= segmentFacts) packSome(newest)
      while (mergeSome());
      const { mark } = manifest
      return { mark, newest, hasMore: mark > before && newest - mark >= segmentFacts, isPacking: true }
    },
    /** Lets another process pack. */
    close(): void {
      lock.release()
    },
  }
}
export type Packer = ReturnType<typeof packer>
