import type { LiveEvent } from '@flimbo/core/scans'
import type { LiveHub } from './live.ts'
import type { ScanRecord } from './record.ts'
import type { ScanWriter } from './writer.ts'

/** How long stored scans gather before screens are told of them. */
const GATHER_MS = 200

type Scans = Extract<LiveEvent, { type: 'scans' }>['scans']

/** Tells open screens of stored scans, a few times a second at most and one line a code. */
export function announceScans(writer: ScanWriter, live: LiveHub): void {
  let gathered = new Map<number, ScanRecord[]>()

  function tell(): void {
    const groups = gathered
    gathered = new Map()
    for (const [workspaceId, scans] of groups) live.tell(workspaceId, { type: 'scans', scans: summed(scans) })
  }

  writer.onStored((scans) => {
    if (scans.length === 0) return
    if (gathered.size === 0) setTimeout(tell, GATHER_MS).unref()
    for (const scan of scans) {
      const group = gathered.get(scan.workspaceId)
      if (group) group.push(scan)
      else gathered.set(scan.workspaceId, [scan])
    }
  })
}

function summed(scans: readonly ScanRecord[]): Scans {
  const lines = new Map<number, Scans[number]>()
  for (const { codeId, routeId, campaignId, at, apart } of scans) {
    const line = lines.get(codeId) ?? { codeId, routeId, campaignId, at, count: 0, apart: 0 }
    line.at = Math.max(line.at, at)
    if (apart === null) line.count++
    else line.apart++
    lines.set(codeId, line)
  }
  return [...lines.values()]
}
