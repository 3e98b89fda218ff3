import type { EntityManager } from 'typeorm'
import { runsOf } from '@flimbo/core/figures'
import type { ExitTally } from '@flimbo/core/routing'
import { isPersons } from '@flimbo/core/scans'
import type { Span } from '@flimbo/core/time'
import { overlap, type FactStore, type Owner, type Part } from '../figures/index.ts'
import { readWay, type ScanDimension, type Way } from '../scans/queries.ts'
import { wantedWays } from './matching.ts'

/** Exits of scans that did not get to where they lead: stopped by dates, limits or a password. */
const STOPPED = ['', 'before', 'after', 'full', 'full-today'] as const
/** Whether a scan is one of a person's that got somewhere; the next step of one that was asked something is one. */
export const isReal = ({ apart }: Way) => isPersons(apart)
const stopped: ReadonlySet<string> = new Set(STOPPED)
const isLetThrough = (way: Way) => isReal(way) && !stopped.has(way.exit)

/** Whether a scan, by its way as it stands in the dimension, was decided by a route and is wanted. */
export const decidedBy =
  (routeId: number, isWanted: (way: Way) => boolean) =>
  (text: string): boolean => {
    const way = readWay(text)
    return way.routeId === routeId && isWanted(way)
  }
/** The same as an SQL condition on `scans`. */
const LET_THROUGH = `(apart IS NULL OR apart = 'onward') AND exit NOT IN (${STOPPED.map((exit) => `'${exit}'`).join(', ')})`

/** How many scans of a route were let through since a moment (UTC ms), of those up to a number. */
export interface LetThrough {
  readonly since: number
  readonly upTo: number
  readonly scans: number
}

/**
 * How many scans of a route were let through since a moment (UTC ms), as the caller's transaction sees it.
 *
 * @param known a count of before the transaction, so that only what came after it is looked at; without one, all are
 */
export async function countLetThrough(
  manager: EntityManager,
  routeId: number,
  since: number,
  known: LetThrough | null = null,
): Promise<number> {
  const { upTo, scans } = known?.since === since ? known : { upTo: 0, scans: 0 }
  const [found] = await manager.query<{ scans: number }[]>(
    `SELECT count(*) AS scans FROM scans WHERE id > ? AND routeId = ? AND at >= ? AND ${LET_THROUGH}`,
    [upTo, routeId, since],
  )
  return scans + (found?.scans ?? 0)
}

/** Counts scans that a route decided and let through into the days that begin at some moments. */
function countDays(
  part: Part<ScanDimension>,
  routeId: number,
  starts: readonly number[],
  counts: number[],
): void {
  const span = { start: starts[0] ?? 0, end: starts.at(-1) ?? 0 }
  const codes = part.codesOfGroup(routeId)
  if (overlap(part.span, span) === 'none' || codes.size === 0) return
  if (!part.columns) {
    countFoldedDays(part, { codes, key: null }, routeId, starts, counts)
    return
  }
  const columns = part.columns()
  const { at, dimensions } = columns
  const { index } = dimensions.way
  const wanted = wantedWays(columns, decidedBy(routeId, isLetThrough))
  for (const { from, to } of runsOf(columns, codes, span)) {
    let day = 0
    for (let i = from; i < to; i++) {
      while ((at[i] ?? 0) >= (starts[day + 1] ?? Infinity)) day++
      counts[day] = (counts[day] ?? 0) + (wanted[index[i] ?? 0] ?? 0)
    }
  }
}

/** The same of scans whose rows are folded: by quarters of an hour. */
function countFoldedDays(
  part: Part<ScanDimension>,
  owner: Owner,
  routeId: number,
  starts: readonly number[],
  counts: number[],
): void {
  for (const [day, end] of starts.slice(1).entries())
    for (const [way, scans] of waysOf(part, owner, { start: starts[day] ?? 0, end }))
      if (way.routeId === routeId && isLetThrough(way)) counts[day] = (counts[day] ?? 0) + scans
}

/** The ways that scans of an owner took in a span, with how many took each, and how many of those are unique. */
function* waysOf(
  part: Part<ScanDimension>,
  owner: Owner,
  span: Span,
): Generator<[way: Way, scans: number, uniques: number]> {
  const taken = part.sums(owner, span)?.dimensions.way
  for (let i = 0; taken && i < taken.value.length; i++) {
    const way = readWay(String(part.values.way[taken.value[i] ?? 0]))
    yield [way, taken.count[i] ?? 0, taken.uniques[i] ?? 0]
  }
}

/** By which way real scans left their route. The next step of a scan that was asked something stands for it. */
export function exits(scans: FactStore<ScanDimension>) {
  return {
    exits(routeId: number, start: number, end: number): ExitTally[] {
      const tallies = new Map<string, { exit: string; variant: string; scans: number; uniques: number }>()
      for (const part of scans.parts()) {
        const owner = { codes: part.codesOfGroup(routeId), key: null }
        for (const [way, count, unique] of waysOf(part, owner, { start, end })) {
          if (way.routeId !== routeId || !isReal(way) || way.exit === '') continue
          const { exit, variant } = way
          const sum = tallies.get(`${exit}\t${variant}`) ?? { exit, variant, scans: 0, uniques: 0 }
          sum.scans += count
          sum.uniques += unique
          tallies.set(`${exit}\t${variant}`, sum)
        }
      }
      return [...tallies.values()].sort(byExit)
    },

    /** Scans let through since a moment. */
    letThroughSince(routeId: number, since: number): LetThrough {
      const { newest, parts } = scans.state()
      const counts = [0]
      for (const part of parts) countDays(part, routeId, [since, Infinity], counts)
      return { since, upTo: newest, scans: counts[0] ?? 0 }
    },

    /** Scans let through between each start and the next, the last start being the end. */
    letThroughDaily(routeId: number, starts: readonly number[]): number[] {
      const counts = starts.slice(1).map(() => 0)
      for (const part of scans.parts()) countDays(part, routeId, starts, counts)
      return counts
    },
  }
}

const byExit = (a: ExitTally, b: ExitTally) =>
  a.exit < b.exit ? -1 : Number(a.exit > b.exit) || (a.variant < b.variant ? -1 : 1)
