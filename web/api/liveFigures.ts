import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { Route } from '@flimbo/core/routing'
import type { LiveEvent, Tally } from '@flimbo/core/scans'

/** Scans that were just stored: one line a code. */
export type Line = Extract<LiveEvent, { type: 'scans' }>['scans'][number]

type Counted = Pick<Campaign | Code | Route, 'id' | 'scans'>
type Of = (line: Line) => number

const MINUTE_MS = 60_000

const CAMPAIGN: Of = ({ campaignId }) => campaignId
const CODE: Of = ({ codeId }) => codeId
const ROUTE: Of = ({ routeId }) => routeId

/** Figures that can be worked out from what streams in, by the path of their endpoint; a test holds them to the contract. */
export const COUNTED: Readonly<Record<string, Of>> = {
  '/campaigns': CAMPAIGN,
  '/campaigns/:id': CAMPAIGN,
  '/codes': CODE,
  '/codes/:id': CODE,
  '/routes': ROUTE,
  '/routes/:id': ROUTE,
}
export const PULSE_PATH = '/pulse'

/** What is made of scans in ways that only the server can tell: read anew, now and then. */
export const SUMMED_PATHS: ReadonlySet<string> = new Set([
  '/results',
  '/figures',
  '/routes/:id/exits',
  '/bounds',
  '/code-groups',
  '/scans',
])

function added(tally: Tally, lines: readonly Line[]): Tally {
  return lines.reduce(
    ({ scans, uniques, lastAt }, line) =>
      line.count === 0
        ? { scans, uniques, lastAt }
        : {
            scans: scans + line.count,
            uniques: uniques + line.uniques,
            lastAt: Math.max(lastAt ?? 0, line.at),
          },
    tally,
  )
}

function withCounts<T extends Counted>(thing: T, of: Of, lines: readonly Line[]): T {
  // An answer that was read after these scans were stored has them already: its last scan is no earlier than theirs.
  const own = lines.filter((line) => of(line) === thing.id && line.at > (thing.scans.lastAt ?? -1))
  if (own.length === 0) return thing
  const scans = added(thing.scans, own)
  const { recent } = thing as { recent?: readonly number[] }
  const more = scans.scans - thing.scans.scans
  return {
    ...thing,
    scans,
    ...(recent && recent.length > 0 ? { recent: [...recent.slice(0, -1), (recent.at(-1) ?? 0) + more] } : {}),
  }
}

interface Pulse {
  minutes: number[]
  total: number
}

/** The last hour with the minutes that have passed since it was read, and what came in. */
function pulseWith({ minutes }: Pulse, lines: readonly Line[], readAt: number, now: number): Pulse {
  const passed = Math.min(
    minutes.length,
    Math.max(0, Math.floor(now / MINUTE_MS) - Math.floor(readAt / MINUTE_MS)),
  )
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
export function withScans(
  path: string,
  answer: unknown,
  lines: readonly Line[],
  readAt: number,
  now: number,
): unknown {
  if (answer === undefined) return answer
  // An answer under this path is of the kind that its contract says.
  if (path === PULSE_PATH) return pulseWith(answer as Pulse, lines, readAt, now)
  const of = COUNTED[path]
  if (!of) return answer
  const { rows } = answer as { rows?: readonly Counted[] }
  if (!rows) return withCounts(answer as Counted, of, lines)
  const next = rows.map((row) => withCounts(row, of, lines))
  return next.some((row, i) => row !== rows[i]) ? { ...(answer as object), rows: next } : answer
}
