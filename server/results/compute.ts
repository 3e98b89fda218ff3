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
import { countInto, type DestinationChange, type Period, type Results } from '@flimbo/core/results'
import type { Tally } from '@flimbo/core/scans'
import { channelOf, type ChannelRule } from '@flimbo/core/tagging'
import { breakdown } from './breakdown.ts'
import { quarters, scopeCondition, type Within } from './quarters.ts'

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

type CodeCount = Results['codes'][number] & { medium: string; source: string }

interface ChangeRow {
  at: number
  routeId: number
  routeName: string
  by: string
  was: string
  is: string
}

/** Works out everything the results screen shows of one campaign, route or code. */
export function results(database: Sqlite.Database) {
  const countQuarters = quarters(database)
  const breakDown = breakdown(database)

  function codesOf(scope: Within, span: Span): CodeCount[] {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT c.id AS codeId, c.name AS key, c.medium, c.source, count(s.at) AS scans, ifnull(sum(s.isUnique), 0) AS uniques, max(s.at) AS lastAt
        FROM codes c LEFT JOIN scans s ON s.codeId = c.id AND s.apart IS NULL AND s.at >= ? AND s.at < ?
        WHERE c.${condition} GROUP BY c.id ORDER BY scans DESC, key`,
      )
      .all(span.start, span.end, value) as CodeCount[]
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

  function tally(scope: Within, span: Span | null): Tally {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT count(*) AS scans, ifnull(sum(isUnique), 0) AS uniques, max(at) AS lastAt FROM scans
        WHERE apart IS NULL AND codeId IN (SELECT id FROM codes WHERE ${condition})${span ? ' AND at >= ? AND at < ?' : ''}`,
      )
      .get(...(span ? [value, span.start, span.end] : [value])) as Tally
  }

  function period(scope: Within, zone: string, from: string, to: string, unit: Unit): Period {
    const span = spanOfDays(zone, from, to)
    return {
      from,
      to,
      tally: tally(scope, span),
      buckets: countInto(buckets(zone, span, unit), countQuarters(scope, span)),
    }
  }

  function apart(scope: Within, span: Span): Results['apart'] {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT apart AS kind, count(*) AS requests FROM scans
        WHERE apart IS NOT NULL AND codeId IN (SELECT id FROM codes WHERE ${condition}) AND at >= ? AND at < ?
        GROUP BY 1 ORDER BY 2 DESC`,
      )
      .all(value, span.start, span.end) as Results['apart']
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

  return (question: Question): Results => {
    const { zone, from, to, compare } = question
    const unit = question.unit ?? unitFor(daysBetween(from, to))
    const span = spanOfDays(zone, from, to)
    const codes = codesOf(question, span)
    const earlier = daysBefore(from, to)
    return {
      zone,
      unit,
      period: period(question, zone, from, to, unit),
      before: compare ? period(question, zone, earlier.from, earlier.to, unit) : null,
      ever: tally(question, null),
      apart: apart(question, span),
      changes: changes(question, span),
      ...breakDown(question, span),
      channels: channelsOf(codes, question),
      codes,
    }
  }
}
