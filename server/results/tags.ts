import type Sqlite from 'better-sqlite3'
import type { Scope } from '@flimbo/core/scans'
import {
  channelOf,
  FINDING_KINDS,
  lint,
  tagContext,
  tagCounts,
  tagsKey,
  type ChannelRule,
  type Finding,
  type HouseRules,
  type Review,
  type TagCounts,
  type TaggedPiece,
} from '@flimbo/core/tagging'
import { scopeCondition } from './quarters.ts'

/** What the linter looks a campaign over with; `edition` tells when what was found is stale. */
export interface TagQuestion {
  readonly workspaceId: number
  readonly campaignId: number
  readonly campaign: string
  readonly rules: HouseRules
  readonly channels: readonly ChannelRule[]
  readonly edition: number
}

/** Values in use, most carried first; more of one field than this are serial numbers, not a list to choose from. */
const VALUES_MAX = 5000
const LOOKED_MAX = 4

interface TagRow {
  id: number
  name: string
  place: string
  size: number
  medium: string
  source: string
  term: string
  content: string
  extra: string
  reference: string
  key: string
  link: string
  route: string
  destination: string
}

interface Looked {
  readonly review: Review
  readonly byFinding: ReadonlyMap<string, readonly number[]>
  readonly byChannel: ReadonlyMap<string, readonly number[]>
  /** Values that make findings go away, by kind and field. */
  readonly fixes: ReadonlyMap<string, readonly (readonly [id: number, value: string])[]>
}

const CURRENT = "state <> 'deleted' AND archivedAt IS NULL"

/** Tags of a workspace and of whole campaigns, read and looked over on the reading thread. */
export function tags(database: Sqlite.Database) {
  const looked = new Map<string, { question: string; found: Looked }>()

  function values(workspaceId: number): TagCounts['values'] {
    const counted = tagCounts().values
    for (const field of ['medium', 'source', 'content', 'term'] as const) {
      const rows = database
        .prepare(
          `SELECT c.${field} AS value, count(*) AS n FROM codes c JOIN campaigns k ON k.id = c.campaignId
        WHERE k.workspaceId = ? AND c.${field} <> '' AND c.state <> 'deleted' AND c.archivedAt IS NULL GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT ${String(VALUES_MAX)}`,
        )
        .all(workspaceId) as { value: string; n: number }[]
      for (const { value, n } of rows) counted[field].set(value, n)
    }
    const campaigns = database
      .prepare(
        `SELECT utmCampaign AS value, count(c.id) AS n FROM campaigns k LEFT JOIN codes c ON c.campaignId = k.id WHERE k.workspaceId = ? GROUP BY 1`,
      )
      .all(workspaceId) as { value: string; n: number }[]
    for (const { value, n } of campaigns) counted.campaign.set(value, Math.max(1, n))
    return counted
  }

  /** Tags that more than one piece of a campaign carries, with how many do. */
  function sameTags({ campaignId, campaign }: TagQuestion): Map<string, number> {
    const rows = database
      .prepare(
        `SELECT medium, source, term, content, extra, count(*) AS n FROM codes
      WHERE campaignId = ? AND ${CURRENT} GROUP BY 1, 2, 3, 4, 5 HAVING n > 1`,
      )
      .all(campaignId) as (TagRow & { n: number })[]
    return new Map(
      rows.map(({ n, extra, ...row }) => [
        tagsKey({ ...row, campaign, extra: JSON.parse(extra) as Record<string, string> }),
        n,
      ]),
    )
  }

  function piecesOf({ campaignId, campaign }: TagQuestion): (TaggedPiece & { id: number })[] {
    const rows = database
      .prepare(
        `SELECT c.id, c.name, c.place, c.sizeMm AS size, c.medium, c.source, c.term, c.content, c.extra, c.reference, c.key, c.slug AS link,
        r.name AS route, r.destination FROM codes c JOIN routes r ON r.id = c.routeId
      WHERE c.campaignId = ? AND c.state <> 'deleted' AND c.archivedAt IS NULL`,
      )
      .all(campaignId) as TagRow[]
    return rows.map(({ extra, ...row }) => ({
      ...row,
      campaign,
      extra: JSON.parse(extra) as Record<string, string>,
    }))
  }

  function lookOver(question: TagQuestion): Looked {
    const context = tagContext({
      rules: question.rules,
      campaign: question.campaign,
      counts: tagCounts(values(question.workspaceId), sameTags(question)),
      counted: true,
    })
    const kinds = new Map<string, Review['kinds'][number]>()
    const byFinding = new Map<string, number[]>()
    const byChannel = new Map<string, number[]>()
    const fixes = new Map<string, [number, string][]>()
    const add = <T>(to: Map<string, T[]>, key: string, value: T) => {
      const list = to.get(key)
      if (list) list.push(value)
      else to.set(key, [value])
    }
    const pieces = piecesOf(question)
    for (const piece of pieces) {
      const met = new Set<string>()
      for (const { kind, field, fix, sentence } of lint(piece, context)) {
        const key = `${kind} ${field}`
        const counted = kinds.get(key) ?? { kind, field, pieces: 0, fixable: 0, example: sentence }
        kinds.set(key, counted)
        counted.pieces++
        if (fix !== null) {
          counted.fixable++
          add(fixes, key, [piece.id, fix])
        }
        if (!met.has(kind)) add(byFinding, kind, piece.id)
        met.add(kind)
      }
      add(byChannel, channelOf(piece, question.channels), piece.id)
    }
    const weight = ({ kind }: { kind: Finding['kind'] }) => FINDING_KINDS.indexOf(kind)
    const review = {
      pieces: pieces.length,
      kinds: [...kinds.values()].sort((a, b) => weight(a) - weight(b) || b.pieces - a.pieces),
      unassigned: byChannel.get('')?.length ?? 0,
    }
    return { review, byFinding, byChannel, fixes }
  }

  function look(question: TagQuestion): Looked {
    const asked = JSON.stringify(question)
    const key = String(question.campaignId)
    const known = looked.get(key)
    const found = known?.question === asked ? known.found : lookOver(question)
    looked.delete(key)
    looked.set(key, { question: asked, found })
    const [oldest] = looked.keys()
    if (looked.size > LOOKED_MAX && oldest !== undefined) looked.delete(oldest)
    return found
  }

  return {
    tagValues: values,
    tagContext: (question: TagQuestion) => ({
      values: values(question.workspaceId),
      sameTags: sameTags(question),
    }),
    review: (question: TagQuestion) => look(question).review,
    withFinding: (question: TagQuestion, kind: Finding['kind']) => [
      ...(look(question).byFinding.get(kind) ?? []),
    ],
    withChannel: (question: TagQuestion, channel: string) => [
      ...(look(question).byChannel.get(channel) ?? []),
    ],
    fixes: (question: TagQuestion, kind: Finding['kind'], field: string) => [
      ...(look(question).fixes.get(`${kind} ${field}`) ?? []),
    ],

    /** Codes of a scope whose visits fall in a channel, archived and deleted ones too: their scans count. */
    channelCodes: (
      scope: Scope,
      campaign: string,
      channels: readonly ChannelRule[],
      channel: string,
    ): number[] => {
      const { condition, value } = scopeCondition(scope)
      const rows = database.prepare(`SELECT id, medium, source FROM codes WHERE ${condition}`).all(value) as {
        id: number
        medium: string
        source: string
      }[]
      return rows.filter((row) => channelOf({ ...row, campaign }, channels) === channel).map(({ id }) => id)
    },

    /** Numbers that a SELECT written by TypeORM finds, in its order. */
    numbers: (sql: string, values: readonly unknown[]) =>
      database
        .prepare(sql)
        .pluck()
        .all(...values) as number[],
    rows: (sql: string, values: readonly unknown[]) => database.prepare(sql).all(...values),
  }
}
