import { dayIn, shiftDay, startOfDay } from '@flimbo/core/time'
import { forecastLimit, type Route, type WholeRoute } from '@flimbo/core/routing'
import { tables, type Database, type RouteRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { takenOf } from '../scans/index.ts'
import { loadLaneSets, sharedLanes } from './references.ts'

const PACE_DAYS = 14
const DAY_MS = 86_400_000

interface Parts {
  readonly database: Database
  readonly reader: Reader
}

/** Gives one route with everything it does. */
export function wholeRoutes(
  { database: { read }, reader }: Parts,
  counted: (row: RouteRow) => Promise<Route>,
) {
  return async (id: number): Promise<WholeRoute> => {
    const row = await read.findOneByOrFail(tables.routes, { id })
    const {
      rules: { life },
      draft,
    } = row
    const now = Date.now()
    const taken = (await takenOf(read, [id], now)).get(id) ?? null
    const sets = await loadLaneSets(read, [row.rules])
    const by = draft && (await read.findOneBy(tables.people, { id: draft.personId }))
    return {
      ...(await counted(row)),
      rules: row.rules,
      sharedLanes: sharedLanes(row.rules, sets),
      locked: row.passwordHash !== '',
      draft: draft && {
        destination: draft.destination,
        rules: draft.rules,
        at: draft.at,
        by: by?.name ?? 'someone who left',
      },
      draftVersion: row.draftVersion,
      expectations: row.expectations,
      taken,
      forecast:
        life !== null && life.limit !== null && taken
          ? await forecast(reader, id, life.zone, life.limit - taken.total, now)
          : null,
    }
  }
}

/** When a limit will be reached, from the scans of the last two weeks. */
export async function forecast(
  reader: Reader,
  routeId: number,
  zone: string,
  remaining: number,
  now: number,
): Promise<WholeRoute['forecast']> {
  if (remaining <= 0) return null
  const today = dayIn(zone, now)
  const starts = Array.from({ length: PACE_DAYS + 1 }, (_, i) =>
    startOfDay(zone, shiftDay(today, i - PACE_DAYS)),
  )
  const daily = await reader.ask('letThroughDaily', routeId, starts)
  // The days before the first scan are no pace at all.
  const found = forecastLimit(
    daily.slice(
      Math.max(
        0,
        daily.findIndex((scans) => scans > 0),
      ),
    ),
    remaining,
  )
  if (!found) return null
  const at = (days: number) => Math.round(now + days * DAY_MS)
  return {
    expected: at(found.expected),
    earliest: at(found.earliest),
    latest: Number.isFinite(found.latest) ? at(found.latest) : null,
  }
}
