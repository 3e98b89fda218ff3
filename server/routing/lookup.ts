import { LRUCache } from 'lru-cache'
import { In } from 'typeorm'
import { canonicalSlug, isSlug } from '@flimbo/core/codes'
import { compile, type CompiledRoute, type ExtraValues, type State, type UtmValues } from '@flimbo/core/routing'
import { tables, type Database } from '../database/index.ts'

/** What the front door knows of a short link: enough to decide and to record without a further look. */
export interface Posting {
  readonly codeId: number
  readonly routeId: number
  readonly campaignId: number
  readonly workspaceId: number
  readonly workspaceZone: string
  readonly revisionId: number
  readonly compiled: CompiledRoute
}

/** How many short links are kept ready. */
export const POSTINGS_MAX = 150_000

interface PostingRow {
  codeId: number; routeId: number; campaignId: number; workspaceId: number; zone: string; revisionId: number
  codeState: State; routeState: State; destination: string
  source: string; medium: string; campaign: string; term: string; content: string; extra: string
}

function posting(row: PostingRow): Posting {
  const utm: UtmValues = { source: row.source, medium: row.medium, campaign: row.campaign, term: row.term, content: row.content }
  const settings = { code: { state: row.codeState, utm, extra: JSON.parse(row.extra) as ExtraValues }, route: { state: row.routeState, destination: row.destination } }
  return {
    codeId: row.codeId, routeId: row.routeId, campaignId: row.campaignId, workspaceId: row.workspaceId,
    workspaceZone: row.zone, revisionId: row.revisionId, compiled: compile(settings),
  }
}

/** Finds short links, in memory where they were asked for lately. */
export interface Lookup {
  /** In memory, at once; undefined where the database must be asked. */
  known(domainId: number, slug: string): Posting | null | undefined
  find(domainId: number, slug: string): Promise<Posting | null>
  /** Makes the next scan of these short links see what is stored now; called after every change, before it is answered. */
  forget(links: readonly ShortLink[]): void
  /** The same for all of them, after a change of many. */
  forgetAll(): void
}

/** A short link: the same slug may lead elsewhere on another domain. */
export interface ShortLink { readonly domainId: number; readonly slug: string }

const keyOf = (domainId: number, slug: string) => `${String(domainId)}/${slug}`

/** The one query of the front door, written once by TypeORM and run with another slug each time. */
function findPosting({ read }: Pick<Database, 'read'>): (link: ShortLink) => Promise<PostingRow | undefined> {
  const [sql] = read
    .createQueryBuilder()
    .select([
      'code.id AS codeId', 'route.id AS routeId', 'campaign.id AS campaignId', 'workspace.id AS workspaceId',
      'workspace.zone AS zone', 'route.revisionId AS revisionId', 'code.state AS codeState', 'route.state AS routeState',
      'route.destination AS destination', 'code.source AS source', 'code.medium AS medium',
      'campaign.utmCampaign AS campaign', 'code.term AS term', 'code.content AS content', 'code.extra AS extra',
    ])
    .from(tables.shortLinks, 'link')
    .innerJoin(tables.codes.options.name, 'code', 'code.id = link.codeId')
    .innerJoin(tables.routes.options.name, 'route', 'route.id = code.routeId')
    .innerJoin(tables.campaigns.options.name, 'campaign', 'campaign.id = code.campaignId')
    .innerJoin(tables.workspaces.options.name, 'workspace', 'workspace.id = campaign.workspaceId')
    .where('link.domainId = :domainId AND link.slug = :slug', { domainId: '', slug: '' })
    .getQueryAndParameters()
  return async ({ domainId, slug }) => (await read.query<PostingRow[]>(sql, [domainId, slug]))[0]
}

export function lookup(database: Pick<Database, 'read'>): Lookup {
  const find = findPosting(database)
  const cache = new LRUCache<string, { posting: Posting | null }>({ max: POSTINGS_MAX })
  /** Goes up with each change: what was read before one must not be kept after it. */
  let edition = 0

  return {
    known: (domainId, slug) => cache.get(keyOf(domainId, slug))?.posting,
    async find(domainId, asked) {
      const slug = canonicalSlug(asked)
      const key = keyOf(domainId, slug)
      const there = cache.get(key)
      if (there) return there.posting
      if (!isSlug(slug)) return null
      const before = edition
      const row = await find({ domainId, slug })
      const found = row ? posting(row) : null
      if (edition === before) cache.set(key, { posting: found })
      return found
    },
    forget(links) {
      edition++
      for (const { domainId, slug } of links) cache.delete(keyOf(domainId, slug))
    },
    forgetAll() {
      edition++
      cache.clear()
    },
  }
}

/** With more codes than this it is quicker to forget everything than to look their short links up. */
const NAMED_MAX = 500

/** Makes the next scan of these codes see what is stored now, by whichever of their short links it comes. */
export async function forgetCodes({ read }: Pick<Database, 'read'>, lookup: Lookup, codeIds: readonly number[]): Promise<void> {
  if (codeIds.length > NAMED_MAX) lookup.forgetAll()
  else if (codeIds.length > 0) lookup.forget(await read.findBy(tables.shortLinks, { codeId: In([...codeIds]) }))
}
