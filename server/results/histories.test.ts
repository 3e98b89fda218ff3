import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, truncateSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import { DIMENSIONS, type Dimension } from '@flimbo/core/dimensions'
import { daysBefore, spanOfDays, UNITS, type Span } from '@flimbo/core/time'
import { openDatabase } from '../database/index.ts'
import { factStore, foldWriter, packer, proveSegments, type Packer } from '../figures/index.ts'
import { deviceOf } from '@flimbo/core/scans'
import {
  foldPlan,
  pack,
  rowClearer,
  scanFact,
  scanInserter,
  scanMover,
  type Packed,
} from '../scans/queries.ts'
import { SCANS_VIEW_WHILE_MOVING } from '../sqlite/index.ts'
import {
  figureQuestion,
  isOfPlaceOrAgent,
  isOfSums,
  isWanted,
  recount,
  type FigureQuestion,
  type RecountCode,
  type RecountConversion,
  type RecountFigures,
  type RecountRow,
} from '../tests/recountFigures.ts'
import { siteInserter } from '../goals/insert.ts'
import { storeLead } from '../tests/leadSample.ts'
import { PHONE } from '../tests/running.ts'
import type { Within } from './scope.ts'
import { scansInOrder, type ScanFilter } from './rows.ts'
import { answers, conversionStore, exits, readScans, recent, summary, tallies } from './queries.ts'

// A disk that stops, as a killed process finds it: after so many writes nothing more happens.
const disk = vi.hoisted(() => ({ left: Infinity }))
vi.mock('node:fs', async (original) => {
  const fs = await original<typeof import('node:fs')>()
  const dying = <A extends unknown[], R>(call: (...given: A) => R) =>
    function write(...given: A): R {
      if (disk.left-- <= 0) throw new Error('killed')
      return call(...given)
    }
  return {
    ...fs,
    // What a killed process wrote is there, synced or not.
    fsyncSync: () => undefined,
    renameSync: dying(fs.renameSync),
    mkdirSync: dying(fs.mkdirSync),
    openSync: dying(fs.openSync),
    writeSync: dying(fs.writeSync),
  }
})

const [CAMPAIGNS, ROUTES, CODES] = [2, 3, 5]
/** That of the campaigns. */
const ZONE = 'Europe/Berlin'
const ZONES = ['Europe/Berlin', 'Asia/Kathmandu', 'Pacific/Apia', 'America/St_Johns'] as const
/** Around a change of clocks in each of the zones there is one in: 27 March to 4 April 2026, UTC. */
const START = Date.UTC(2026, 2, 27)
const DAYS = 8
const DAY_MS = 86_400_000

let directory: string
let empty: string
beforeAll(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-histories-'))
  empty = join(directory, 'empty.sqlite')
  await (await openDatabase(empty)).close()
  const database = new Sqlite(empty)
  database.pragma('foreign_keys = OFF')
  database.exec(`INSERT INTO workspaces (id, name, zone, createdAt) VALUES (1, 'W', 'UTC', 0)`)
  for (let i = 1; i <= CAMPAIGNS; i++)
    database.exec(
      `INSERT INTO campaigns (id, workspaceId, clientId, name, zone, utmCampaign, version, createdAt) VALUES (${String(i)}, 1, 1, 'C', '${ZONE}', 'c', 1, 0)`,
    )
  for (let i = 1; i <= CODES; i++)
    database.exec(
      `INSERT INTO codes (id, campaignId, routeId, domainId, slug, name, medium, source, term, content, extra, level, sizeMm, place, latitude, longitude, cost, reference, key, note, state, version, createdAt)
      VALUES (${String(i)}, 1, 1, 1, 'S${String(i)}', 'Piece ${String(i)}', '${i < 3 ? 'poster' : 'card'}', 'p', '', '', '{}', 'M', 30, 'Pier ${String(i % 2)}', ${i === 5 ? 'NULL, NULL' : `${String(53 + i / 10)}, 8`}, ${i === 4 ? 'NULL' : `${String(i)}0.1`}, '', '', '', 'live', 1, 0)`,
    )
  database.close()
})
afterEach(() => {
  disk.left = Infinity
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const scan = fc.record({
  at: fc.integer({ min: START, max: START + DAYS * DAY_MS - 1e6 }),
  codeId: fc.integer({ min: 1, max: CODES }),
  routeId: fc.integer({ min: 1, max: ROUTES }),
  apart: fc.constantFrom(null, null, null, 'crawler', 'onward'),
  exit: fc.constantFrom('', 'otherwise', 'otherwise', '7', 'full'),
  variant: fc.constantFrom('', 'a'),
  visitor: fc.constantFrom('0123456789abcdef', 'fedcba9876543210', 'v'),
  city: fc.constantFrom('Norden', 'Husum', ''),
  latitude: fc.constantFrom(54, 55),
  userAgent: fc.constantFrom(PHONE, ''),
  language: fc.constantFrom('de-DE', 'de-AT', 'da', ''),
})
type GivenScan = typeof scan extends fc.Arbitrary<infer T> ? T : never

const step = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('scan' as const),
      scans: fc.array(scan, { minLength: 1, maxLength: 30 }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('pack' as const),
      writes: fc.constantFrom(Infinity, Infinity, 1, 3, 6, 9, 14, 20),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('move' as const),
      codeId: fc.integer({ min: 1, max: CODES }),
      routeId: fc.integer({ min: 1, max: ROUTES }),
      campaignId: fc.integer({ min: 1, max: CAMPAIGNS }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ do: fc.constant('delete' as const), codeId: fc.integer({ min: 1, max: CODES }) }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'restart' as const,
        'rebuild' as const,
        'backup' as const,
        'restore' as const,
        'clear' as const,
        'age' as const,
        'move-before' as const,
        'move-before' as const,
        'damage' as const,
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('fold' as const),
      days: fc.integer({ min: 1, max: DAYS }),
      writes: fc.constantFrom(Infinity, Infinity, 3, 6, 9, 12, 15, 18),
      /** Whether it is killed just before it would be in force. */
      isKilled: fc.constantFrom(false, false, false, true),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constant('ask' as const),
      zone: fc.constantFrom(ZONE, ...ZONES),
      unit: fc.constantFrom(...UNITS),
      from: fc.integer({ min: 0, max: DAYS - 1 }),
      days: fc.integer({ min: 1, max: DAYS }),
      questions: fc.array(figureQuestion, { maxLength: 4 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('goal' as const),
      at: fc.integer({ min: START, max: START + DAYS * DAY_MS - 1e6 }),
      codeId: fc.integer({ min: 1, max: CODES }),
      scanId: fc.integer({ min: 1, max: 60 }),
      goalId: fc.integer({ min: 1, max: 2 }),
      isArriving: fc.boolean(),
      valueMilli: fc.integer({ min: 0, max: 99_999 }),
      apart: fc.constantFrom('', '', 'test'),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('lead' as const),
      at: fc.integer({ min: START, max: START + DAYS * DAY_MS - 1e6 }),
      codeId: fc.integer({ min: 1, max: CODES }),
      scanId: fc.integer({ min: 1, max: 60 }),
      held: fc.constantFrom('', '', 'trap'),
    }),
  },
)
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never

type Came = RecountRow & { scanId: number }
type Row = RecountRow & {
  id: number
  apart: string | null
  visitor: string
  isUnique: number
  campaignId: number
  nowRouteId: number
  placeId: number
  /** Only its sums are left. */
  isFolded: boolean
}

let histories = 0
let serial = 0
/** A database, what packs it and what reads it, all begun anew whenever they are killed. */
function openHistory() {
  const file = join(directory, `${String(++histories)}.sqlite`)
  copyFileSync(empty, file)
  const segments = `${file}-figures`
  let database = open()
  let packing: Packer | null = null
  let questions = ask()
  /** Scans that are folded, as they were. */
  let folded: Row[] = []
  let backedUp: Row[] | null = null
  const backup = `${file}-backup`

  function open() {
    const opened = new Sqlite(file)
    opened.pragma('foreign_keys = OFF')
    opened.pragma('synchronous = OFF')
    return opened
  }
  const openPacker = () =>
    packer(database, segments, scanFact, { facts: 8, together: 2, lastLevel: 2, sheetFacts: 4 })
  function ask() {
    const store = factStore(database, segments, scanFact, {
      columnsBytes: 200,
      foldedBytes: 300,
      sums: 3,
      looseFacts: 25,
      atOnce: 7,
    })
    const conversions = conversionStore(database, 3)
    return {
      summary: summary(database, store),
      tallies: tallies(database, store),
      recent: recent(database, store),
      answers: answers(database, store, conversions),
      readAhead: () => conversions.readAhead(),
      exits: exits(store),
      rows: readScans(database, store),
      inOrder: (filter: ScanFilter) =>
        [...scansInOrder(database, store, filter, 3)].flatMap(({ rows }) => rows.map(([id]) => id)),
    }
  }
  function store(scans: readonly GivenScan[]): void {
    const packed: Packed[] = []
    for (const { city, latitude, userAgent, ...given } of scans)
      pack(
        {
          ...given,
          // No two scans are of the same moment, visitor and code: that tells a backup brought back.
          at: given.at + serial++,
          workspaceId: 1,
          campaignId: 1,
          day: new Date(given.at).toISOString().slice(0, 10),
          revisionId: 1,
          outcome: 'redirect',
          place: { country: 'DE', region: 'Coast', city, latitude, longitude: 8 },
          device: deviceOf(userAgent),
          referrer: city,
        },
        packed,
      )
    scanInserter(database)(packed)
  }
  /** Whoever packs may be killed by the disk, and is begun anew then. */
  function pretend(writes: number, work: (packing: Packer) => void): void {
    disk.left = writes
    try {
      packing ??= openPacker()
      work(packing)
    } catch (error) {
      if (!String(error).includes('killed')) throw error
      packing?.close()
      packing = null
    }
    disk.left = Infinity
  }
  const editions = () => database.prepare('SELECT count(*) FROM folds').pluck().get() as number
  function stored(): Row[] {
    const all = database
      .prepare(
        `SELECT s.*, c.campaignId, c.routeId AS nowRouteId, p.country, p.region, p.city, p.latitude, p.longitude,
          a.device, a.system, a.browser FROM scans s JOIN codes c ON c.id = s.codeId
        JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId`,
      )
      .all() as Row[]
    const gone = new Set(folded.map(({ id }) => id))
    return all.filter(({ id }) => !gone.has(id)).map((row) => ({ ...row, isFolded: false }))
  }
  function fold({ days, writes, isKilled }: Extract<Step, { do: 'fold' }>): void {
    while (scanMover(database).step());
    const before = spanOfDays(ZONE, dayText(days), dayText(days)).start
    const rows = stored()
    const known = editions()
    const newest = Math.max(...rows.map(({ id }) => id))
    const writer = foldWriter(database, scanFact)
    pretend(writes, (each) => {
      const commit: typeof writer.commit = (...given) => {
        if (isKilled) throw new Error('killed')
        writer.commit(...given)
      }
      for (const _step of each.fold(foldPlan(database, new Map([[1, before]]), 0), { ...writer, commit }));
    })
    if (editions() === known) return
    const kept = database.prepare('SELECT keptId FROM folds ORDER BY id DESC').pluck().get()
    folded = [
      ...folded,
      ...rows
        .filter(({ at, id }) => at < before && id !== newest && id !== kept)
        .map((row) => ({ ...row, isFolded: true })),
    ]
  }
  /** A file of the newest segment is cut off, as a failing disk does it. */
  function damage(): void {
    const manifest = join(segments, 'manifest.json')
    const all = existsSync(manifest)
      ? (JSON.parse(readFileSync(manifest, 'utf8')) as { segments: { name: string }[] }).segments
      : []
    const name = all.at(-1)?.name
    if (name) truncateSync(join(segments, name, 'columns.arrow'), 100)
  }
  /** Makes it an installation of before: all scans but the newest stand where they stood then. */
  function age(): void {
    if (editions() > 0 || database.prepare("SELECT 1 FROM sqlite_master WHERE name = 'scans_before'").get())
      return
    database.exec(`CREATE TABLE scans_before AS SELECT * FROM scans WHERE id < (SELECT max(id) FROM scan_rows);
      DELETE FROM scan_rows WHERE id < (SELECT max(id) FROM scan_rows);
      DROP VIEW scans; ${SCANS_VIEW_WHILE_MOVING}`)
  }
  function restart(): void {
    packing?.close()
    packing = null
    database.close()
    database = open()
    questions = ask()
  }
  return {
    ask: () => questions,
    /** All there ever were, as codes belong now. */
    rows(): Row[] {
      const homes = new Map(this.codes().map(({ id, ...home }) => [id, home]))
      return [
        ...stored(),
        ...folded.map((row) => ({
          ...row,
          campaignId: homes.get(row.codeId)?.campaignId ?? 0,
          nowRouteId: homes.get(row.codeId)?.routeId ?? 0,
        })),
      ].sort((x, y) => x.at - y.at || x.id - y.id)
    },
    codes: () =>
      database
        .prepare(
          'SELECT id, campaignId, routeId, routeId AS nowRouteId, medium, place, latitude, longitude, cost FROM codes',
        )
        .all() as (RecountCode & { routeId: number })[],
    /** Those that are in no doubt, with what their scans know. */
    conversions(): RecountConversion[] {
      const scans = new Map(this.rows().map((row) => [row.id, row]))
      const kept = new Set(database.prepare('SELECT id FROM scans').pluck().all() as number[])
      const common = 'at, codeId, scanId, routeId, country, region, city, device, system'
      const leads = database.prepare(`SELECT ${common} FROM leads WHERE held = ''`).all() as Came[]
      const goals = database
        .prepare(`SELECT ${common}, goalId, valueMilli FROM goal_events WHERE apart = ''`)
        .all() as (Came & { goalId: number; valueMilli: number })[]
      const all = [
        ...leads.map((row) => ({ ...row, leads: 1, arrivals: 0, goals: 0, valueMilli: 0 })),
        ...goals.map(({ goalId, ...row }) =>
          goalId === 0
            ? { ...row, leads: 0, arrivals: 1, goals: 0 }
            : { ...row, leads: 0, arrivals: 0, goals: 1 },
        ),
      ]
      return all.map((row) => {
        const scan = kept.has(row.scanId) ? scans.get(row.scanId) : undefined
        const { latitude = null, longitude = null, browser = '', language = '' } = scan ?? {}
        const { referrer = '', outcome = '', exit = '', variant = '' } = scan ?? {}
        return { ...row, latitude, longitude, browser, language, referrer, outcome, exit, variant }
      })
    },
    take(given: Step): void {
      switch (given.do) {
        case 'scan':
          store(given.scans)
          return
        case 'age':
          age()
          return
        case 'move-before':
          scanMover(database, 5).step()
          return
        case 'pack':
          pretend(given.writes, (each) => each.step())
          return
        case 'fold':
          fold(given)
          return
        case 'clear':
          rowClearer(database, undefined, 3)()
          return
        case 'move':
          database
            .prepare('UPDATE codes SET routeId = ?, campaignId = ? WHERE id = ?')
            .run(given.routeId, given.campaignId, given.codeId)
          return
        case 'lead':
          storeLead(file, { ...given, routeId: 1, city: 'Norden', region: 'Coast' })
          return
        case 'goal': {
          const { goalId, valueMilli, isArriving, do: _do, ...site } = given
          const view = isArriving ? { key: String(valueMilli), page: 'a.example/', seconds: 1 } : null
          const once = `event ${String(given.scanId)} ${String(valueMilli)}`
          siteInserter(database)([
            { ...site, workspaceId: 1, routeId: 1, view, reached: [{ goalId, once, order: '', valueMilli }] },
          ])
          // Some are read before anybody asks for them.
          if (isArriving) questions.readAhead()
          return
        }
        case 'delete':
          database.prepare(`UPDATE codes SET state = 'deleted' WHERE id = ?`).run(given.codeId)
          return
        case 'restart':
          restart()
          return
        case 'rebuild':
          rmSync(join(segments, 'manifest.json'), { force: true })
          return
        case 'restore':
          // Brought back while nothing runs; the segments are those of today.
          if (!backedUp) return
          packing?.close()
          packing = null
          database.close()
          for (const end of ['-wal', '-shm']) rmSync(`${file}${end}`, { force: true })
          copyFileSync(backup, file)
          folded = backedUp
          database = open()
          questions = ask()
          return
        case 'backup':
          rmSync(backup, { force: true })
          database.exec(`VACUUM INTO '${backup}'`)
          backedUp = folded
          return
        case 'damage':
          damage()
          return
        case 'ask':
      }
    },
    /** Has whatever is damaged packed anew, and everything recounted from the rows. */
    prove() {
      packing?.close()
      packing = openPacker()
      while (packing.step().hasMore);
      return proveSegments(database, segments, scanFact)
    },
    close() {
      packing?.close()
      database.close()
    },
  }
}
type History = ReturnType<typeof openHistory>

const isCounted = ({ apart }: Row) => apart === null
const inSpan =
  ({ start, end }: Span) =>
  ({ at }: Pick<Row, 'at'>) =>
    at >= start && at < end
const tallyOf = (rows: readonly Row[]) => ({
  scans: rows.length,
  uniques: rows.filter(({ isUnique }) => isUnique === 1).length,
})
const lastOf = (rows: readonly Row[]) => (rows.length === 0 ? null : Math.max(...rows.map(({ at }) => at)))

/** Shares by a key, as a reader would count them by hand. */
function sharesBy(rows: readonly Row[], keyOf: (row: Row) => string) {
  const keys = [...new Set(rows.map(keyOf))]
  return keys
    .map((key) => ({ key, ...tallyOf(rows.filter((row) => keyOf(row) === key)) }))
    .sort((a, b) => b.scans - a.scans || (a.key < b.key ? -1 : 1))
}
const dayText = (day: number) => new Date(START + day * DAY_MS).toISOString().slice(0, 10)

/** Every view of a history against a count of its rows, one by one. */
function expectEqual(
  history: History,
  { zone, unit, from, days, questions }: Extract<Step, { do: 'ask' }>,
): void {
  const {
    summary: summarize,
    answers: answer,
    tallies: tally,
    recent: daily,
    exits: ways,
    rows: pages,
    inOrder,
  } = history.ask()
  const all = history.rows()
  const isAnyFolded = all.some(({ isFolded }) => isFolded)
  /** Sums by what a scan was made in are of days of the campaign's zone. */
  const areDaysKnown = !isAnyFolded || zone === ZONE
  const counted = all.filter(isCounted)
  const [first, last] = [dayText(from), dayText(Math.min(DAYS, from + days))]
  const span = spanOfDays(zone, first, last)

  const scopes: [scope: Within, own: (row: Row) => boolean][] = [
    [{ campaignId: 1 }, ({ campaignId }) => campaignId === 1],
    [{ routeId: 2 }, ({ nowRouteId }) => nowRouteId === 2],
    [{ codeId: 3 }, ({ codeId }) => codeId === 3],
  ]
  for (const [scope, own] of scopes) {
    const found = summarize({ ...scope, forWorkspace: 1, zone, from: first, to: last })
    expect(found.ever).toEqual({ ...tallyOf(counted.filter(own)), lastAt: lastOf(counted.filter(own)) })
    const apart = all.filter((row) => own(row) && !isCounted(row)).filter(inSpan(span))
    expect(Object.fromEntries(found.apart.map(({ kind, requests }) => [kind, requests]))).toEqual(
      Object.fromEntries(sharesBy(apart, (row) => String(row.apart)).map(({ key, scans }) => [key, scans])),
    )

    for (const which of ['counted', 'apart', 'both'] as const) {
      const listed = all
        .filter((row) => own(row) && !row.isFolded)
        .filter(inSpan(span))
        .filter((row) => which === 'both' || isCounted(row) === (which === 'counted'))
      const page = pages.page({ within: scope, ...span, counted: which }, 'desc', 4, 3)
      expect(page.total).toBe(listed.length)
      expect(inOrder({ within: scope, ...span, counted: which })).toEqual(listed.map(({ id }) => id))
      expect(page.rows.map(({ id }) => id)).toEqual(
        listed
          .map(({ id }) => id)
          .reverse()
          .slice(3, 7),
      )
    }
  }

  const codes = new Map(history.codes().map((code) => [code.id, code]))
  const before = daysBefore(first, last)
  const periods = [span, spanOfDays(zone, before.from, before.to)] as const
  const conversions = history.conversions()
  const inTime: FigureQuestion[] = [{ by: [unit], filters: {} }, { by: ['city'], filters: {} }, ...questions]
  for (const workspace of [true, false]) {
    const own = new Map([...codes].filter(([, { campaignId }]) => workspace || campaignId === 1))
    const ofOwn = ({ codeId }: { codeId: number }) => own.has(codeId)
    const found = answer({
      workspaceId: 1,
      within: workspace ? { workspaceId: 1 } : { campaignId: 1 },
      zone,
      from: first,
      to: last,
      before,
      channels: [],
      questions: inTime.map((each) => ({ ...each, what: 'scans', top: 2000 })),
    })
    for (const [i, question] of inTime.entries()) {
      const sums = isOfSums(question)
      if (sums && !areDaysKnown && isOfPlaceOrAgent(question)) continue
      const [now, then] = periods.map((period) => {
        const rows = counted.filter((row) => ofOwn(row) && inSpan(period)(row) && (sums || !row.isFolded))
        return {
          rows,
          counts: recount(question, rows, conversions.filter(ofOwn).filter(inSpan(period)), own, zone),
        }
      })
      const { rows = [], total, spots = {} } = found[i] ?? {}
      const shown = rows.map(({ keys, before: _then, ...figures }) => [keys.join(' | '), figures])
      expect([question, ordered(shown.filter(([, figures]) => isAnything(figures)))]).toEqual([
        question,
        ordered([...(now?.counts ?? [])].filter(([, figures]) => isAnything(figures))),
      ])
      expect(total).toMatchObject(sumOf(now?.counts))
      // Pieces of time have other keys in the days before: those are aligned, and tested where they are.
      if (![...question.by, ...Object.keys(question.filters)].some(isTime)) {
        expect(total?.before).toMatchObject(sumOf(then?.counts))
        for (const { keys, before: figures } of rows)
          expect(figures?.scans).toBe(then?.counts.get(keys.join(' | '))?.scans ?? 0)
      }
      // The rows behind it are as many, and the same.
      const within = workspace ? { workspaceId: 1 } : { campaignId: 1 }
      const narrowed = { filters: question.filters, zone, channels: [] }
      const listed = pages.page({ within, ...span, counted: 'counted', narrowed }, 'asc', 500, 0)
      expect(listed.rows.map(({ id }) => id)).toEqual(
        (now?.rows ?? [])
          .filter((row) => !row.isFolded && isWanted(question, row, codes.get(row.codeId), zone))
          .map(({ id }) => id),
      )
      expect(listed.total).toBe(listed.rows.length)
      // A city stands where most of its scans do.
      for (const [city, [latitude]] of question.by[0] === 'city' && sums ? Object.entries(spots) : []) {
        const ofCity = (now?.rows ?? []).filter((row) => row.city === city.split('\t')[2])
        const [most] = sharesBy(ofCity, ({ placeId }) => String(placeId).padStart(9, '0'))
        expect([city, latitude]).toEqual([
          city,
          ofCity.find(({ placeId }) => placeId === Number(most?.key))?.latitude,
        ])
      }
    }
  }

  const byRoute = tally('route', { workspace: 1 })
  for (const { routeId } of history.codes()) {
    const own = counted.filter(({ nowRouteId }) => nowRouteId === routeId)
    if (own.length > 0) expect(byRoute.get(routeId)).toEqual({ ...tallyOf(own), lastAt: lastOf(own) })
    else expect(byRoute.has(routeId)).toBe(false)
  }
  const today = START + (DAYS - 1) * DAY_MS
  expect(
    daily([{ id: 1, zone }], DAYS, today / 60_000)
      .get(1)
      ?.reduce((a, b) => a + b),
  ).toBe(counted.filter(({ campaignId }) => campaignId === 1).filter(inSpan(lastDays(zone, today))).length)
  const through = counted.filter(
    ({ routeId, exit, at }) => routeId === 1 && !['', 'full'].includes(exit) && at >= span.start,
  )
  const onward = all.filter(
    ({ routeId, apart, exit, at }) =>
      routeId === 1 && apart === 'onward' && !['', 'full'].includes(exit) && at >= span.start,
  )
  expect(ways.letThroughSince(1, span.start)).toEqual({
    since: span.start,
    upTo: Math.max(0, ...all.map(({ id }) => id)),
    scans: through.length + onward.length,
  })
  const left = all.filter(
    ({ routeId, apart, exit, at }) =>
      routeId === 1 &&
      (apart === null || apart === 'onward') &&
      exit !== '' &&
      at >= span.start &&
      at < span.end,
  )
  expect(
    ways.exits(1, span.start, span.end).map(({ exit, variant, scans }) => [`${exit} ${variant}`, scans]),
  ).toEqual(
    sharesBy(left, ({ exit, variant }) => `${exit} ${variant}`)
      .map(({ key, scans }) => [key, scans])
      .sort(([a], [b]) => (String(a) < String(b) ? -1 : 1)),
  )
}

const ordered = (rows: readonly (readonly unknown[])[]) => rows.map((row) => JSON.stringify(row)).sort()
const isTime = (name: string) => DIMENSIONS[name as Dimension].kind === 'time'
const sumOf = (counts: ReadonlyMap<string, RecountFigures> = new Map()) => {
  const sum = (of: 'scans' | 'leads' | 'arrivals' | 'goals') =>
    [...counts.values()].reduce((total, row) => total + row[of], 0)
  return { scans: sum('scans'), leads: sum('leads'), arrivals: sum('arrivals'), goals: sum('goals') }
}
const isAnything = (figures: unknown) =>
  Object.values(figures as object).some((value) => value !== 0 && value !== null)
function lastDays(zone: string, moment: number): Span {
  const day = new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(moment)
  return spanOfDays(zone, new Date(Date.parse(day) - (DAYS - 1) * DAY_MS).toISOString().slice(0, 10), day)
}

describe('every view of scans', () => {
  it('equals a count of the rows, to the unit and at every moment, whatever happened: scans of any age, moves, deletions, zones, folds, kills, restarts, backups brought back', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 4, maxLength: 24 }), (steps) => {
        const history = openHistory()
        try {
          for (const each of steps) {
            history.take(each)
            if (each.do === 'ask') expectEqual(history, each)
          }
          expectEqual(history, {
            do: 'ask',
            zone: 'Europe/Berlin',
            unit: 'week',
            from: 0,
            days: DAYS,
            questions: [],
          })
        } finally {
          history.close()
        }
      }),
      { numRuns: 120, endOnFailure: true },
    )
  }, 120_000)
})
