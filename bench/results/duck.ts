import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api'
import { CAMPAIGNS, CODES, scansOf } from './fill.ts'

/** A column store beside ours: the same scans, and the same questions in SQL. */
export interface Duck {
  /** Runs questions one after the other and reads their answers whole. */
  ask(sql: readonly string[]): Promise<void>
  /** One number. */
  count(sql: string): Promise<number>
  close(): void
}

const COUNTED = 'apart IS NULL'

/** Fills a column store with so many scans, as `fillScans` does. */
export async function fillDuck(path: string, count: number, start: number): Promise<Duck> {
  const instance = await DuckDBInstance.create(path, { threads: '2' })
  const duck = await instance.connect()
  const each = String(Math.ceil(CODES / CAMPAIGNS))
  await duck.run(`CREATE TABLE scans (moment BIGINT, codeId INTEGER, apart VARCHAR, isUnique TINYINT, placeId SMALLINT,
    agentId SMALLINT, language VARCHAR)`)
  await duck.run(
    `CREATE TABLE codes AS SELECT (i + 1)::INTEGER AS id, (i // ${each} + 1)::INTEGER AS campaignId,
      (i // 10 + 1)::INTEGER AS routeId FROM range(${String(CODES)}) t(i)`,
  )
  await appendScans(duck, count, start)
  await duck.run(
    `CREATE TABLE places AS SELECT DISTINCT placeId AS id, 'C' || (placeId % 8) AS country, 'Town ' || placeId AS city FROM scans`,
  )
  await duck.run(
    `CREATE TABLE agents AS SELECT DISTINCT agentId AS id, 'D' || (agentId % 6) AS device, 'S' || (agentId % 5) AS system, 'B' || (agentId % 5) AS browser FROM scans`,
  )
  await duck.run('CHECKPOINT')
  return {
    async ask(sql) {
      for (const each of sql) (await duck.runAndReadAll(each)).getRows()
    },
    async count(sql) {
      return Number((await duck.runAndReadAll(sql)).getRows()[0]?.[0])
    },
    close() {
      duck.closeSync()
      instance.closeSync()
    },
  }
}

async function appendScans(duck: DuckDBConnection, count: number, start: number): Promise<void> {
  const appender = await duck.createAppender('scans')
  for (const { at, codeId, apart, isUnique, placeId, agentId, language } of scansOf(count, start)) {
    appender.appendBigInt(BigInt(at))
    appender.appendInteger(codeId)
    if (apart === null) appender.appendNull()
    else appender.appendVarchar(apart)
    appender.appendTinyInt(isUnique)
    appender.appendSmallInt(placeId)
    appender.appendSmallInt(agentId)
    appender.appendVarchar(language)
    appender.endRow()
  }
  appender.closeSync()
}

const between = (start: number, end: number) => `moment >= ${String(start)} AND moment < ${String(end)}`
const SUMS = 'count(*), sum(isUnique)'
const inCampaign = (id: number) => `codeId IN (SELECT id FROM codes WHERE campaignId = ${String(id)})`

/** What the results screen asks of a campaign: totals, buckets, places, agents, languages, pieces and what is apart. */
export function resultsSql(campaign: number, start: number, end: number, bucketMs: number): string[] {
  const which = `${inCampaign(campaign)} AND ${between(start, end)}`
  const counted = `${which} AND ${COUNTED}`
  return [
    `SELECT ${SUMS}, max(moment) FROM scans WHERE ${counted}`,
    `SELECT ${SUMS}, max(moment) FROM scans WHERE ${inCampaign(campaign)} AND ${COUNTED}`,
    `SELECT moment // ${String(bucketMs)} AS b, ${SUMS} FROM scans WHERE ${counted} GROUP BY b`,
    `SELECT p.country, p.city, ${SUMS} FROM scans s JOIN places p ON p.id = s.placeId WHERE ${counted} GROUP BY ALL`,
    `SELECT a.device, a.system, a.browser, ${SUMS} FROM scans s JOIN agents a ON a.id = s.agentId WHERE ${counted} GROUP BY ALL`,
    `SELECT language, ${SUMS} FROM scans WHERE ${counted} GROUP BY ALL`,
    `SELECT codeId, ${SUMS}, max(moment) FROM scans WHERE ${counted} GROUP BY ALL`,
    `SELECT apart, count(*) FROM scans WHERE ${which} AND apart IS NOT NULL GROUP BY ALL`,
  ]
}

/** What a comparison adds: the same days before. */
export const compareSql = (campaign: number, start: number, end: number, bucketMs: number): string[] => [
  `SELECT ${SUMS}, max(moment) FROM scans WHERE ${inCampaign(campaign)} AND ${between(start, end)} AND ${COUNTED}`,
  `SELECT moment // ${String(bucketMs)} AS b, ${SUMS} FROM scans WHERE ${inCampaign(campaign)} AND ${between(start, end)} AND ${COUNTED} GROUP BY b`,
]

export const deskSql = (start: number, end: number): string[] => [
  `SELECT c.campaignId, ${SUMS}, max(moment) FROM scans s JOIN codes c ON c.id = s.codeId WHERE ${COUNTED} GROUP BY ALL`,
  `SELECT c.campaignId, moment // 86400000 AS day, ${SUMS} FROM scans s JOIN codes c ON c.id = s.codeId WHERE ${COUNTED} AND ${between(start, end)} GROUP BY ALL`,
]

export const planSql = (campaign: number): string[] => [
  `SELECT codeId, ${SUMS}, max(moment) FROM scans WHERE ${inCampaign(campaign)} AND ${COUNTED} GROUP BY ALL`,
]

export const lanesSql = (route: number, start: number, end: number): string[] => [
  `SELECT ${SUMS} FROM scans s JOIN codes c ON c.id = s.codeId WHERE c.routeId = ${String(route)} AND ${between(start, end)} AND ${COUNTED}`,
]

export const crossedSql = (campaign: number, start: number, end: number): string[] => [
  `SELECT p.city, moment // 3600000 % 24 AS hour, ${SUMS} FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId
    WHERE ${inCampaign(campaign)} AND ${between(start, end)} AND ${COUNTED} AND a.device = 'D1' GROUP BY ALL`,
]
export const crossedPiecesSql = (campaign: number, start: number, end: number): string[] => [
  `SELECT codeId, a.system, ${SUMS} FROM scans s JOIN agents a ON a.id = s.agentId
    WHERE ${inCampaign(campaign)} AND ${between(start, end)} AND ${COUNTED} AND language = 'de-DE' GROUP BY ALL`,
]

export const rowsSql = (campaign: number, offset: number): string[] => [
  `SELECT * FROM scans WHERE ${inCampaign(campaign)} AND ${COUNTED} ORDER BY moment DESC LIMIT 100 OFFSET ${String(offset)}`,
]
