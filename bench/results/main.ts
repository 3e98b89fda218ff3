// npm run bench -- results: figures of 1, 5 and 10 million scans, each view beside DuckDB on the same scans in the same
// run; what they take in bytes, time and memory. `--scans 10000000` measures one size alone.
import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import Sqlite from 'better-sqlite3'
import { readerQueries } from '../../server/reader/queries.ts'
import { scanPacker, segmentsOf } from '../../server/scans/queries.ts'
import { measureBesideOffice } from '../beside.ts'
import { median } from '../figures.ts'
import { startServer } from '../startServer.ts'
import {
  compareSql,
  crossedPiecesSql,
  crossedSql,
  deskSql,
  fillDuck,
  lanesSql,
  planSql,
  resultsSql,
  rowsSql,
  type Duck,
} from './duck.ts'
import { foldYear } from './foldYear.ts'
import type { Dimension } from '@flimbo/core/dimensions'
import type { Question } from '@flimbo/core/results'
import { daysBefore } from '@flimbo/core/time'
import { CAMPAIGNS, CODES, DAYS, fillScans } from './fill.ts'
import { measureReports } from './reports.ts'

const { values } = parseArgs({
  options: {
    scans: { type: 'string', default: '1000000,5000000,10000000' },
    rounds: { type: 'string', default: '7' },
  },
})
const SIZES = values.scans.split(',').map(Number)
const ROUNDS = Number(values.rounds)
const PORTS = { office: 4193, door: 4191 }
const SCANS_A_SECOND = 500
const SECONDS = 15
const DAY_MS = 86_400_000
const ZONE = 'Europe/Berlin'
const dayOf = (moment: number) => new Date(moment).toISOString().slice(0, 10)
/** What the results screen is parted by. */
const ON_SCREEN: readonly (readonly Dimension[])[] = [
  [],
  ['month'],
  ['hourOfWeek'],
  ['country'],
  ['city'],
  ['device'],
  ['system'],
  ['browser'],
  ['language'],
  ['channel'],
  ['medium'],
  ['piece'],
]

const questionsBy = (all: readonly (readonly Dimension[])[], filters: Question['filters'] = {}) =>
  all.map((by) => ({ what: 'scans' as const, by: [...by], filters, top: 200 }))
const twoYears = (start: number) => ({
  workspaceId: 1,
  within: { campaignId: 1 },
  zone: ZONE,
  from: dayOf(start + DAY_MS),
  to: dayOf(start + DAYS * DAY_MS),
  before: null,
  channels: [],
  questions: questionsBy(ON_SCREEN),
})

console.log(
  `${String(cpus().length)} cores (${cpus()[0]?.model ?? ''}), Node.js ${process.version}; ${CODES.toLocaleString('en-GB')} codes in ${String(CAMPAIGNS)} campaigns, ${String(DAYS)} days; medians of ${String(ROUNDS)}, the first of each thrown away`,
)
for (const scans of SIZES) await measure(scans)

async function measure(scans: number): Promise<void> {
  const directory = mkdtempSync(join(tmpdir(), 'flimbo-results-'))
  try {
    const file = join(directory, 'flimbo.sqlite')
    const { start, slugs } = await fillScans(file, scans)
    const database = new Sqlite(file, { readonly: true })
    const packing = pack(database)
    const duckFile = join(directory, 'duck.db')
    const duck = await fillDuck(duckFile, scans, start)
    const total = await duck.count('SELECT count(*) FROM scans WHERE apart IS NULL')
    const ask = readerQueries(database)
    const ours = [...ask.tallies('campaign', { workspace: 1 }).values()].reduce(
      (sum, { scans: n }) => sum + n,
      0,
    )
    console.log(
      `\n${scans.toLocaleString('en-GB')} scans; counted: ${ours.toLocaleString('en-GB')}, by DuckDB ${total.toLocaleString('en-GB')}`,
    )
    report(scans, statSync(file).size, bytesIn(segmentsOf(file)), statSync(duckFile).size, packing)
    readAhead(ask)
    await views(ask, duck, start)
    const days = { from: dayOf(start + DAY_MS), to: dayOf(start + DAYS * DAY_MS) }
    await measureReports((questions) => ask.answers({ ...twoYears(start), ...days, questions }), days)
    console.log(`memory of this process: ${String(process.memoryUsage().rss >> 20)} MB`)
    duck.close()
    database.close()
    foldYear(file, start + (DAYS / 2) * DAY_MS, (again) => again.answers(twoYears(start)))
    if (scans === Math.max(...SIZES)) await besideScreens(directory, slugs)
  } finally {
    rmSync(directory, { recursive: true, force: true })
  }
}

/** The front door of the largest of these databases, with nobody at the office and with fifty open screens. */
async function besideScreens(directory: string, slugs: readonly string[]): Promise<void> {
  const flimbo = await startServer('server/dist/main.js', PORTS.door, {
    ...process.env,
    NODE_ENV: 'production',
    FLIMBO_OFFICE_PORT: String(PORTS.office),
    FLIMBO_DOOR_PORT: String(PORTS.door),
    FLIMBO_DATA_DIR: directory,
    FLIMBO_TRUST_PROXY: 'loopback',
    FLIMBO_LOG_LEVEL: 'error',
  })
  try {
    await measureBesideOffice(PORTS, slugs, SCANS_A_SECOND, SECONDS, 'live screens')
  } finally {
    flimbo.kill('SIGTERM')
    await new Promise((resolve) => flimbo.once('exit', resolve))
  }
}

function pack(database: Sqlite.Database): number {
  const began = performance.now()
  const packer = scanPacker(database)
  while (packer.step().hasMore);
  packer.close()
  const took = performance.now() - began
  // Who packs next removes what was replaced.
  const next = scanPacker(database)
  next.step()
  next.close()
  return took
}

function bytesIn(directory: string): number {
  return readdirSync(directory, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .reduce((sum, entry) => sum + statSync(join(entry.parentPath, entry.name)).size, 0)
}

function report(scans: number, sqlite: number, figures: number, duck: number, packing: number): void {
  const per = (bytes: number) => (bytes / scans).toFixed(1)
  console.log(
    `bytes a scan: SQLite ${per(sqlite)} + figures ${per(figures)} = ${per(sqlite + figures)} (wanted: at most 80); DuckDB ${per(duck)}`,
  )
  console.log(
    `packing: ${(packing / 1000).toFixed(1)} s, ${((packing / scans) * 1000).toFixed(1)} µs a scan, off every scan’s way`,
  )
}

/** What the reading thread does after its start, before anybody asks. */
function readAhead(ask: ReturnType<typeof readerQueries>): void {
  const began = performance.now()
  let longest = 0
  for (let hasMore = true; hasMore;) {
    const before = performance.now()
    hasMore = ask.readAhead()
    longest = Math.max(longest, performance.now() - before)
  }
  const all = performance.now() - began
  console.log(
    `goals and their scans, read ahead: ${(all / 1000).toFixed(1)} s, the longest step ${longest.toFixed(0)} ms`,
  )
}

interface View {
  readonly name: string
  readonly ours: () => unknown
  /** The same of DuckDB; nothing where it is not asked. */
  readonly sql: readonly string[]
  readonly wanted: string
}

async function views(ask: ReturnType<typeof readerQueries>, duck: Duck, start: number): Promise<void> {
  const now = start + DAYS * DAY_MS
  const [first, last, month] = [dayOf(start + DAY_MS), dayOf(now), dayOf(now - 29 * DAY_MS)]
  const figures = { workspaceId: 1, zone: ZONE, from: first, to: last, before: null, channels: [] }
  const crossed = (by: Question['by'], filters: Question['filters']) => ({
    ...figures,
    within: { campaignId: 1 },
    questions: questionsBy([by], filters),
  })
  /** All that the screen asks at once. */
  const screen = (from: string, to: string, isCompared = false, filters: Question['filters'] = {}) => [
    ask.summary({ campaignId: 1, forWorkspace: 1, zone: ZONE, from, to }),
    ask.answers({
      ...figures,
      within: { campaignId: 1 },
      from,
      to,
      before: isCompared ? daysBefore(from, to) : null,
      questions: questionsBy(ON_SCREEN, filters),
    }),
  ]
  const year = dayOf(now - 364 * DAY_MS)
  const since = (days: number) => now - days * DAY_MS
  const all: View[] = [
    {
      name: 'Results, two years',
      ours: () => screen(first, last),
      sql: resultsSql(1, start, now, 30 * DAY_MS),
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Results, a year, compared',
      ours: () => screen(year, last, true),
      sql: [
        ...resultsSql(1, since(365), now, 30 * DAY_MS),
        ...compareSql(1, since(730), since(365), 30 * DAY_MS),
      ],
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Results, 30 days, compared',
      ours: () => screen(month, last, true),
      sql: [...resultsSql(1, since(30), now, DAY_MS), ...compareSql(1, since(60), since(30), DAY_MS)],
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Results, two years, one city',
      ours: () => screen(first, last, false, { city: ['DE\tRegion 8\tTown 8'] }),
      sql: [],
      wanted: '1 s',
    },
    {
      name: 'Results of everything, two years',
      ours: () =>
        ask.answers({
          ...figures,
          within: { workspaceId: 1 },
          questions: questionsBy(ON_SCREEN),
        }),
      sql: [],
      wanted: '1 s',
    },
    {
      name: 'Goals by day, piece, city',
      ours: () =>
        ask.answers({
          ...figures,
          within: { campaignId: 1 },
          questions: [['day'], ['piece'], ['city']].map((by) => ({
            ...{ what: 'goals' as const, by: by as Question['by'], filters: {}, top: 200 },
          })),
        }),
      sql: [],
      wanted: '400 ms',
    },
    {
      name: 'Goals of a year, compared',
      ours: () =>
        ask.answers({
          ...figures,
          within: { campaignId: 1 },
          from: year,
          before: daysBefore(year, last),
          questions: [{ what: 'goalRate', by: ['piece'], filters: {}, top: 200 }],
        }),
      sql: [],
      wanted: '400 ms',
    },
    {
      name: 'Against another campaign',
      ours: () =>
        ask.answers({
          ...figures,
          within: { campaignId: 1 },
          other: { campaignId: 2 },
          from: year,
          before: { from: year, to: last },
          questions: questionsBy([['month'], ['medium'], ['country']]),
        }),
      sql: [],
      wanted: '400 ms',
    },
    {
      name: 'Desk',
      ours: () => [
        ask.tallies('campaign', { workspace: 1 }),
        ask.recent(
          Array.from({ length: CAMPAIGNS }, (_each, i) => ({ id: i + 1, zone: ZONE })),
          14,
          Math.floor(now / 60_000),
        ),
      ],
      sql: deskSql(since(14), now),
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Plan, by scans',
      ours: () => ask.tallies('code', { campaign: 1 }),
      sql: planSql(1),
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Routes, lanes of 30 days',
      ours: () => ask.exits(3, since(30), now),
      sql: lanesSql(3, since(30), now),
      wanted: '100 ms, 0.25',
    },
    {
      name: 'Routes, lanes of two years',
      ours: () => ask.exits(3, start, now),
      sql: lanesSql(3, start, now),
      wanted: '100 ms, 0.25',
    },
    {
      name: 'City × hour, one device',
      ours: () => ask.answers(crossed(['city', 'hourOfDay'], { device: ['tablet'] })),
      sql: crossedSql(1, start, now),
      wanted: '400 ms, 1',
    },
    {
      name: 'Piece × system, one language',
      ours: () => ask.answers(crossed(['piece', 'system'], { language: ['de'] })),
      sql: crossedPiecesSql(1, start, now),
      wanted: '400 ms, 1',
    },
    ...[0, 100_000].map((offset): View => ({
      name: `Rows, 100 from ${offset.toLocaleString('en-GB')}`,
      ours: () =>
        ask.scansPage(
          { within: { campaignId: 1 }, start, end: now, counted: 'counted' },
          'desc',
          100,
          offset,
        ),
      sql: rowsSql(1, offset),
      wanted: '30 ms',
    })),
  ]
  for (const view of all) await compare(view, duck)
}

async function compare({ name, ours, sql, wanted }: View, duck: Duck): Promise<void> {
  const [mine, theirs]: [number[], number[]] = [[], []]
  let firstTime = 0
  for (let round = 0; round <= ROUNDS; round++) {
    const began = performance.now()
    ours()
    const between = performance.now()
    await duck.ask(sql)
    const ended = performance.now()
    if (round === 0) firstTime = between - began
    else {
      mine.push(between - began)
      theirs.push(ended - between)
    }
  }
  const [a, b] = [median(mine), median(theirs)]
  const beside =
    sql.length === 0 ? '' : `   DuckDB ${b.toFixed(1).padStart(7)} ms   ratio ${(a / b).toFixed(2)}`
  console.log(
    `${name.padEnd(30)} ${a.toFixed(1).padStart(7)} ms (first ${firstTime.toFixed(0)})${beside}   (wanted: ${wanted})`,
  )
}
