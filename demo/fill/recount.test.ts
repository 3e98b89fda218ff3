import { createPrivateKey, X509Certificate } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api'
import { en, Faker } from '@faker-js/faker'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '@flimbo/server/database'
import type { Dimension } from '@flimbo/core/dimensions'
import { dayIn } from '@flimbo/core/time'
import { readerQueries } from '../../server/reader/queries.ts'
import { ZONE } from './calendar.ts'
import { fillGoals } from './goals.ts'
import { fillObjects } from './objects.ts'
import { fillScans } from './scans.ts'

// The sample scenario, counted by Flimbo and, from its rows, by DuckDB (https://duckdb.org), a general-purpose column store.
const NOW = Date.parse('2026-07-20T12:00:00Z')
const SCALE = 0.15
let directory: string
let flimbo: Sqlite.Database
let duck: DuckDBConnection

beforeAll(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-recount-'))
  const file = join(directory, 'flimbo.sqlite')
  const database = await openDatabase(file)
  const faker = new Faker({ locale: en, seed: 1 })
  await fillObjects(database, faker, NOW, join(directory, 'files'))
  await fillScans(database, faker, NOW, SCALE)
  await fillGoals(database, faker, NOW)
  await database.close()
  flimbo = new Sqlite(file, { readonly: true })
  const instance = await DuckDBInstance.create(':memory:')
  duck = await instance.connect()
  await duck.run(`CREATE TABLE scans (moment BIGINT, campaign INTEGER, code INTEGER, route INTEGER, apart VARCHAR, first INTEGER,
    country VARCHAR, city VARCHAR, device VARCHAR, browser VARCHAR, language VARCHAR, exit VARCHAR, variant VARCHAR, medium VARCHAR, home INTEGER)`)
  const rows = flimbo
    .prepare(
      `SELECT s.at, c.campaignId, s.codeId, s.routeId, s.apart, s.isUnique, p.country, p.region || '/' || p.city, a.device, a.browser,
        s.language, s.exit, s.variant, c.medium, c.routeId
      FROM scans s JOIN codes c ON c.id = s.codeId JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId`,
    )
    .raw()
    .all() as (string | number | null)[][]
  await append('scans', rows)
  // Leads and goals are counted where their piece is now, as scans are.
  await duck.run(`CREATE TABLE reached (moment BIGINT, campaign INTEGER, code INTEGER, medium VARCHAR, country VARCHAR,
    device VARCHAR, lead INTEGER, arrival INTEGER, goal INTEGER, milli INTEGER)`)
  await append(
    'reached',
    flimbo
      .prepare(
        `SELECT e.at, c.campaignId, e.codeId, c.medium, e.country, e.device, 0, e.goalId = 0, e.goalId > 0, e.valueMilli
        FROM goal_events e JOIN codes c ON c.id = e.codeId WHERE e.apart = ''
        UNION ALL SELECT l.at, c.campaignId, l.codeId, c.medium, l.country, l.device, 1, 0, 0, 0
        FROM leads l JOIN codes c ON c.id = l.codeId WHERE l.held = '' AND l.apart = ''`,
      )
      .raw()
      .all() as (string | number | null)[][],
  )
}, 60_000)
afterAll(() => {
  duck.closeSync()
  flimbo.close()
  rmSync(directory, { recursive: true, force: true })
})

/** Puts rows into a table of DuckDB; the first of each is a moment. */
async function append(table: string, rows: readonly (string | number | null)[][]): Promise<void> {
  const appender = await duck.createAppender(table)
  for (const [moment, ...others] of rows) {
    appender.appendBigInt(BigInt(moment ?? 0))
    for (const value of others)
      if (value === null) appender.appendNull()
      else if (typeof value === 'number') appender.appendInteger(value)
      else appender.appendVarchar(value)
    appender.endRow()
  }
  appender.closeSync()
}

type Row = (string | number)[]
async function count(sql: string): Promise<Row[]> {
  const rows = (await duck.runAndReadAll(sql)).getRows()
  return rows.map((row) => row.map((value) => (typeof value === 'string' ? value : Number(value))))
}
const sorted = (rows: readonly Row[]) => rows.map((row) => row.join(' ')).sort()
const ASKED = { workspaceId: 1, before: null, channels: [] }

describe('the sample scenario', () => {
  it('is counted to the unit as DuckDB counts its rows: periods, days of the zone, pieces, places, devices, languages', async () => {
    const ask = readerQueries(flimbo)
    const campaigns = flimbo.prepare('SELECT id FROM campaigns').pluck().all() as number[]
    expect(campaigns.length).toBeGreaterThanOrEqual(4)
    const [from, to] = ['2026-03-01', dayIn(ZONE, NOW)]
    const local = `timezone('${ZONE}', epoch_ms(moment) AT TIME ZONE 'UTC')`
    const day = `strftime(${local}, '%Y-%m-%d')`
    let scans = 0
    for (const campaignId of campaigns) {
      const of = { campaignId, zone: ZONE, from, to }
      const inPeriod = `campaign = ${String(campaignId)} AND ${day} BETWEEN '${from}' AND '${to}'`
      // As another engine tells them, from the rows.
      const sql: readonly (readonly [Dimension, string])[] = [
        ['day', day],
        ['week', `strftime(${local}, '%G-W%V')`],
        ['month', `strftime(${local}, '%Y-%m')`],
        ['hourOfDay', `strftime(${local}, '%H')`],
        ['hourOfWeek', `strftime(${local}, '%u-%H')`],
        ['piece', 'code'],
        ['medium', 'medium'],
        ['route', 'home'],
        ['country', 'country'],
        ['city', "CASE WHEN city LIKE '%/' THEN '' ELSE country || chr(9) || replace(city, '/', chr(9)) END"],
        ['device', 'device'],
        ['browser', 'browser'],
        ['language', "split_part(language, '-', 1)"],
        ['lane', "CASE exit WHEN '' THEN '' ELSE route || chr(9) || exit END"],
      ]
      const answers = ask.answers({
        ...ASKED,
        ...of,
        within: { campaignId },
        questions: sql.map(([dimension]) => ({ what: 'scans', by: [dimension], filters: {}, top: 2000 })),
      })
      for (const [i, [dimension, expression]] of sql.entries()) {
        const counted = await count(
          `SELECT ${expression}, count(*), sum(first) FROM scans WHERE ${inPeriod} AND apart IS NULL GROUP BY ALL`,
        )
        const shown = (answers[i]?.rows ?? []).filter((row) => row.scans > 0)
        expect([dimension, sorted(shown.map((row) => [...row.keys, row.scans, row.uniques]))]).toEqual([
          dimension,
          sorted(counted),
        ])
      }
      scans += answers[0]?.total.scans ?? 0
      const { apart } = ask.summary({ forWorkspace: 1, ...of })
      expect(sorted(apart.map(({ kind, requests }) => [kind, requests]))).toEqual(
        sorted(
          await count(
            `SELECT apart, count(*) FROM scans WHERE ${inPeriod} AND apart IS NOT NULL GROUP BY ALL`,
          ),
        ),
      )
    }
    expect(scans).toBeGreaterThan(1000)
  })

  it('has leads, arrivals, goals and their worth as DuckDB sums them up, to the thousandth', async () => {
    const ask = readerQueries(flimbo)
    const [from, to] = ['2026-03-01', dayIn(ZONE, NOW)]
    const local = `timezone('${ZONE}', epoch_ms(moment) AT TIME ZONE 'UTC')`
    const day = `strftime(${local}, '%Y-%m-%d')`
    const sql: readonly (readonly [Dimension, string])[] = [
      ['day', day],
      ['hourOfWeek', `strftime(${local}, '%u-%H')`],
      ['piece', 'code'],
      ['medium', 'medium'],
      ['country', 'country'],
      ['device', 'device'],
    ]
    const sums = { leads: 0, arrivals: 0, goals: 0 }
    for (const campaignId of flimbo.prepare('SELECT id FROM campaigns').pluck().all() as number[]) {
      const answers = ask.answers({
        ...ASKED,
        ...{ within: { campaignId }, zone: ZONE, from, to },
        questions: sql.map(([dimension]) => ({ what: 'goals', by: [dimension], filters: {}, top: 2000 })),
      })
      for (const [i, [dimension, expression]] of sql.entries()) {
        const counted = await count(
          `SELECT ${expression}, sum(lead), sum(arrival), sum(goal), sum(milli) FROM reached
          WHERE campaign = ${String(campaignId)} AND ${day} BETWEEN '${from}' AND '${to}' GROUP BY ALL`,
        )
        const shown = (answers[i]?.rows ?? []).filter(
          ({ leads, arrivals, goals }) => leads + arrivals + goals > 0,
        )
        expect([
          dimension,
          sorted(
            shown.map(({ keys, leads, arrivals, goals, value }) => [
              ...keys,
              leads,
              arrivals,
              goals,
              Math.round(value * 1000),
            ]),
          ),
        ]).toEqual([dimension, sorted(counted)])
      }
      const { leads = 0, arrivals = 0, goals = 0 } = answers[0]?.total ?? {}
      sums.leads += leads
      sums.arrivals += arrivals
      sums.goals += goals
    }
    for (const sum of Object.values(sums)) expect(sum).toBeGreaterThan(20)
  })

  it('is counted to the unit by the ways scans left each route, and by two things at once', async () => {
    const ask = readerQueries(flimbo)
    for (const routeId of flimbo.prepare('SELECT id FROM routes').pluck().all() as number[])
      expect(
        sorted(
          ask
            .exits(routeId, 0, NOW)
            .map(({ exit, variant, scans, uniques }) => [exit, variant, scans, uniques]),
        ),
      ).toEqual(
        sorted(
          await count(`SELECT exit, variant, count(*), sum(first) FROM scans
            WHERE route = ${String(routeId)} AND (apart IS NULL OR apart = 'onward') AND exit <> '' GROUP BY ALL`),
        ),
      )
    const [answer] = ask.answers({
      ...ASKED,
      within: { campaignId: 1 },
      zone: ZONE,
      from: '2026-01-01',
      to: dayIn(ZONE, NOW),
      questions: [{ what: 'scans', by: ['country', 'hourOfDay'], filters: { device: ['phone'] }, top: 2000 }],
    })
    const cells = (answer?.rows ?? []).filter((row) => row.scans > 0)
    const local = `timezone('${ZONE}', epoch_ms(moment) AT TIME ZONE 'UTC')`
    expect(sorted(cells.map(({ keys, scans, uniques }) => [...keys, scans, uniques]))).toEqual(
      sorted(
        await count(`SELECT country, strftime(${local}, '%H'), count(*), sum(first) FROM scans
          WHERE campaign = 1 AND device = 'phone' AND apart IS NULL AND strftime(${local}, '%Y-%m-%d') >= '2026-01-01' GROUP BY ALL`),
      ),
    )
  })
})

describe('the certificate for wallet passes', () => {
  it('is the one its key is of, and was issued by its authority, as another library reads them', () => {
    const value = flimbo
      .prepare("SELECT value FROM settings WHERE section = 'wallet'")
      .pluck()
      .get() as string
    const { wallet } = JSON.parse(value) as {
      wallet: { certificate: string; key: string; authority: string }
    }
    const [own, authority] = [new X509Certificate(wallet.certificate), new X509Certificate(wallet.authority)]
    expect(own.checkPrivateKey(createPrivateKey(wallet.key))).toBe(true)
    expect([own.checkIssued(authority), own.verify(authority.publicKey), authority.ca]).toEqual([
      true,
      true,
      true,
    ])
    expect(own.subject).toContain('CN=pass.example.saltmarsh')
  })
})
