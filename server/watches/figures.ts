import { NO_SCANS } from '@flimbo/core/scans'
import { buckets, dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import type { Watched } from '@flimbo/core/watches'
import type { WatchRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { figuresAsked, plainQuestion, type WatchedThing } from './things.ts'

const DAY_MS = 86_400_000
/** Stretches of 24 hours that the latest is compared with. */
const DAYS = 28

/** Everything that was counted of what is watched, but by day. */
async function tallyOf(reader: Reader, { of, refId }: WatchRow) {
  const among = { campaign: { campaign: refId }, route: { route: refId }, code: { codes: [refId] } }[of]
  return (await reader.ask('tallies', of, among)).get(refId) ?? NO_SCANS
}

/** Scans by stretches of 24 hours that end now, the latest first, back to the first scan there was. */
async function stretchesOf(
  reader: Reader,
  watch: WatchRow,
  thing: WatchedThing,
  now: number,
): Promise<number[]> {
  const { zone } = thing.campaign
  const to = dayIn(zone, now)
  const from = shiftDay(to, -DAYS - 1)
  const [byHour] = await reader.ask('answers', {
    ...figuresAsked(watch, thing),
    from,
    to,
    before: null,
    questions: [plainQuestion('hour')],
  })
  // Every hour is there, in its order.
  const hours = buckets(zone, spanOfDays(zone, from, to), 'hour').map(({ start }, i) => ({
    start,
    scans: byHour?.rows[i]?.scans ?? 0,
  }))
  const first = hours.find(({ scans }) => scans > 0)?.start ?? now
  const count = Math.min(DAYS + 1, Math.floor((now - first) / DAY_MS) + 1)
  const sums = Array.from({ length: count }, () => 0)
  for (const { start, scans } of hours) {
    const place = Math.floor((now - 1 - start) / DAY_MS)
    if (place >= 0 && place < count) sums[place] = (sums[place] ?? 0) + scans
  }
  return sums
}

/** What a watch is judged by. */
export async function figuresOf(
  reader: Reader,
  watch: WatchRow,
  thing: WatchedThing,
  now: number,
): Promise<Watched> {
  const { scans, lastAt } = await tallyOf(reader, watch)
  const [latest = 0, ...before] = watch.what === 'spike' ? await stretchesOf(reader, watch, thing, now) : []
  return { now, total: scans, lastAt, isLive: thing.isLive, latest, before }
}
