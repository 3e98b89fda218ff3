import type Sqlite from 'better-sqlite3'
import { tagCounts, tagsKey, type TagCounts, type TaggedPiece } from '@flimbo/core/tagging'

/** Values in use, most carried first; more of one field than this are serial numbers, not a list to choose from. */
const VALUES_MAX = 5000
const CURRENT = "state <> 'deleted' AND archivedAt IS NULL"

/** A campaign, and the campaign value its pieces carry. */
export interface TaggedCampaign {
  readonly campaignId: number
  readonly campaign: string
}

interface TagRow extends Omit<TaggedPiece, 'campaign' | 'extra'> {
  readonly id: number
  readonly extra: string
}

const NO_EXTRA: Readonly<Record<string, string>> = Object.freeze({})
/** Most pieces have no values of the workspace's own parameters. */
const extraOf = (text: string) => (text === '{}' ? NO_EXTRA : (JSON.parse(text) as Record<string, string>))

/** The tags of a workspace and of its campaigns, as they are stored. */
export function tagRows(database: Sqlite.Database) {
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
  function sameTags({ campaignId, campaign }: TaggedCampaign): Map<string, number> {
    const rows = database
      .prepare(
        `SELECT medium, source, term, content, extra, count(*) AS n FROM codes
      WHERE campaignId = ? AND ${CURRENT} GROUP BY 1, 2, 3, 4, 5 HAVING n > 1`,
      )
      .all(campaignId) as (TagRow & { n: number })[]
    return new Map(
      rows.map(({ n, extra, ...row }) => [tagsKey({ ...row, campaign, extra: extraOf(extra) }), n]),
    )
  }

  function piecesOf({ campaignId, campaign }: TaggedCampaign): (TaggedPiece & { id: number })[] {
    const rows = database
      .prepare(
        `SELECT c.id, c.name, c.place, c.sizeMm AS size, c.medium, c.source, c.term, c.content, c.extra, c.reference, c.key, c.slug AS link,
        r.name AS route, r.destination FROM codes c JOIN routes r ON r.id = c.routeId
      WHERE c.campaignId = ? AND c.state <> 'deleted' AND c.archivedAt IS NULL`,
      )
      .all(campaignId) as TagRow[]
    return rows.map((row) => Object.assign(row, { campaign, extra: extraOf(row.extra) }))
  }

  return {
    tagValues: values,
    sameTags,
    taggedPieces: piecesOf,
  }
}
export type TagRows = ReturnType<typeof tagRows>
