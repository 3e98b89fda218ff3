import { dayIn, startOfDay } from '@flimbo/core/time'
import type { EntityManager } from 'typeorm'
import type { Life, Rules, Taken } from '@flimbo/core/routing'
import { countLetThrough, type LetThrough } from '../results/index.ts'
import type { LimitCount } from './take.ts'

interface Row extends LimitCount {
  routeId: number
  countedFrom: number
  zone: string
}

/** Whether a route lets only so many through. */
export function isLimited(life: Life | null): life is Life {
  return life !== null && (life.limit !== null || life.daily !== null)
}

/**
 * Makes the counts of a route follow its rules, in the transaction that changes them: from then on every commit of a
 * scan takes one from them. Changed numbers go on counting; a limit that is new begins with what was stored since it
 * counts, and today.
 *
 * @param letThrough how many it let through today, counted before the transaction: see `countLetThrough`
 */
export async function storeLimit(
  manager: EntityManager,
  routeId: number,
  { life }: Pick<Rules, 'life'>,
  at: number,
  letThrough: LetThrough | null,
): Promise<void> {
  if (!isLimited(life)) {
    await manager.query('DELETE FROM limits WHERE routeId = ?', [routeId])
    return
  }
  const { zone, countedFrom, limit, daily } = life
  const [there] = await manager.query<Row[]>('SELECT * FROM limits WHERE routeId = ?', [routeId])
  if (there?.countedFrom === countedFrom && there.zone === zone) {
    await manager.query('UPDATE limits SET maxTotal = ?, maxDaily = ? WHERE routeId = ?', [
      limit,
      daily,
      routeId,
    ])
    return
  }
  const today = await countLetThrough(manager, routeId, startOfDay(zone, dayIn(zone, at)), letThrough)
  if (there?.countedFrom === countedFrom) await writeLimit(manager, routeId, life, at, there.total, today)
  else {
    const total = countedFrom >= at ? 0 : await countLetThrough(manager, routeId, countedFrom)
    await writeLimit(manager, routeId, life, at, total, today)
  }
}

async function writeLimit(
  manager: EntityManager,
  routeId: number,
  { zone, countedFrom, limit, daily }: Life,
  at: number,
  total: number,
  today: number,
): Promise<void> {
  await manager.query(
    'INSERT OR REPLACE INTO limits (routeId, countedFrom, zone, maxTotal, maxDaily, total, day, today) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [routeId, countedFrom, zone, limit, daily, total, dayIn(zone, at), today],
  )
}

/** The same for routes that were just made: nothing was let through yet. */
export async function storeLimits(
  manager: EntityManager,
  routes: readonly { readonly id: number; readonly rules: Pick<Rules, 'life'> }[],
  at: number,
): Promise<void> {
  for (const { id, rules } of routes)
    if (isLimited(rules.life)) await writeLimit(manager, id, rules.life, at, 0, 0)
}

/** Counts anew, from what is stored, what every limited route has let through. */
export async function recountLimits(manager: EntityManager, now: number): Promise<void> {
  for (const { routeId, zone, countedFrom } of await manager.query<Row[]>('SELECT * FROM limits')) {
    const day = dayIn(zone, now)
    const [total, today] = [
      await countLetThrough(manager, routeId, countedFrom),
      await countLetThrough(manager, routeId, startOfDay(zone, day)),
    ]
    await manager.query('UPDATE limits SET total = ?, day = ?, today = ? WHERE routeId = ?', [
      total,
      day,
      today,
      routeId,
    ])
  }
}

/** What of a count is taken on a day of the limits' zone. */
export function takenOn({ total, day, today }: LimitCount, current: string): Taken {
  return { total, today: day >= current ? today : 0 }
}

/** How many scans limited routes have let through: since their limits count, and on the day of `now`. */
export async function takenOf(
  read: EntityManager,
  routeIds: readonly number[],
  now: number,
): Promise<Map<number, Taken>> {
  const rows = await read.query<Row[]>(
    'SELECT * FROM limits WHERE routeId IN (SELECT value FROM json_each(?))',
    [JSON.stringify(routeIds)],
  )
  return new Map(rows.map((row) => [row.routeId, takenOn(row, dayIn(row.zone, now))]))
}
