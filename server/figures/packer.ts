import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type Sqlite from 'better-sqlite3'
import { fingerprintOf, mergeColumns, packColumns, type Columns } from '@flimbo/core/figures'
import type { Fact } from './fact.ts'
import { fileLock } from './lock.ts'
import {
  isPackedFrom,
  manifestEdition,
  NO_SEGMENTS,
  readManifest,
  writeManifest,
  type Manifest,
} from './manifest.ts'
import { ownersIn } from './owners.ts'
import { readColumns, readHead, writeSegment, type Segment, type SheetOwner } from './segment.ts'

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
  const lock = fileLock(join(directory, 'lock'))
  /** Directories of segments that were replaced: whoever reads them still may, until the next time. */
  let replaced: string[] = []
  let manifest = NO_SEGMENTS
  /** That of the manifest in memory; none before it is read for the first time. */
  let edition: string | null = null

  function lookAtManifest(): void {
    if (edition === manifestEdition(directory)) return
    const found = readManifest(directory)
    write(isPackedFrom(found, reader) ? found : NO_SEGMENTS)
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

  /** Removes what no manifest names. */
  function tidy(): void {
    const known = new Set(manifest.segments.map(({ name }) => name))
    for (const { name } of readdirSync(directory, { withFileTypes: true }).filter((each) =>
      each.isDirectory(),
    ))
      if (!known.has(name)) rmSync(join(directory, name), { recursive: true, force: true })
  }

  function keep(segments: readonly Segment[]): void {
    if (edition !== manifestEdition(directory)) throw new ManifestChanged('The segments are packed anew.')
    const mark = segments.at(-1)?.lastId ?? 0
    write({ mark, proof: reader.proof(mark), segments })
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
    keep([...manifest.segments, writeSegment(directory, fact, columns, ownersOf(columns), level)])
  }

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
    const columns = mergeColumns(read)
    const merged = writeSegment(directory, fact, columns, ownersOf(columns), level + 1)
    keep([...manifest.segments.slice(0, -together), merged])
    replaced.push(...last.map(({ name }) => name))
    return true
  }

  return {
    /** Packs a segment's worth, where there is one, and puts segments together. */
    step(): Packed {
      const newest = reader.newest()
      if (!lock.take()) {
        const { mark } = readManifest(directory)
        return { mark, newest, hasMore: newest - mark >= segmentFacts, isPacking: false }
      }
      lookAtManifest()
      for (const name of replaced) rmSync(join(directory, name), { recursive: true, force: true })
      replaced = []
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
