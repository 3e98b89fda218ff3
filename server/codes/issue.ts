import type { EntityManager } from 'typeorm'
import type { z } from 'zod'
import type { newCode } from '@flimbo/core/codes'
import { NO_RULES } from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'
import { Not } from 'typeorm'
import {
  findAmong,
  insertMany,
  ONE_TURN,
  reserveIds,
  tables,
  type CampaignRow,
  type CodeRow,
  type RevisionRow,
  type RouteRow,
  type ShortLinkRow,
  type Snapshot,
  type Turns,
} from '../database/index.ts'
import { routeSnapshot, plainRoute, type By } from '../routing/index.ts'
import { storeLimits } from '../scans/index.ts'
import { freeSlugs, slugHolders, slugTaken } from './slugs.ts'

/** What a revision of a code keeps: everything a person can change. */
export function codeSnapshot({
  id: _id,
  version: _version,
  createdAt: _created,
  ...rest
}: CodeRow): Snapshot {
  return rest
}

/** A route that does not exist yet; pieces that name the same object share it. */
export interface FreshRoute {
  readonly name: string
  readonly destination: string
  readonly note?: string
  readonly state?: RouteRow['state']
  readonly rules?: RouteRow['rules']
  readonly passwordHash?: string
}

/** A piece about to be issued. Without a slug it gets a free one. */
export type PieceToIssue = Omit<
  CodeRow,
  'id' | 'routeId' | 'slug' | 'version' | 'createdAt' | 'archivedAt'
> & {
  readonly slug: string | null
  readonly route: number | FreshRoute
}

/** How many pieces are issued together: their turns, and what is told of how many are done. It may throw to take everything back. */
export interface Pace {
  readonly turns: Turns
  readonly done?: (pieces: number) => void
}

/** So many pieces are made ready before they are stored. */
const GROUP = 100

/** The pieces' short links: the chosen ones where nobody has them yet, free ones for the rest. @throws Refusal */
async function linksFor(
  manager: EntityManager,
  pieces: readonly PieceToIssue[],
  slugLength: number,
): Promise<string[]> {
  const slugs: (string | null)[] = pieces.map(({ slug }) => slug)
  for (const domainId of new Set(pieces.map((piece) => piece.domainId))) {
    const mine = pieces.flatMap((piece, i) => (piece.domainId === domainId ? [i] : []))
    const chosen = new Set<string>()
    for (const i of mine) {
      const slug = slugs[i]
      if (typeof slug !== 'string') continue
      if (chosen.has(slug)) throw slugTaken(slug)
      chosen.add(slug)
    }
    const [taken] = (await slugHolders(manager, domainId, [...chosen])).keys()
    if (taken !== undefined) throw slugTaken(taken)
    const without = mine.filter((i) => slugs[i] === null)
    const free = await freeSlugs(manager, domainId, without.length, slugLength, chosen)
    without.forEach((i, n) => {
      slugs[i] = free[n] ?? null
    })
  }
  return slugs.map((slug) => slug ?? '')
}

/** Refuses a key that another piece of the campaign has. @throws Refusal */
export async function checkKeys(
  manager: EntityManager,
  campaignId: number,
  keys: readonly string[],
): Promise<void> {
  const wanted = keys.filter((key) => key !== '')
  if (new Set(wanted).size < wanted.length) throw wrongField('key', 'Two pieces would have the same key.')
  const [there] = await findAmong(manager, tables.codes, 'key', wanted, { campaignId })
  if (there) throw wrongField('key', `The piece “${there.name}” has the key “${there.key}” already.`)
}

/**
 * Issues pieces, in the caller's transaction: each with its short link and its first revision, and with
 * the routes that do not exist yet. @returns their numbers, in the same order
 */
export async function issueCodes(
  manager: EntityManager,
  pieces: readonly PieceToIssue[],
  { personId, at }: By,
  slugLength: number,
  { turns, done }: Pace = { turns: ONE_TURN },
): Promise<number[]> {
  if (pieces.length === 0) return []
  await turns.rest()
  for (const campaignId of new Set(pieces.map((piece) => piece.campaignId))) {
    await checkKeys(
      manager,
      campaignId,
      pieces.flatMap((piece) => (piece.campaignId === campaignId ? [piece.key] : [])),
    )
  }
  const slugs = await linksFor(manager, pieces, slugLength)
  const freshRoutes = new Set(pieces.flatMap(({ route }) => (typeof route === 'number' ? [] : [route]))).size
  await turns.begin()
  let [routeId, codeId, revisionId] = [
    await reserveIds(manager, tables.routes, freshRoutes),
    await reserveIds(manager, tables.codes, pieces.length),
    await reserveIds(manager, tables.revisions, pieces.length + freshRoutes),
  ]
  const fresh = new Map<FreshRoute, number>()
  const ids: number[] = []
  const first = { number: 1, at, personId, before: null }

  for (let from = 0; from < pieces.length; from += GROUP) {
    await turns.rest()
    const [routes, codes, links, revisions]: [RouteRow[], CodeRow[], ShortLinkRow[], RevisionRow[]] = [
      [],
      [],
      [],
      [],
    ]
    pieces.slice(from, from + GROUP).forEach(({ route, slug: _slug, ...piece }, i) => {
      let leading = typeof route === 'number' ? route : fresh.get(route)
      if (leading === undefined && typeof route !== 'number') {
        leading = routeId++
        fresh.set(route, leading)
        const row: RouteRow = {
          ...plainRoute(
            {
              campaignId: piece.campaignId,
              name: route.name,
              destination: route.destination,
              note: route.note ?? '',
            },
            at,
          ),
          id: leading,
          revisionId: revisionId++,
          state: route.state ?? 'live',
          rules: route.rules ?? NO_RULES,
          passwordHash: route.passwordHash ?? '',
        }
        routes.push(row)
        revisions.push({
          ...first,
          id: row.revisionId,
          of: 'route',
          subjectId: row.id,
          after: routeSnapshot(row),
        })
      }
      const code: CodeRow = {
        ...piece,
        id: codeId++,
        routeId: leading ?? 0,
        slug: slugs[from + i] ?? '',
        archivedAt: null,
        version: 1,
        createdAt: at,
      }
      ids.push(code.id)
      codes.push(code)
      links.push({ domainId: code.domainId, slug: code.slug, codeId: code.id, since: at })
      revisions.push({
        ...first,
        id: revisionId++,
        of: 'code',
        subjectId: code.id,
        after: codeSnapshot(code),
      })
    })
    await turns.begin()
    await insertMany(manager, tables.routes, routes, turns)
    await storeLimits(manager, routes, at)
    await insertMany(manager, tables.codes, codes, turns)
    await insertMany(manager, tables.shortLinks, links, turns)
    await insertMany(manager, tables.revisions, revisions, turns)
    done?.(ids.length)
  }
  return ids
}

/** What a person asked for, as a piece to issue. @throws Refusal where its route is none of the campaign */
export async function pieceToIssue(
  manager: EntityManager,
  campaign: CampaignRow,
  given: z.output<typeof newCode>,
  domainId: number,
): Promise<PieceToIssue> {
  const { destination, routeId, slug, domainId: _domain, ...fields } = given
  if (
    routeId !== undefined &&
    !(await manager.existsBy(tables.routes, { id: routeId, campaignId: campaign.id, state: Not('deleted') }))
  ) {
    throw wrongField('routeId', 'This route does not exist in the campaign, or was deleted. Choose another.')
  }
  return {
    ...fields,
    domainId,
    slug: slug ?? null,
    state: 'live',
    route: routeId ?? { name: given.name, destination: destination ?? '' },
  }
}
