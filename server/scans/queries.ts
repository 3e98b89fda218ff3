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

/** Has the scans of an open database packed anew. */
export const packScansAnew = (database: Sqlite.Database): void => {
  packAnew(segmentsOf(database.name))
}

export { readWay, scanFact } from './fact.ts'
export type { ScanDimension, Way } from './fact.ts'
export { foldedScans } from './folded.ts'
export { foldPlan, rowClearer } from './folding.ts'
export { scanInserter } from './insert.ts'
export { scanMover } from './mover.ts'
export { pack } from './record.ts'
export type { Packed } from './record.ts'
