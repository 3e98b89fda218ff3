import type Sqlite from 'better-sqlite3'
import type { PieceDimension } from '@flimbo/core/dimensions'
import { channelOf, type ChannelRule } from '@flimbo/core/tagging'
import { scopeCondition, type Within } from './scope.ts'

/** A code as figures know it: what it belongs to now, and what it cost. */
export interface FigureCode {
  readonly id: number
  readonly name: string
  readonly clientId: number
  readonly campaignId: number
  readonly routeId: number
  readonly medium: string
  readonly source: string
  readonly content: string
  readonly place: string
  readonly latitude: number | null
  readonly longitude: number | null
  readonly cost: number | null
  readonly campaign: string
  /** Where it leads in the place of its route's own destination; empty for there. */
  readonly otherwise: string
}

/** The codes of a scope, archived and deleted ones too: their scans count. */
export function codeRows(database: Sqlite.Database, scope: Within): FigureCode[] {
  const { condition, value } = scopeCondition(scope)
  return database
    .prepare(
      `SELECT codes.id, codes.name, k.clientId, codes.campaignId, codes.routeId, codes.medium, codes.source, codes.content,
        codes.place, codes.latitude, codes.longitude, codes.cost, k.utmCampaign AS campaign, codes.otherwise
      FROM codes JOIN campaigns k ON k.id = codes.campaignId WHERE ${condition}`,
    )
    .all(value) as FigureCode[]
}

/** What a code is called by in each dimension that belongs to it. */
export function pieceKeys(
  channels: readonly ChannelRule[],
): Readonly<Record<PieceDimension, (code: FigureCode) => string>> {
  return {
    client: ({ clientId }) => String(clientId),
    campaign: ({ campaignId }) => String(campaignId),
    route: ({ routeId }) => String(routeId),
    piece: ({ id }) => String(id),
    channel: (code) => channelOf(code, channels),
    medium: ({ medium }) => medium,
    source: ({ source }) => source,
    content: ({ content }) => content,
    place: ({ place }) => place,
  }
}
