import { join } from 'node:path'
import type Sqlite from 'better-sqlite3'
import { factStore, packer, type FactStore, type Packer } from '../figures/index.ts'
import { scanFact, type ScanDimension } from './fact.ts'

/** Where the segments of a database's scans stand: beside it. */
export const segmentsOf = (file: string): string => join(`${file}-figures`, scanFact.name)

/** The scans of an open database, wherever they stand. */
export const scanStore = (database: Sqlite.Database): FactStore<ScanDimension> =>
  factStore(database, segmentsOf(database.name), scanFact)

/** Packs the scans of an open database. */
export const scanPacker = (database: Sqlite.Database): Packer =>
  packer(database, segmentsOf(database.name), scanFact)

export { readWay, scanFact } from './fact.ts'
export type { ScanDimension, Way } from './fact.ts'
export { scanInserter } from './insert.ts'
export { scanMover } from './mover.ts'
export { pack } from './record.ts'
export type { Packed } from './record.ts'
