import Sqlite from 'better-sqlite3'
import type { Code } from '@flimbo/core/codes'
import { deviceOf, NOWHERE, type Apart } from '@flimbo/core/scans'
import { pack, scanInserter, type Packed } from '../scans/index.ts'
import { PHONE } from './running.ts'

export interface ScanSample {
  /** As ISO 8601. */
  readonly at: string
  readonly code: Code
  readonly visitor?: string
  readonly city?: string
  readonly language?: string
  readonly apart?: Apart | null
  readonly userAgent?: string
}

/** Writes scans of the past by the code that records live ones. */
export function storeScans(file: string, samples: readonly ScanSample[]): void {
  const database = new Sqlite(file)
  const packed: Packed[] = []
  for (const [
    i,
    { at, code, visitor = `v${String(i)}`, city = '', apart = null, ...more },
  ] of samples.entries())
    pack(
      {
        at: Date.parse(at),
        workspaceId: 1,
        campaignId: code.campaignId,
        day: at.slice(0, 10),
        codeId: code.id,
        routeId: code.routeId,
        revisionId: 1,
        outcome: 'redirect',
        exit: 'otherwise',
        variant: '',
        apart,
        place: city ? { country: 'DE', region: 'Coast', city, latitude: 53.5, longitude: 8.1 } : NOWHERE,
        device: deviceOf(more.userAgent ?? PHONE),
        language: more.language ?? 'de-DE',
        referrer: '',
        visitor,
      },
      packed,
    )
  scanInserter(database)(packed)
  database.close()
}
