import { insertLivePage } from '@flimbo/server/pages'
import { startOfDay } from '@flimbo/core/time'
import type { Faker } from '@faker-js/faker'
import type { Rules } from '@flimbo/core/routing'
import { DEFAULT_PIECE } from '@flimbo/core/codes'
import { DEFAULT_RULES } from '@flimbo/core/tagging'
import { changeCodes, issueCodes } from '@flimbo/server/codes'
import { insertedId, tables, type Database } from '@flimbo/server/database'
import { OWN_DOMAIN } from '@flimbo/server/domains'
import { changeRoute, insertRoute } from '@flimbo/server/routing'
import { VISIT_TAGS as SECTION } from '@flimbo/server/visitTags'
import { hashPassword, setUpWorkspace } from '@flimbo/server/workspace'
import { CAMPAIGNS, type SampleCampaign, type SamplePiece, type SampleRoute } from '../scenario/pieces.ts'
import { DETAILS } from '../scenario/details.ts'
import { samplePages } from '../scenario/pages.ts'
import { fillMedia } from './media.ts'
import { EXPECTATIONS, RULES, SHARED_SETS } from '../scenario/rules.ts'
import { STATIC_CODES } from '../scenario/staticCodes.ts'
import { VISIT_TAGS } from '../scenario/visitTags.ts'
import { shiftToToday, ZONE } from './calendar.ts'
import { fillStyles } from './styles.ts'
import { fillWallet } from './wallet.ts'

export const SIGN_IN = { email: 'anna@saltmarsh.example', password: 'low tide at noon' }

type Write = Parameters<Parameters<Database['write']>[0]>[0]
/** A campaign that was just made, as far as its pieces must know it. */
interface Made {
  readonly id: number
  readonly workspaceId: number
  readonly domainId: number
  readonly startsOn: string
  readonly endsOn: string
}
interface Staff {
  readonly anna: number
  readonly jonas: number
}

async function staffOf(database: Database): Promise<Staff> {
  const anna = await setUpWorkspace(database, {
    workspace: 'Saltmarsh Line',
    zone: ZONE,
    name: 'Anna Petersen',
    ...SIGN_IN,
  })
  const jonas = await database.write(async (manager) => {
    const { workspaceId } = await manager.findOneByOrFail(tables.people, { id: anna })
    return insertedId(
      await manager.insert(tables.people, {
        workspaceId,
        name: 'Jonas de Boer',
        email: 'jonas@saltmarsh.example',
        role: 'editor',
        passwordHash: await hashPassword(SIGN_IN.password),
        createdAt: Date.now(),
      }),
    )
  })
  return { anna, jonas }
}

/** Makes the sample's workspace, campaigns, routes with their history, and codes. */
export async function fillObjects(
  database: Database,
  faker: Faker,
  now: number,
  filesDirectory: string,
): Promise<void> {
  const staff = await staffOf(database)
  await fillWallet(database, staff.anna, now)
  const styleOf = await fillStyles(database, filesDirectory, { personId: staff.anna, now })
  const pages = samplePages(await fillMedia(database, filesDirectory, staff.anna))
  const workDay = (day: string, today: string) =>
    Math.min(
      now - 60_000,
      startOfDay(ZONE, shiftToToday(day, today, now)) + (8 + faker.number.float(9)) * 3_600_000,
    )

  async function piece(
    manager: Write,
    campaign: Made,
    routeId: number,
    { state, weekly: _weekly, ...given }: SamplePiece,
    at: number,
  ): Promise<void> {
    const { at: spot, run, ...details } = DETAILS[given.slug] ?? {}
    const [id = 0] = await issueCodes(
      manager,
      [
        {
          ...DEFAULT_PIECE,
          ...given,
          ...details,
          campaignId: campaign.id,
          domainId: campaign.domainId,
          route: routeId,
          styleId: styleOf.get(given.source) ?? null,
          state: 'live',
          latitude: spot?.[0] ?? null,
          longitude: spot?.[1] ?? null,
          printRun: run ?? null,
          liveOn: campaign.startsOn,
          downOn: campaign.endsOn,
        },
      ],
      { personId: staff.jonas, at: Math.round(at) },
      given.slug.length,
    )
    const set = state === 'archived' ? { archived: true } : { state }
    if (state)
      await changeCodes(
        manager,
        { workspaceId: campaign.workspaceId, rules: DEFAULT_RULES, destinationFault: () => null },
        [{ id, set }],
        { personId: staff.anna, at: Math.round(now - 9 * 24 * 3_600_000) },
      )
  }

  /** The dates of a route's life as they fall seen from today. */
  function laidRound(rules: Rules, today: string): Rules {
    const laid = (moment: string) =>
      moment === '' ? '' : `${shiftToToday(moment.slice(0, 10), today, now)}${moment.slice(10)}`
    const { life } = rules
    return life === null
      ? rules
      : { ...rules, life: { ...life, startsAt: laid(life.startsAt), endsAt: laid(life.endsAt) } }
  }

  async function route(
    manager: Write,
    campaign: Made,
    today: string,
    { name, leads, pieces, state }: SampleRoute,
  ): Promise<void> {
    // What its calendar has still to come has not happened yet.
    const [first, ...later] = leads.filter(({ since }) => since <= today)
    if (!first) throw new Error(`The route ${name} leads nowhere`)
    const changes = [
      ...later.map(({ since, to, by }) => ({ since, by, change: { destination: to } })),
      ...(RULES[name] ?? [])
        .filter(({ since }) => since <= today)
        .map(({ since, by, rules }) => ({ since, by, change: { rules: laidRound(rules, today) } })),
    ].sort((a, b) => (a.since < b.since ? -1 : 1))
    const made = Math.round(workDay(first.since, today))
    const { id } = await insertRoute(
      manager,
      { campaignId: campaign.id, name, destination: first.to, note: '' },
      { personId: staff[first.by], at: made },
    )
    let version = 1
    for (const { since, by, change } of changes) {
      await changeRoute(manager, id, version++, change, {
        personId: staff[by],
        at: Math.round(workDay(since, today)),
      })
    }
    if (EXPECTATIONS[name]) await manager.update(tables.routes, { id }, { expectations: EXPECTATIONS[name] })
    for (const each of pieces) await piece(manager, campaign, id, each, made + 120_000)
    if (state)
      await changeRoute(
        manager,
        id,
        version,
        { state },
        { personId: staff.anna, at: Math.round(now - 5 * 24 * 3_600_000) },
      )
  }

  /** A domain whose records were found long ago. */
  async function domainOf(manager: Write, workspaceId: number, host: string): Promise<number> {
    return insertedId(
      await manager.insert(tables.domains, {
        workspaceId,
        host,
        state: 'ready',
        token: '5a17e9c2b04d',
        home: 'https://saltmarsh.example/',
        unknown: '',
        unknownText: 'There is no such short link. Ask at the ticket counter, and we help.',
        checkedAt: now - 36 * 3_600_000,
        finding: 'Both records are there: short links on this domain work.',
        version: 1,
        createdAt: now - 40 * 3_600_000,
      }),
    )
  }

  async function campaign(
    manager: Write,
    { name, utmCampaign, startsOn, endsOn, today, routes, host }: SampleCampaign,
  ): Promise<void> {
    const { workspaceId } = await manager.findOneByOrFail(tables.people, { id: staff.anna })
    const client = await manager.findOneByOrFail(tables.clients, { workspaceId })
    const domainId = host === undefined ? null : await domainOf(manager, workspaceId, host)
    const days = { startsOn: shiftToToday(startsOn, today, now), endsOn: shiftToToday(endsOn, today, now) }
    const id = insertedId(
      await manager.insert(tables.campaigns, {
        workspaceId,
        clientId: client.id,
        name,
        zone: ZONE,
        utmCampaign,
        version: 1,
        ...days,
        domainId,
        pinned: utmCampaign === 'summer-26',
        createdAt: Math.round(workDay(routes[0]?.leads[0]?.since ?? startsOn, today)),
      }),
    )
    for (const { name: pageName, content } of pages[utmCampaign] ?? []) {
      const by = { personId: staff.anna, at: Math.round(workDay(startsOn, today)) }
      await insertLivePage(manager, id, pageName, content, by)
    }
    for (const each of routes)
      await route(manager, { id, workspaceId, domainId: domainId ?? OWN_DOMAIN, ...days }, today, each)
  }

  await database.write(async (manager) => {
    const { workspaceId } = await manager.findOneByOrFail(tables.people, { id: staff.anna })
    const at = Math.round(workDay('2026-05-18', '2026-07-20'))
    await manager.insert(tables.settings, {
      workspaceId,
      section: SECTION.name,
      value: VISIT_TAGS,
      version: 1,
    })
    for (const each of SHARED_SETS)
      await manager.insert(tables.laneSets, {
        ...each,
        workspaceId,
        version: 1,
        createdAt: at,
        changedAt: at,
      })
    for (const each of CAMPAIGNS) await campaign(manager, each)
    // The office checks every destination as soon as it is there, so that the desk knows which fail, and measures the
    // pieces of the newest season.
    const waiting = {
      workspaceId,
      personId: null,
      state: 'waiting',
      done: 0,
      total: 0,
      sentence: '',
      attempts: 0,
      nextAt: now,
      createdAt: now,
      touchedAt: now,
    } as const
    const checks = {
      kind: 'destination-check',
      title: 'Check of all destinations',
      campaignId: null,
    } as const
    await manager.insert(tables.jobs, { ...waiting, ...checks, payload: {} })
    const season = await manager.findOneByOrFail(tables.campaigns, { workspaceId, utmCampaign: 'summer-26' })
    for (const { name, place, sizeMm, content } of STATIC_CODES)
      await manager.insert(tables.staticCodes, {
        campaignId: season.id,
        name,
        place,
        sizeMm,
        // TypeORM wants to know the parts of a value it only writes as JSON.
        content: content as never,
        level: 'M',
        viewingM: 0.3,
        printRun: null,
        reference: '',
        note: '',
        styleId: null,
        proofKey: '',
        proof: null,
        version: 1,
        createdAt: now,
      })
    const ids = (await manager.findBy(tables.codes, { campaignId: season.id })).map(({ id }) => id)
    await manager.insert(tables.jobs, {
      ...waiting,
      kind: 'proof',
      title: `Check before print: ${season.name}`,
      campaignId: season.id,
      payload: { ids } as never,
    })
  })
}
