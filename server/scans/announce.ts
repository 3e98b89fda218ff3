import type { LiveEvent } from '@flimbo/core/scans'
import type { ScanWriter, StoredScan } from './writer.ts'

/** How long stored scans gather before anybody is told of them. */
const GATHER_MS = 200

type Scans = Extract<LiveEvent, { type: 'scans' }>['scans']

/** Scans of one workspace that were stored lately, a line a code. */
export interface ScansStored {
  readonly workspaceId: number
  readonly scans: Scans
}

/** Tells of stored scans, a few times a second at most and one line a code. */
export function announceScans(
  writer: Pick<ScanWriter, 'onStored'>,
  tell: (stored: ScansStored[]) => void,
): void {
  let gathered = new Map<number, Map<number, Scans[number]>>()

  function flush(): void {
    const groups = gathered
    gathered = new Map()
    tell([...groups].map(([workspaceId, lines]) => ({ workspaceId, scans: [...lines.values()] })))
  }

  writer.onStored((scans) => {
    if (scans.length === 0) return
    if (gathered.size === 0) setTimeout(flush, GATHER_MS).unref()
    for (const scan of scans) add(gathered, scan)
  })
}

function add(
  gathered: Map<number, Map<number, Scans[number]>>,
  { scan: { workspaceId, codeId, routeId, campaignId, at, apart }, isUnique }: StoredScan,
): void {
  const lines = gathered.get(workspaceId) ?? new Map<number, Scans[number]>()
  gathered.set(workspaceId, lines)
  const line = lines.get(codeId) ?? { codeId, routeId, campaignId, at, count: 0, uniques: 0, apart: 0 }
  line.at = Math.max(line.at, at)
  if (apart === null) line.count++
  else line.apart++
  if (isUnique) line.uniques++
  lines.set(codeId, line)
}
