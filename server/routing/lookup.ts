import { type ExtraValues, type UtmValues } from '@flimbo/core/tagging'
import { LRUCache } from 'lru-cache'
import { canonicalSlug, isSlug } from '@flimbo/core/codes'
import { compileCode, type Compiled, type CompiledCode, type State } from '@flimbo/core/routing'
import type { Fired } from '@flimbo/core/visitTags'
import { tables, type ReadOnly } from '../database/index.ts'
import type { ShortLink } from '../line/index.ts'
import type { Counter, Limits } from './limits.ts'
import { routeLoader, type KnownRoute, type TagsOf } from './knownRoutes.ts'

/** What the front door knows of a short link: enough to decide and to record without a further look. */
export interface Posting {
  readonly codeId: number
  readonly routeId: number
  readonly campaignId: number
  readonly workspaceId: number
  readonly workspaceZone: string
  /** How many hours a site may name its scans; 0: it is not told of them. */
  readonly referenceHours: number
  readonly revisionId: number
  readonly compiled: Compiled
  /** Scans let through, where something limits them. */
  readonly counter: Counter | null
  /** Empty where no password stands before the route. */
  readonly passwordHash: string
  /** Visit tags that fire on the way; null where none does. */
  readonly fired: Fired | null
}

/** How many short links, and routes, are kept ready. */
export const POSTINGS_MAX = 150_000
const ROUTES_MAX = 20_000

interface CodeRowOfDoor {
  codeId: number
  routeId: number
  campaignId: number
  workspaceId: number
  zone: string
  referenceHours: number
  codeState: State
  slug: string
  name: string
  source: string
  medium: string
  campaign: string
  term: string
  content: string
  extra: string
  otherwise: string
  latitude: number | null
  longitude: number | null
}

/** A code as it is kept ready, and what it makes with its route as that was last seen. */
interface KnownCode {
  readonly row: Pick<
    CodeRowOfDoor,
    'codeId' | 'routeId' | 'campaignId' | 'workspaceId' | 'zone' | 'referenceHours'
  >
  readonly code: CompiledCode
  route: KnownRoute | null
  posting: Posting | null
}

/** Texts that thousands of codes have in common, each kept once. */
const COMMON_MAX = 10_000
const common = new Map<string, string>()
function once(text: string): string {
  const there = common.get(text)
  if (there !== undefined) return there
  if (common.size >= COMMON_MAX) common.clear()
  common.set(text, text)
  return text
}
const NO_EXTRAS: ExtraValues = {}

function knownCode(row: CodeRowOfDoor): KnownCode {
  const utm: UtmValues = {
    source: row.source,
    medium: once(row.medium),
    campaign: once(row.campaign),
    term: row.term,
    content: row.content,
  }
  const place =
    row.latitude === null || row.longitude === null
      ? null
      : { latitude: row.latitude, longitude: row.longitude }
  const { codeId, routeId, campaignId, workspaceId, referenceHours } = row
  return {
    row: { codeId, routeId, campaignId, workspaceId, referenceHours, zone: once(row.zone) },
    route: null,
    posting: null,
    code: compileCode({
      state: row.codeState,
      utm,
      extra: row.extra === '{}' ? NO_EXTRAS : (JSON.parse(row.extra) as ExtraValues),
      slug: row.slug,
      label: row.name,
      place,
      otherwise: row.otherwise,
    }),
  }
}

function postingOf(known: KnownCode, route: KnownRoute): Posting {
  if (known.posting && known.route === route) return known.posting
  const { codeId, routeId, campaignId, workspaceId, referenceHours, zone } = known.row
  known.route = route
  known.posting = {
    codeId,
    routeId,
    campaignId,
    workspaceId,
    workspaceZone: zone,
    referenceHours,
    revisionId: route.revisionId,
    compiled: { code: known.code, route: route.compiled },
    counter: route.counter,
    passwordHash: route.passwordHash,
    fired: route.fired,
  }
  return known.posting
}

/** Finds short links, in memory where they were asked for lately. */
export interface Lookup {
  /** In memory, at once; undefined where the database must be asked. */
  known(domainId: number, slug: string): Posting | null | undefined
  find(domainId: number, slug: string): Promise<Posting | null>
  /** Makes the next scan of these short links see what is stored now; called after every change, before it is answered. */
  forget(links: readonly ShortLink[]): void
  /** The same for every code of some routes, and for the routes whose lanes lead on to them. */
  forgetRoutes(routeIds: ReadonlySet<number>): void
  /** The same for all of them, after a change of many. */
  forgetAll(): void
}

const keyOf = (domainId: number, slug: string) => `${String(domainId)}/${slug}`

/** The one query of the front door, written once by TypeORM and run with another slug each time. */
function findCode({ read }: Pick<ReadOnly, 'read'>): (link: ShortLink) => Promise<CodeRowOfDoor | undefined> {
  const [sql] = read
    .createQueryBuilder()
    .select([
      'code.id AS codeId',
      'code.routeId AS routeId',
      'campaign.id AS campaignId',
      'campaign.referenceHours AS referenceHours',
      'workspace.id AS workspaceId',
      'workspace.zone AS zone',
      'code.state AS codeState',
      'code.slug AS slug',
      'code.name AS name',
      'code.source AS source',
      'code.medium AS medium',
      'campaign.utmCampaign AS campaign',
      'code.term AS term',
      'code.content AS content',
      'code.extra AS extra',
      'code.otherwise AS otherwise',
      'code.latitude AS latitude',
      'code.longitude AS longitude',
    ])
    .from(tables.shortLinks, 'link')
    .innerJoin(tables.codes.options.name, 'code', 'code.id = link.codeId')
    .innerJoin(tables.campaigns.options.name, 'campaign', 'campaign.id = code.campaignId')
    .innerJoin(tables.workspaces.options.name, 'workspace', 'workspace.id = campaign.workspaceId')
    .where('link.domainId = :domainId AND link.slug = :slug', { domainId: '', slug: '' })
    .getQueryAndParameters()
  return async ({ domainId, slug }) => (await read.query<CodeRowOfDoor[]>(sql, [domainId, slug]))[0]
}

/** Finds the code and the compiled route of a short link, from memory wherever it can. */
export function lookup(database: Pick<ReadOnly, 'read'>, limits: Limits, tagsOf: TagsOf): Lookup {
  const find = findCode(database)
  const load = routeLoader(database, limits, tagsOf)
  const codes = new LRUCache<string, { known: KnownCode | null }>({ max: POSTINGS_MAX })
  const routes = new LRUCache<number, KnownRoute>({
    max: ROUTES_MAX,
    dispose: (_route, id, why) => {
      if (why !== 'set') limits.forget(id)
    },
  })
  /** Goes up with each change: what was read before one must not be kept after it. */
  let edition = 0

  function forgetRoutes(ids: ReadonlySet<number>): void {
    edition++
    const isConcerned = (id: number, ledTo: ReadonlySet<number>) =>
      ids.has(id) || (ledTo.size > 0 && [...ledTo].some((other) => ids.has(other)))
    for (const [id, { referred }] of routes.entries()) if (isConcerned(id, referred)) routes.delete(id)
  }

  return {
    known(domainId, slug) {
      const there = codes.get(keyOf(domainId, slug))
      if (!there) return undefined
      if (there.known === null) return null
      const route = routes.get(there.known.row.routeId)
      return route && postingOf(there.known, route)
    },
    async find(domainId, asked) {
      const slug = canonicalSlug(asked)
      if (!isSlug(slug)) return null
      const key = keyOf(domainId, slug)
      const before = edition
      let known = codes.get(key)?.known
      if (known === undefined) {
        const row = await find({ domainId, slug })
        known = row ? knownCode(row) : null
        if (edition === before) codes.set(key, { known })
      }
      if (known === null) return null
      const { routeId } = known.row
      let route = routes.get(routeId)
      if (!route) {
        route = await load(routeId)
        if (edition === before) routes.set(routeId, route)
      }
      return postingOf(known, route)
    },
    forget(links) {
      edition++
      for (const { domainId, slug } of links) codes.delete(keyOf(domainId, slug))
    },
    forgetRoutes,
    forgetAll() {
      edition++
      codes.clear()
      routes.clear()
    },
  }
}
