import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type Sqlite from 'better-sqlite3'
import { fingerprintOf, mergeColumns, packColumns, type Columns } from '@flimbo/core/figures'
import type { Fact } from './fact.ts'
import { fileLock } from './lock.ts'
import { manifestEdition, NO_SEGMENTS, readManifest, writeManifest, type Manifest } from './manifest.ts'
import { ownerKey } from './part.ts'
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
const AT_ONCE = 500

/** How far the packing is. */
export interface Packed {
  /** Facts that are in segments, by the number of the last, and the newest number there is. */
  readonly mark: number
  readonly newest: number
  /** Whether it would have more to do at once. */
  readonly hasMore: boolean
}

/** Somebody removed the manifest, to have everything packed anew. */
export class ManifestChanged extends Error {
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
    const isOurs = found.mark === 0 || reader.proof(found.mark) === found.proof
    const isWhole = found.segments.every(({ name }) => existsSync(join(directory, name)))
    write(isOurs && isWhole ? found : NO_SEGMENTS)
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

  /** Campaigns, routes and codes that have so many facts in some columns that a sheet of them is kept. */
  function ownersOf(columns: Columns<D>): SheetOwner[] {
    const owners = new Map<string, { codes: Set<number>; facts: number }>()
    const add = (key: string, code: number, facts: number) => {
      const owner = owners.get(key) ?? { codes: new Set<number>(), facts: 0 }
      owner.codes.add(code)
      owner.facts += facts
      owners.set(key, owner)
    }
    const home = homesOf(database, columns.codes)
    for (let c = 0; c < columns.codes.length; c++) {
      const code = columns.codes[c] ?? 0
      const facts = (columns.starts[c + 1] ?? 0) - (columns.starts[c] ?? 0)
      add(ownerKey('code', code), code, facts)
      const at = home.get(code)
      if (!at) continue
      add(ownerKey('route', at.routeId), code, facts)
      add(ownerKey('campaign', at.campaignId), code, facts)
    }
    return [...owners]
      .filter(([, { facts }]) => facts >= sheetFacts)
      .map(([key, { codes }]) => ({ key, codes, fingerprint: fingerprintOf(columns, codes) }))
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
    const columns = mergeColumns(
      last.map((segment) => readColumns(directory, segment, readHead(directory, segment, fact), fact)),
    )
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
        return { mark, newest, hasMore: newest - mark >= segmentFacts }
      }
      lookAtManifest()
      for (const name of replaced) rmSync(join(directory, name), { recursive: true, force: true })
      replaced = []
      const before = manifest.mark
      if (newest - before >= segmentFacts) packSome(newest)
      while (mergeSome());
      const { mark } = manifest
      return { mark, newest, hasMore: mark > before && newest - mark >= segmentFacts }
    },
    /** Lets another process pack. */
    close(): void {
      lock.release()
    },
  }
}
export type Packer = ReturnType<typeof packer>

interface Home {
  readonly id: number
  readonly campaignId: number
  readonly routeId: number
}

/** Where some codes belong now. */
function homesOf(database: Sqlite.Database, codes: Uint32Array): Map<number, Home> {
  const find = database.prepare(
    'SELECT id, campaignId, routeId FROM codes WHERE id IN (SELECT value FROM json_each(?))',
  )
  const homes = new Map<number, Home>()
  for (let i = 0; i < codes.length; i += AT_ONCE)
    for (const home of find.all(JSON.stringify([...codes.subarray(i, i + AT_ONCE)])) as Home[])
      homes.set(home.id, home)
  return homes
}
