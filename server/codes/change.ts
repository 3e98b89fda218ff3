import type { EntityManager } from 'typeorm'
import { wholeFaults, type CodeCellChange, type CodeSet } from '@flimbo/core/codes'
import type { HouseRules } from '@flimbo/core/tagging'
import { overtaken, Refusal, wrongField } from '../api/index.ts'
import {
  findAmong,
  insertMany,
  ONE_TURN,
  reserveInTurn,
  tables,
  updateMany,
  type CodeRow,
  type RevisionRow,
  type ShortLinkRow,
  type Turns,
} from '../database/index.ts'
import { changeRoute, codesOnRoutes, type By } from '../routing/index.ts'
import { findScanned } from '../scans/index.ts'
import { codeSnapshot } from './issue.ts'
import { slugHolders, slugTaken } from './slugs.ts'

export interface ChangedCodes {
  readonly ids: readonly number[]
  readonly refused: readonly { id: number; name: string; sentence: string; refusal: Refusal }[]
  /** What takes everything back, the last change first. */
  readonly undo: CodeCellChange[]
}

/** What changes are judged by beside what is stored. */
export interface House {
  readonly workspaceId: number
  readonly rules: HouseRules
  /** Why an address may be no destination; null where it may. */
  readonly destinationFault: (address: string) => string | null
}

interface Leading {
  readonly name: string
  readonly destination: string
  readonly version: number
  readonly codes: number
}

interface Known {
  readonly rows: Map<number, CodeRow>
  readonly routes: ReadonlyMap<number, number>
  /** Routes of the pieces whose destination is to change. */
  readonly leading: ReadonlyMap<number, Leading>
  readonly scanned: ReadonlySet<number>
  readonly domains: ReadonlySet<number>
  readonly styles: ReadonlySet<number>
  /** Codes by short link, of those that are asked for; grows as links are claimed. */
  readonly links: Map<string, number>
  readonly keys: Map<string, number>
}

const linkKey = (domainId: number, slug: string) => `${String(domainId)}/${slug}`
const keyKey = (campaignId: number, key: string) => `${String(campaignId)}/${key}`

/** Everything the changes are judged by, read in a few large looks. */
async function loadKnown(
  manager: EntityManager,
  workspaceId: number,
  changes: readonly CodeCellChange[],
): Promise<Known> {
  const ids = changes.map(({ id }) => id)
  const rows = new Map((await findAmong(manager, tables.codes, 'id', ids)).map((row) => [row.id, row]))
  const asked = <T>(of: (set: CodeSet) => T | undefined): T[] =>
    changes.flatMap(({ set }) => {
      const value = of(set)
      return value === undefined ? [] : [value]
    })
  const routes = new Map(
    (
      await findAmong(
        manager,
        tables.routes,
        'id',
        asked(({ routeId }) => routeId),
      )
    ).flatMap(({ id, campaignId, state }) => (state === 'deleted' ? [] : [[id, campaignId] as const])),
  )
  const led = changes.flatMap(({ id, set }) =>
    set.destination === undefined ? [] : [set.routeId ?? rows.get(id)?.routeId ?? 0],
  )
  const counts = await codesOnRoutes(manager, led)
  const leading = new Map(
    (await findAmong(manager, tables.routes, 'id', led)).map(({ id, name, destination, version }) => [
      id,
      { name, destination, version, codes: counts.get(id) ?? 0 },
    ]),
  )
  const deleting = changes.filter(({ set }) => set.state === 'deleted').map(({ id }) => id)
  const domains = new Set([
    1,
    ...(await manager.findBy(tables.domains, { workspaceId, state: 'ready' })).map(({ id }) => id),
  ])
  const styles = asked(({ styleId }) => styleId).some((id) => id !== null)
    ? await manager.findBy(tables.houseStyles, { workspaceId })
    : []
  const slugs = [
    ...new Set([
      ...asked(({ slug }) => slug),
      ...changes.flatMap(({ id, set }) => (set.domainId === undefined ? [] : [rows.get(id)?.slug ?? ''])),
    ]),
  ]
  const links = new Map<string, number>()
  if (slugs.length > 0)
    for (const domainId of domains)
      for (const [slug, codeId] of await slugHolders(manager, domainId, slugs))
        links.set(linkKey(domainId, slug), codeId)
  const wantedKeys = asked(({ key }) => (key === '' ? undefined : key))
  const keys = new Map(
    (await findAmong(manager, tables.codes, 'key', wantedKeys)).map(({ id, campaignId, key }) => [
      keyKey(campaignId, key),
      id,
    ]),
  )
  return {
    rows,
    routes,
    leading,
    scanned: await findScanned(manager, deleting),
    domains,
    styles: new Set(styles.map(({ id }) => id)),
    links,
    keys,
  }
}

/** What a change makes of a piece. @throws Refusal with what to do instead */
function judged(
  row: CodeRow,
  { archived, slug, domainId, destination: _destination, ...set }: CodeSet,
  known: Known,
  rules: HouseRules,
  at: number,
): CodeRow {
  if (
    set.routeId !== undefined &&
    set.routeId !== row.routeId &&
    known.routes.get(set.routeId) !== row.campaignId
  )
    throw wrongField('routeId', 'This route does not exist in the campaign, or was deleted. Choose another.')
  if (set.medium !== undefined && set.medium !== row.medium) refuseOffList(rules, set.medium)
  if (set.state === 'deleted' && row.state !== 'deleted' && known.scanned.has(row.id)) {
    throw new Refusal(
      'taken',
      'This piece has been scanned, so it is printed somewhere: it cannot be deleted. Archive it instead; its code goes on working.',
      { fields: [{ path: 'state', message: 'It has been scanned. Archive it instead.' }] },
    )
  }
  const next: CodeRow = { ...row, ...set, extra: set.extra ?? row.extra }
  if (archived !== undefined) next.archivedAt = archived ? (row.archivedAt ?? at) : null
  const [fault] = wholeFaults(next)
  if (fault !== undefined) throw wrongField(fault.path, fault.message)
  if (set.key && set.key !== row.key) {
    const holder = known.keys.get(keyKey(row.campaignId, set.key))
    if (holder !== undefined && holder !== row.id)
      throw wrongField('key', `Another piece of the campaign has the key “${set.key}” already.`)
    known.keys.set(keyKey(row.campaignId, set.key), row.id)
  }
  if (set.key !== undefined && set.key !== row.key && row.key !== '')
    known.keys.delete(keyKey(row.campaignId, row.key))
  if (domainId !== undefined && !known.domains.has(domainId))
    throw wrongField('domainId', 'This domain is not ready. Choose another.')
  if (next.styleId !== row.styleId && next.styleId !== null && !known.styles.has(next.styleId))
    throw wrongField('styleId', 'This house style was deleted meanwhile. Choose another.')
  next.slug = slug ?? row.slug
  next.domainId = domainId ?? row.domainId
  if (next.slug !== row.slug || next.domainId !== row.domainId) {
    const holder = known.links.get(linkKey(next.domainId, next.slug))
    if (holder !== undefined && holder !== row.id) throw slugTaken(next.slug)
  }
  return next
}

/** Refuses a destination that cannot be, or that is other pieces' too: of the route the piece is on, or is put on with it. @throws Refusal */
function checkLeading(
  row: CodeRow,
  routeId: number,
  destination: string,
  known: Known,
  { destinationFault }: House,
): void {
  const route = known.leading.get(routeId)
  if (!route || destination === route.destination) return
  const own = row.routeId === routeId ? 1 : 0
  if (route.codes > own)
    throw wrongField(
      'destination',
      `${String(route.codes)} pieces share the route “${route.name}”. Change where it leads on Routes, for all of them.`,
    )
  const fault = destinationFault(destination)
  if (fault !== null) throw wrongField('destination', fault)
}

/** Refuses a medium that is not on the house's list, where the house wants that. @throws Refusal */
export function refuseOffList(rules: HouseRules, medium: string): void {
  if (rules.offList !== 'refuse' || rules.media.length === 0 || rules.media.includes(medium)) return
  throw wrongField(
    'medium',
    `“${medium}” is not among the media of the house: ${rules.media.join(', ')}. Choose one of them, or have it added under Settings.`,
  )
}

function isSame(a: unknown, b: unknown): boolean {
  return a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b))
}

/** What takes a change back; the moment of archiving is told by whether there is one. */
function inverse(row: CodeRow, next: CodeRow): CodeSet {
  const set: Record<string, unknown> = {}
  for (const field of Object.keys(row) as (keyof CodeRow)[]) {
    if (field === 'version' || isSame(row[field], next[field])) continue
    if (field === 'archivedAt') set.archived = row.archivedAt !== null
    else set[field] = row[field]
  }
  return set
}

/**
 * Changes pieces, each as a revision, in the caller's transaction. What cannot be changed is told and
 * left; the rest is changed. A change that names a version is refused where the piece has a newer one.
 */
export async function changeCodes(
  manager: EntityManager,
  house: House,
  changes: readonly CodeCellChange[],
  by: By,
  turns: Turns = ONE_TURN,
): Promise<ChangedCodes> {
  const { personId, at } = by
  await turns.rest()
  const known = await loadKnown(manager, house.workspaceId, changes)
  const redirected = new Map<number, string>()
  const ids = new Set<number>()
  const [touched, refused, undo, revisions, links]: [
    Set<number>,
    ChangedCodes['refused'][number][],
    CodeCellChange[],
    Omit<RevisionRow, 'id'>[],
    ShortLinkRow[],
  ] = [new Set(), [], [], [], []]
  for (const { id, version, set } of changes) {
    const row = known.rows.get(id)
    const refuse = (refusal: Refusal) =>
      refused.push({ id, name: row?.name ?? '', sentence: refusal.message, refusal })
    if (!row) {
      refuse(new Refusal('missing', 'There is no such piece, or it belongs to another workspace.'))
      continue
    }
    if (version !== undefined && version !== row.version) {
      refuse(overtaken('piece', undefined))
      continue
    }
    let next: CodeRow
    try {
      if (set.destination !== undefined)
        checkLeading(row, set.routeId ?? row.routeId, set.destination, known, house)
      const fault = set.otherwise ? house.destinationFault(set.otherwise) : null
      if (fault !== null) throw wrongField('otherwise', fault)
      next = judged(row, set, known, house.rules, at)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      refuse(error)
      continue
    }
    const back = inverse(row, next)
    const was = redirected.get(next.routeId) ?? known.leading.get(next.routeId)?.destination
    const moved = set.destination !== undefined && set.destination !== was
    if (moved && set.destination !== undefined) redirected.set(next.routeId, set.destination)
    if (Object.keys(back).length === 0) {
      if (moved) {
        undo.push({ id, set: { destination: was } })
        ids.add(id)
      }
      continue
    }
    next.version = row.version + 1
    if ('slug' in back || 'domainId' in back) {
      const link = linkKey(next.domainId, next.slug)
      if (!known.links.has(link))
        links.push({ domainId: next.domainId, slug: next.slug, codeId: id, since: at })
      known.links.set(link, id)
    }
    revisions.push({
      of: 'code',
      subjectId: id,
      number: next.version,
      at,
      personId,
      before: codeSnapshot(row),
      after: codeSnapshot(next),
    })
    // Taken back in their order: the destination while the piece is still on the route that was led elsewhere.
    undo.push({ id, version: next.version, set: back })
    if (moved) undo.push({ id, set: { destination: was } })
    known.rows.set(id, next)
    touched.add(id)
    ids.add(id)
  }
  const firstId = await reserveInTurn(manager, turns, tables.revisions, revisions.length)
  const numbered = revisions.map((revision, i): RevisionRow => ({ ...revision, id: firstId + i }))
  await turns.begin()
  await insertMany(manager, tables.shortLinks, links, turns)
  await insertMany(manager, tables.revisions, numbered, turns)
  await updateMany(
    manager,
    tables.codes,
    [...touched].flatMap((id) => known.rows.get(id) ?? []),
    turns,
  )
  for (const [routeId, destination] of redirected) {
    await changeRoute(manager, routeId, known.leading.get(routeId)?.version ?? 0, { destination }, by)
    await turns.pause()
  }
  return { ids: [...ids], refused, undo: undo.reverse() }
}
