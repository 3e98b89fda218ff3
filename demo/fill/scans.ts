import { dayIn } from '@flimbo/core/time'
import { utmOf } from '@flimbo/core/tagging'
import { randomBytes } from 'node:crypto'
import type { Faker } from '@faker-js/faker'
import {
  compileCode,
  compileRoute,
  decide,
  NO_RULES,
  plainArrival,
  type CompiledRoute,
  type RouteSettings,
} from '@flimbo/core/routing'
import { tables, type Database } from '@flimbo/server/database'
import { prepareWriter } from '@flimbo/server/sqlite'
import { leadInserter } from '@flimbo/server/leads'
import { leadsOf, sampleForms } from './leads.ts'
import { onPages, type Opened } from './onPages.ts'
import { outcomeOf } from '@flimbo/server/door'
import {
  destroyPastDays,
  enricher,
  openPlaces,
  pack,
  recountLimits,
  saltKeeper,
  scanInserter,
  visitorHash,
  type Packed,
  eventInserter,
  PACKED_WIDTH,
} from '@flimbo/server/scans'
import Sqlite from 'better-sqlite3'
import { ABROAD } from '../scenario/unusual.ts'
import { crawler, randomPasser, program, PROGRAM_SHARE, type Passer } from '../crowd/people.ts'
import { plannedScans, ZONE } from './calendar.ts'

/** Scans a transaction. */
const GROUP = 5000
/** How often somebody scans the same piece again on the same day. */
const AGAIN = 0.14

interface State {
  readonly at: number
  readonly revisionId: number
  readonly route: CompiledRoute
}

/** What decided at a moment: the newest revision that was there. */
function stateAt(history: readonly State[], at: number): State {
  const state = history.findLast((each) => each.at <= at) ?? history[0]
  if (!state) throw new Error('A route without a revision')
  return state
}

/**
 * Writes fourteen months of scans: each is enriched and stored by the same code that records live
 * ones, with a salt for each day that is destroyed when the day is over.
 */
export async function fillScans(
  database: Database,
  faker: Faker,
  now: number,
  scale: number,
): Promise<number> {
  const { read } = database
  const codes = new Map((await read.find(tables.codes)).map((code) => [code.slug, code]))
  const history = new Map<number, State[]>()
  for (const { id, subjectId, at, after } of await read.find(tables.revisions, {
    where: { of: 'route' },
    order: { number: 'asc' },
  })) {
    history.set(subjectId, [
      ...(history.get(subjectId) ?? []),
      { at, revisionId: id, route: compileRoute({ rules: NO_RULES, ...after } as unknown as RouteSettings) },
    ])
  }
  const [workspace] = await read.find(tables.workspaces)
  const workspaceId = workspace?.id ?? 0
  const enrich = enricher(await openPlaces())

  const connection = new Sqlite(database.file)
  prepareWriter(connection)
  const insert = scanInserter(connection)
  const keepSalt = saltKeeper(connection)
  const salts = new Map<string, string>()
  let today = { day: '', people: new Map<string, Passer[]>() }
  const note = eventInserter(connection)
  const answer = leadInserter(connection)
  const forms = await sampleForms(database)
  let packed: Packed[] = []
  let opened: Opened[] = []
  const flush = () => {
    const { named } = insert(packed)
    const scanIds = new Map(named)
    note(onPages(faker, opened, scanIds))
    answer(leadsOf(faker, opened, scanIds, forms, now))
    packed = []
    opened = []
  }

  const planned = plannedScans(faker, now, scale)
  planned.forEach(({ at, slug, who: kind }, i) => {
    const code = codes.get(slug)
    if (!code) throw new Error(`No code ${slug}`)
    const day = dayIn(ZONE, at)
    if (day !== today.day) today = { day, people: new Map() }
    if (!salts.has(day))
      salts.set(day, keepSalt({ workspaceId, day, salt: randomBytes(32).toString('hex') }).salt)
    const isProgram = kind === 'program' || (kind === 'passers' && faker.number.float() < PROGRAM_SHARE)
    const seen = today.people.get(slug) ?? []
    const again = seen.length > 0 && faker.number.float() < AGAIN
    const person = () => (again ? faker.helpers.arrayElement(seen) : randomPasser(faker))
    const ofCrowd = () => (isProgram ? program(faker) : person())
    const comer = kind === 'program' ? crawler(faker) : ofCrowd()
    const who = kind === 'abroad' ? { ...comer, address: ABROAD } : comer
    if (!isProgram) today.people.set(slug, [...seen, who])
    const { revisionId, route } = stateAt(history.get(code.routeId) ?? [], at)
    const enriched = enrich({
      method: 'GET',
      address: who.address,
      userAgent: who.userAgent,
      acceptLanguage: who.acceptLanguage,
      purpose: '',
      referer: '',
      test: false,
      onward: false,
    })
    const visitor = visitorHash(salts.get(day) ?? '', who.address, who.userAgent)
    const state = code.state !== 'live' && at > now - 9 * 24 * 3_600_000 ? code.state : 'live'
    const decision = decide(
      { code: compileCode({ state, utm: utmOf(code, '') }), route },
      plainArrival(at, { ...enriched, visitor, repeat: again }),
    )
    pack(
      {
        at,
        workspaceId,
        campaignId: code.campaignId,
        day,
        codeId: code.id,
        routeId: code.routeId,
        revisionId,
        ...enriched,
        visitor,
        outcome: outcomeOf(decision),
        exit: decision.exit,
        variant: decision.variant,
        pageId: decision.kind === 'page' ? decision.page.id : null,
      },
      packed,
    )
    if (decision.kind === 'page')
      opened.push({
        place: packed.length / PACKED_WIDTH - 1,
        at,
        codeId: code.id,
        routeId: code.routeId,
        revisionId,
        pageId: decision.page.id,
        apart: enriched.apart ?? '',
        visitor: {
          workspaceId,
          campaignId: code.campaignId,
          day,
          visitor,
          language: enriched.languages[0] ?? 'en',
          place: enriched.place,
          device: enriched.device,
          utm: { ...utmOf(code, '') },
        },
      })
    if (i % GROUP === GROUP - 1) flush()
  })
  flush()
  destroyPastDays(connection, now)
  connection.pragma('wal_checkpoint(TRUNCATE)')
  connection.close()
  await database.write((manager) => recountLimits(manager, now))
  return planned.length
}
