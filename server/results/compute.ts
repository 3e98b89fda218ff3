import {
  buckets,
  daysBefore,
  daysBetween,
  spanOfDays,
  type Span,
  type Unit,
  unitFor,
} from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import { addDimension, type DimensionValue, type Sums, type Tallied } from '@flimbo/core/figures'
import {
  countInto,
  emptyBuckets,
  type BucketCount,
  type DestinationChange,
  type Period,
  type Results,
} from '@flimbo/core/results'
import type { Apart, Tally } from '@flimbo/core/scans'
import { channelOf, type ChannelRule } from '@flimbo/core/tagging'
import { EVER, eachTotal, type FactStore, type Owner, type Part } from '../figures/index.ts'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import { breakdown, type Made } from './breakdown.ts'
import { scopeCondition, scopeKey, type Within } from './scope.ts'

/** What is asked of the results: days of the campaign's zone, both included. */
export type Question = Within & {
  readonly zone: string
  readonly from: string
  readonly to: string
  readonly unit?: Unit | undefined
  readonly compare: boolean
  /** The campaign's value and the table that sorts its visits into channels. */
  readonly campaign: string
  readonly channels: readonly ChannelRule[]
}

/** All that is counted of it. */
export type Counted = Omit<Results, 'rowsSince'>

interface CodeRow {
  readonly codeId: number
  readonly key: string
  readonly medium: string
  readonly source: string
}
type CodeCount = Results['codes'][number] & CodeRow

interface ChangeRow {
  at: number
  routeId: number
  routeName: string
  by: string
  was: string
  is: string
}

/** Works out everything the results screen shows of one campaign, route or code. */
export function results(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const breakDown = breakdown(database)

  function codesOf(scope: Within): CodeRow[] {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(`SELECT id AS codeId, name AS key, medium, source FROM codes WHERE ${condition}`)
      .all(value) as CodeRow[]
  }

  /** The same scans by channel, the largest first. */
  function channelsOf(codes: readonly CodeCount[], { campaign, channels }: Question): Results['channels'] {
    const shares = new Map<string, Results['channels'][number]>()
    for (const { medium, source, scans, uniques } of codes) {
      const key = channelOf({ medium, source, campaign }, channels)
      const share = shares.get(key) ?? { key, scans: 0, uniques: 0 }
      shares.set(key, { key, scans: share.scans + scans, uniques: share.uniques + uniques })
    }
    return [...shares.values()]
      .filter(({ scans }) => scans > 0)
      .sort((a, b) => b.scans - a.scans || (a.key < b.key ? -1 : 1))
  }

  function changes(scope: Within, span: Span): DestinationChange[] {
    const { condition, value } = scopeCondition(scope)
    const rows = database
      .prepare(
        `SELECT v.at, v.subjectId AS routeId, r.name AS routeName, p.name AS "by",
          v."before" ->> 'destination' AS was, v."after" ->> 'destination' AS "is"
        FROM revisions v JOIN routes r ON r.id = v.subjectId JOIN people p ON p.id = v.personId
        WHERE v."of" = 'route' AND v.subjectId IN (SELECT routeId FROM codes WHERE ${condition})
          AND v."before" IS NOT NULL AND v.at >= ? AND v.at < ? ORDER BY v.at`,
      )
      .all(value, span.start, span.end) as ChangeRow[]
    return rows.filter((row) => row.was !== row.is)
  }

  return (question: Question): Counted => {
    const { zone, from, to, compare } = question
    const unit = question.unit ?? unitFor(daysBetween(from, to))
    const span = spanOfDays(zone, from, to)
    const earlier = daysBefore(from, to)
    const now = counted(zone, from, to, unit)
    const before = compare ? counted(zone, earlier.from, earlier.to, unit) : null
    const ever = emptyTally()
    const made = { place: new Map(), agent: new Map(), language: new Map() } as const satisfies Made
    const ways: Tallied<DimensionValue> = new Map()
    const rows = codesOf(question)
    const codes = new Map(rows.map((row) => [row.codeId, { ...row, ...emptyTally() }]))
    const owner: Owner = { codes: new Set(codes.keys()), key: scopeKey(question) }

    for (const part of scans.parts()) {
      eachTotal(part, owner.codes, EVER, (_code, count, uniques, lastAt) => {
        addTally(ever, count, uniques, lastAt)
      })
      if (before) addPeriod(before, part, owner)
      const sums = addPeriod(now, part, owner)
      if (!sums) continue
      for (const name of ['place', 'agent', 'language'] as const)
        addDimension(made[name], part.values[name], sums.dimensions[name])
      addDimension(ways, part.values.way, sums.dimensions.way)
      eachTotal(part, owner.codes, span, (code, count, uniques, lastAt) => {
        const sum = codes.get(code)
        if (sum) addTally(sum, count, uniques, lastAt)
      })
    }

    const byCode = [...codes.values()]
      .map(({ lastAt, ...code }) => ({ ...code, lastAt: lastAt < 0 ? null : lastAt }))
      .sort((a, b) => b.scans - a.scans || (a.key < b.key ? -1 : 1))
    return {
      zone,
      unit,
      period: periodOf(now),
      before: before && periodOf(before),
      ever: tallyFrom(ever),
      apart: apartOf(ways),
      changes: changes(question, span),
      ...breakDown(made),
      channels: channelsOf(byCode, question),
      codes: byCode,
    }
  }
}

interface Sum {
  scans: number
  uniques: number
  /** -1 where there is none. */
  lastAt: number
}
const emptyTally = (): Sum => ({ scans: 0, uniques: 0, lastAt: -1 })
const tallyFrom = ({ lastAt, ...sum }: Sum): Tally => ({ ...sum, lastAt: lastAt < 0 ? null : lastAt })
function addTally(sum: Sum, count: number, uniques: number, lastAt: number): void {
  sum.scans += count
  sum.uniques += uniques
  sum.lastAt = Math.max(sum.lastAt, lastAt)
}

/** A period while it is counted. */
interface Counting {
  readonly from: string
  readonly to: string
  readonly span: Span
  readonly tally: Sum
  readonly buckets: BucketCount[]
}

function counted(zone: string, from: string, to: string, unit: Unit): Counting {
  const span = spanOfDays(zone, from, to)
  return { from, to, span, tally: emptyTally(), buckets: emptyBuckets(buckets(zone, span, unit)) }
}
const periodOf = ({ from, to, tally, buckets: all }: Counting): Period => ({
  from,
  to,
  tally: tallyFrom(tally),
  buckets: all,
})

function addPeriod(period: Counting, part: Part<ScanDimension>, owner: Owner): Sums<ScanDimension> | null {
  const sums = part.sums(owner, period.span)
  if (!sums) return null
  addTally(period.tally, sums.count, sums.uniques, sums.lastAt)
  countInto(period.buckets, sums.quarters)
  return sums
}

/** Requests that are in no other figure, by why; the most frequent first. */
function apartOf(ways: Tallied<DimensionValue>): Results['apart'] {
  const kinds = new Map<Apart, number>()
  for (const [way, { count }] of ways) {
    const { apart } = readWay(String(way))
    if (apart !== null) kinds.set(apart, (kinds.get(apart) ?? 0) + count)
  }
  return [...kinds].map(([kind, requests]) => ({ kind, requests })).sort((a, b) => b.requests - a.requests)
}
