import { utmOf } from '@flimbo/core/tagging'
import { dayIn, openSpanOfDays, startOfDay } from '@flimbo/core/time'
import {
  allLanes,
  brokenExpectations,
  changesInWords,
  compileCode,
  compileRoute,
  isSameRoute,
  NO_RULES,
  routesApi,
  type CompiledCode,
  type Lane,
  type Rules,
  type WholeRoute,
} from '@flimbo/core/routing'
import { missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { tables, type RouteRow } from '../database/index.ts'
import { isLimited } from '../scans/index.ts'
import { hashPassword } from '../workspace/index.ts'
import { checkAnswers, checkDestination } from './checkDestination.ts'
import type { RoutingParts } from './endpoints.ts'
import { routesFrom } from './knownRoutes.ts'
import { checkOnward } from './onward.ts'
import { checkPages, checkShared, loadReferences, settingsOf, sharedLanes } from './references.ts'
import { changeRoute, type RouteChanges } from './store.ts'

const LATEST = 10_000

/** A route with the lanes of its shared set among its own, so that differences are told of all of them. */
function withShared(
  { destination, rules }: Pick<RouteRow, 'destination' | 'rules'>,
  sets: ReadonlyMap<number, Lane[]>,
) {
  return { destination, rules: { ...rules, lanes: allLanes(rules, sharedLanes(rules, sets)) } }
}

/** Preparing a route, looking at what that would change, and making it live. */
export function draftEndpoints(
  mounts: Mounts,
  { database, reviewer, reader, doors, live, domains, tagsOf }: RoutingParts,
  whole: (id: number) => Promise<WholeRoute>,
): void {
  const { read } = database

  /** Refuses rules that fire a visit tag which is not defined. @throws Refusal */
  async function checkTags(workspaceId: number, { tags }: Rules): Promise<void> {
    const defined = (await tagsOf(workspaceId)).tags.map(({ id }) => id)
    if (tags.some((id) => !defined.includes(id)))
      throw wrongField(
        'rules',
        'A visit tag that is to fire is not defined any more. Remove it from the route.',
      )
  }

  /** What a limit begins with, counted while phones need not wait for it. */
  async function letThroughToday(id: number, { rules }: RouteChanges) {
    const life = rules?.life ?? null
    if (!isLimited(life)) return null
    return reader.ask('letThroughSince', id, startOfDay(life.zone, dayIn(life.zone, Date.now())))
  }

  /** Makes a change live for the next scan, before the call is answered. @throws Refusal where somebody saved meanwhile */
  async function carryOut(
    who: { workspace: { id: number }; person: { id: number } },
    id: number,
    version: number,
    change: (row: RouteRow) => RouteChanges | Promise<RouteChanges>,
    also: Partial<RouteRow> = {},
  ): Promise<WholeRoute> {
    const workspaceId = who.workspace.id
    const outcome = await database.writeAfter(
      async () => {
        const row = await read.findOneByOrFail(tables.routes, { id })
        const changes = await change(row)
        await checkOnward(read, { ...row, ...changes }, changes.rules ?? row.rules)
        await checkShared(read, changes.rules ?? row.rules, row.campaignId)
        if (changes.rules) await checkPages(read, changes.rules, workspaceId)
        if (changes.rules) await checkTags(workspaceId, changes.rules)
        return { changes, letThrough: await letThroughToday(id, changes) }
      },
      async (manager, { changes, letThrough }) => {
        const by = { personId: who.person.id, at: Date.now() }
        const done = await changeRoute(manager, id, version, changes, by, letThrough)
        if (done !== 'overtaken' && Object.keys(also).length > 0)
          await manager.update(tables.routes, { id }, also)
        return done
      },
    )
    if (outcome === 'overtaken') throw overtaken('route', await whole(id))
    await doors.forget({ what: 'routes', routeIds: [id] })
    live.tell(workspaceId, { type: 'change', of: 'route', id })
    return whole(id)
  }

  mount(
    mounts,
    routesApi.saveDraft,
    async ({ params: { id }, body: { draftVersion, destination, rules }, who }) => {
      checkDestination(destination, domains)
      checkAnswers(rules, domains)
      const saved = await database.writeAfter(
        async () => {
          const row = await read.findOneByOrFail(tables.routes, { id })
          if (row.draftVersion !== draftVersion) return null
          await checkOnward(read, row, rules)
          await checkShared(read, rules, row.campaignId)
          await checkPages(read, rules, who.workspace.id, false)
          await checkTags(who.workspace.id, rules)
          return row
        },
        async (manager, row) => {
          if (row === null) return false
          const isLive = isSameRoute(row, { destination, rules })
          await manager.update(
            tables.routes,
            { id },
            {
              draft: isLive ? null : { destination, rules, personId: who.person.id, at: Date.now() },
              draftVersion: draftVersion + 1,
            },
          )
          return true
        },
      )
      if (!saved) throw overtaken('draft', await whole(id))
      live.tell(who.workspace.id, { type: 'change', of: 'route', id })
      return whole(id)
    },
  )

  mount(mounts, routesApi.dropDraft, async ({ params: { id }, who }) => {
    await database.write(async (manager) => {
      const { draftVersion } = await manager.findOneByOrFail(tables.routes, { id })
      await manager.update(tables.routes, { id }, { draft: null, draftVersion: draftVersion + 1 })
    })
    live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    return whole(id)
  })

  mount(mounts, routesApi.publish, ({ params: { id }, body: { version, draftVersion }, who }) =>
    carryOut(
      who,
      id,
      version,
      (row) => {
        if (row.draft === null)
          throw new Refusal('taken', 'There is nothing to publish: what is prepared is live already.')
        if (row.draftVersion !== draftVersion) throw overtaken('draft', row.draft)
        checkDestination(row.draft.destination, domains)
        checkAnswers(row.draft.rules, domains)
        return { destination: row.draft.destination, rules: row.draft.rules }
      },
      { draft: null, draftVersion: draftVersion + 1 },
    ),
  )

  mount(mounts, routesApi.goBack, async ({ params: { id }, body: { version, number }, who }) => {
    const revision = await read.findOneBy(tables.revisions, { of: 'route', subjectId: id, number })
    if (!revision) throw missing('revision')
    return carryOut(who, id, version, (row) => {
      // Revisions made before there were rules keep none.
      const { destination, rules } = { rules: NO_RULES, ...revision.after } as Pick<
        RouteRow,
        'destination' | 'rules'
      >
      checkDestination(destination, domains)
      checkAnswers(rules, domains)
      return {
        destination,
        rules:
          rules.life && row.rules.life
            ? { ...rules, life: { ...rules.life, countedFrom: row.rules.life.countedFrom } }
            : rules,
      }
    })
  })

  mount(mounts, routesApi.setPassword, async ({ params: { id }, body: { version, password }, who }) => {
    const passwordHash = password === '' ? '' : await hashPassword(password)
    return carryOut(who, id, version, () => ({ passwordHash }))
  })

  mount(mounts, routesApi.setExpectations, async ({ params: { id }, body: { expectations }, who }) => {
    await database.write((manager) => manager.update(tables.routes, { id }, { expectations }))
    live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    return whole(id)
  })

  mount(mounts, routesApi.exits, async ({ params: { id }, query: { from, to }, campaign }) => {
    const { start, end } = openSpanOfDays(campaign.zone, from, to)
    return { rows: await reader.ask('exits', id, start, end) }
  })

  /** Some code of a route, by which expectations are run; one that has no tags where there is none. */
  async function someCode(row: RouteRow): Promise<CompiledCode> {
    const code = await read.findOne(tables.codes, {
      where: { routeId: row.id, state: 'live' },
      order: { id: 'asc' },
    })
    const { utmCampaign } = await read.findOneByOrFail(tables.campaigns, { id: row.campaignId })
    const utm = utmOf(code ?? { source: '', medium: '', term: '', content: '' }, utmCampaign)
    return compileCode({ state: 'live', utm, slug: code?.slug ?? '', label: code?.name ?? '' })
  }

  mount(mounts, routesApi.effect, async ({ params: { id }, who }) => {
    const row = await read.findOneByOrFail(tables.routes, { id })
    const next = {
      ...row,
      destination: row.draft?.destination ?? row.destination,
      rules: row.draft?.rules ?? row.rules,
    }
    const all = await routesFrom(database, [next, row])
    const kept = await loadReferences(
      read,
      [row, next, ...all.values()].map(({ rules }) => rules),
    )
    const find = (other: number) => {
      const led = all.get(other)
      return led && other !== id ? settingsOf(led, kept) : null
    }
    const code = await someCode(row)
    const { tags } = await tagsOf(who.workspace.id)
    return {
      ...(await reviewer.ask('effect', {
        routeId: id,
        was: settingsOf(row, kept),
        is: settingsOf(next, kept),
        others: [...all]
          .filter(([other]) => other !== id)
          .map(([other, led]) => [other, settingsOf(led, kept)]),
        latest: LATEST,
      })),
      broken: brokenExpectations(
        row.expectations,
        code,
        compileRoute({ ...settingsOf(next, kept), locked: false }, find),
        Date.now(),
      ),
      changes: changesInWords(withShared(row, kept.sets), withShared(next, kept.sets), {
        route: (routeId) => all.get(routeId)?.name ?? 'a route that is gone',
        page: (pageId) => kept.pages.get(pageId)?.name ?? 'a page that is gone',
        tag: (tag) => tags.find((each) => each.id === tag)?.name ?? tag,
      }),
    }
  })
}
