import type { LiveEvent } from '@flimbo/core/scans'
import type { Tally } from '@flimbo/core/scans'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { codesApi, type Code } from '@flimbo/core/codes'
import { resultsApi } from '@flimbo/core/results'
import { routesApi, type Route } from '@flimbo/core/routing'
import { scansApi } from '@flimbo/core/scans'

/** Scans that were just stored: one line a code. */
export type Line = Extract<LiveEvent, { type: 'scans' }>['scans'][number]

type Counted = Pick<Campaign | Code | Route, 'id' | 'scans'>
type Of = (line: Line) => number

const MINUTE_MS = 60_000

/** Figures that can be worked out from what streams in, by the path of their endpoint. */
const COUNTED: Readonly<Record<string, Of>> = {
  [campaignsApi.list.path]: ({ campaignId }) => campaignId, [campaignsApi.get.path]: ({ campaignId }) => campaignId,
  [codesApi.list.path]: ({ codeId }) => codeId, [codesApi.get.path]: ({ codeId }) => codeId,
  [routesApi.list.path]: ({ routeId }) => routeId, [routesApi.get.path]: ({ routeId }) => routeId,
}

/** What is made of scans in ways that only the server can tell: read anew, now and then. */
export const SUMMED_PATHS: ReadonlySet<string> = new Set([
  resultsApi.get.path, routesApi.exits.path, routesApi.attention.path, codesApi.groups.path, scansApi.list.path,
])

function added(tally: Tally, lines: readonly Line[]): Tally {
  return lines.reduce(({ scans, uniques, lastAt }, line) => (line.count === 0
    ? { scans, uniques, lastAt }
    : { scans: scans + line.count, uniques: uniques + line.uniques, lastAt: Math.max(lastAt ?? 0, line.at) }), tally)
}

function withCounts<T extends Counted>(thing: T, of: Of, lines: readonly Line[]): T {
  const own = lines.filter((line) => of(line) === thing.id)
  if (own.length === 0) return thing
  const scans = added(thing.scans, own)
  const { recent } = thing as { recent?: readonly number[] }
  const more = scans.scans - thing.scans.scans
  return { ...thing, scans, ...(recent && recent.length > 0 ? { recent: [...recent.slice(0, -1), (recent.at(-1) ?? 0) + more] } : {}) }
}

interface Pulse { minutes: number[]; total: number }

/** The last hour with the minutes that have passed since it was read, and what came in. */
function pulseWith({ minutes }: Pulse, lines: readonly Line[], readAt: number, now: number): Pulse {
  const passed = Math.min(minutes.length, Math.max(0, Math.floor(now / MINUTE_MS) - Math.floor(readAt / MINUTE_MS)))
  const next = [...minutes.slice(passed), ...Array.from({ length: passed }, () => 0)]
  next[next.length - 1] = (next.at(-1) ?? 0) + lines.reduce((sum, { count }) => sum + count, 0)
  return { minutes: next, total: next.reduce((sum, n) => sum + n, 0) }
}

/**
 * An answer as it would be with some scans more, where that can be told without asking; the same object where
 * nothing of it changes.
 *
 * @param path of the endpoint that gave the answer
 * @param readAt when it was given (UTC ms)
 */
export function withScans(path: string, answer: unknown, lines: readonly Line[], readAt: number, now: number): unknown {
  if (answer === undefined) return answer
  // An answer under this path is of the kind that its contract says.
  if (path === scansApi.pulse.path) return pulseWith(answer as Pulse, lines, readAt, now)
  const of = COUNTED[path]
  if (!of) return answer
  const { rows } = answer as { rows?: readonly Counted[] }
  if (!rows) return withCounts(answer as Counted, of, lines)
  const next = rows.map((row) => withCounts(row, of, lines))
  return next.some((row, i) => row !== rows[i]) ? { ...(answer as object), rows: next } : answer
}
