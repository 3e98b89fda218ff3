import { join } from 'node:path'
import type Sqlite from 'better-sqlite3'
import {
  factStore,
  packAnew,
  packer,
  proveSegments,
  type FactStore,
  type Packer,
  type Proof,
  type StoreSizes,
} from '../figures/index.ts'
import { scanFact, type ScanDimension } from './fact.ts'
import { pageEventFact, type PageEventDimension } from './pageEventFact.ts'

/** What happened on pages, of an open database, wherever it stands. */
export const eventStore = (
  database: Sqlite.Database,
  sizes: Partial<StoreSizes> = {},
): FactStore<PageEventDimension> => factStore(database, eventSegmentsOf(database.name), pageEventFact, sizes)

const eventSegmentsOf = (file: string): string => join(`${file}-figures`, pageEventFact.name)

/** Packs what happened on pages. */
export const eventPacker = (database: Sqlite.Database): Packer =>
  packer(database, eventSegmentsOf(database.name), pageEventFact)

/** Recounts the segments of what happened on pages from its rows. */
export const proveEvents = (database: Sqlite.Database): Proof =>
  proveSegments(database, eventSegmentsOf(database.name), pageEventFact)

/** Where the segments of a database's scans stand: beside it. */
export const segmentsOf = (file: string): string => join(`${file}-figures`, scanFact.name)

/** The scans of an open database, wherever they stand. */
export const scanStore = (
  database: Sqlite.Database,
  sizes: Partial<StoreSizes> = {},
): FactStore<ScanDimension> => factStore(database, segmentsOf(database.name), scanFact, sizes)

/** Packs the scans of an open database. */
export const scanPacker = (database: Sqlite.Database): Packer =>
  packer(database, segmentsOf(database.name), scanFact)

/** Recounts the segments of an open database's scans from its rows. */
export const proveScans = (database: Sqlite.Database, report?: (scans: number) => void): Proof =>
  proveSegments(database, segmentsOf(database.name), scanFact, report)

/** Has the scans of an open database, and what happened on pages, packed anew. */
export const packScansAnew = (database: Sqlite.Database): void => {
  packAnew(segmentsOf(database.name))
  packAnew(eventSegmentsOf(database.name))
}

export { readWay, scanFact } from './fact.ts'
export type { ScanDimension, Way } from './fact.ts'
export { readEventWay } from './pageEventFact.ts'
export type { EventWay, PageEventDimension } from './pageEventFact.ts'
export { foldedScans } from './folded.ts'
export { foldPlan, rowClearer } from './folding.ts'
export { scanInserter } from './insert.ts'
export { scanMover } from './mover.ts'
export { pack } from './record.ts'
export type { Packed } from './record.ts'
