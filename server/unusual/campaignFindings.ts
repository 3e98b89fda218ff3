import {
  programWave,
  stoppedPieces,
  unexpectedCountries,
  unusualDays,
  type CampaignDays,
  type Finding,
  type PieceDays,
} from '@flimbo/core/unusual'
import { timeKey } from '@flimbo/core/dimensions'
import type { Question } from '@flimbo/core/results'
import { buckets, clockFace, dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import { tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'

/** Sixteen weeks make a forecast, and how far forecasts were off. */
const DAYS = 112
/** Where nothing was scanned for so long, each piece was missed when it stopped. */
const LATELY_DAYS = 28
const CRAWLER_DAYS = 15
/** The days that a country is known from, before the latest two. */
const COUNTRY_DAYS = 56
/** Pieces that are looked at one by one, the most scanned: others have too few scans to be missed. */
const PIECES = 150

const question = (by: Question['by'], more: Partial<Question> = {}): Question => ({
  what: 'scans',
  by,
  filters: {},
  top: 500,
  ...more,
})

/** Looks one campaign over: its days, its pieces, where its scans come from, and the programs that ask for it. */
export async function campaignFindings(
  { read }: Pick<Database, 'read'>,
  reviewer: Reader,
  { id: campaignId, workspaceId, zone, endsOn }: CampaignRow,
  now: number,
): Promise<Finding[]> {
  const today = dayIn(zone, now)
  const yesterday = shiftDay(today, -1)
  const common = { workspaceId, within: { campaignId }, zone, to: today, before: null, channels: [] }
  const season = { ...common, from: shiftDay(today, -DAYS) }
  const [byDay, byHour, byPiece] = await reviewer.ask('answers', {
    ...season,
    questions: [question(['day']), question(['hourOfDay']), question(['piece'], { top: PIECES })],
  })
  const days = (byDay?.rows ?? []).map(({ scans }) => scans)
  if (days.slice(-LATELY_DAYS).every((scans) => scans === 0)) return []

  async function lastHour(): Promise<CampaignDays['lastHour']> {
    const [whole] = buckets(zone, spanOfDays(zone, today, today), 'hour')
      .filter(({ end }) => end <= now)
      .slice(-1)
    if (!whole) return null
    const [found] = await reviewer.ask('answers', { ...common, from: today, questions: [question(['hour'])] })
    const key = timeKey(zone, 'hour', whole.start)
    const scans = found?.rows.find(({ keys }) => keys[0] === key)?.scans ?? 0
    return { hour: Math.floor(clockFace(zone, whole.start).minute / 60), scans }
  }

  async function pieceDays(): Promise<PieceDays[]> {
    const ids = (byPiece?.rows ?? []).flatMap(({ keys: [key] }) => (key === undefined ? [] : [key]))
    if (ids.length === 0) return []
    const [found] = await reviewer.ask('answers', {
      ...season,
      questions: [question(['piece', 'day'], { filters: { piece: ids } })],
    })
    const scans = new Map((found?.rows ?? []).map((row) => [row.keys.join(' '), row.scans]))
    const codes = await read.find(tables.codes, { select: { id: true, state: true }, where: { campaignId } })
    const live = new Set(codes.flatMap(({ id, state }) => (state === 'live' ? [String(id)] : [])))
    return ids.map((id) => ({
      codeId: Number(id),
      days: dates.map((day) => scans.get(`${id} ${day}`) ?? 0),
      isLive: live.has(id),
    }))
  }

  async function countries() {
    const before = { from: shiftDay(today, -1 - COUNTRY_DAYS), to: shiftDay(today, -2) }
    const [found] = await reviewer.ask('answers', {
      ...{ ...common, from: yesterday, before },
      questions: [question(['country'])],
    })
    const counts = (found?.rows ?? []).map(({ keys: [country = ''], scans, before: then }) => ({
      country,
      latest: scans,
      earlier: then?.scans ?? 0,
    }))
    // Countries that scanned before and do not now are in the total alone.
    const known = counts.reduce((sum, { earlier }) => sum + earlier, 0)
    return [...counts, { country: '', latest: 0, earlier: (found?.total.before?.scans ?? 0) - known }]
  }

  const dates = (byDay?.rows ?? []).map(({ keys: [day = ''] }) => day)
  const hours = (byHour?.rows ?? []).map(({ scans }) => scans)
  const found = unusualDays({ today, yesterday, days, byHour: hours, lastHour: await lastHour() })
  // Of a campaign that is over nothing is missed.
  const isOver = endsOn !== null && endsOn < yesterday
  const minute = Math.floor(now / 60_000)
  return [
    ...found.filter(({ kind }) => !isOver || kind !== 'below'),
    ...(isOver ? [] : stoppedPieces(await pieceDays(), dates)),
    ...unexpectedCountries(await countries(), today),
    ...programWave(await reviewer.ask('crawlerDays', { campaignId }, zone, CRAWLER_DAYS, minute), today),
  ]
}
