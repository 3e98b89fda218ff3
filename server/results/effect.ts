import type Sqlite from 'better-sqlite3'
import {
  compileCode,
  compileRoute,
  decide,
  leadsWhere,
  plainArrival,
  withoutQuery,
  type CompiledCode,
  type Effect,
  type RouteSettings,
} from '@flimbo/core/routing'
import type { DeviceType } from '@flimbo/core/scans'
import { EVER, type FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { decidedBy } from './exits.ts'
import { latestOf } from './matching.ts'

/** A route as it is and as it is to be, with the routes its lanes lead on to. */
export interface EffectQuestion {
  readonly routeId: number
  readonly was: RouteSettings
  readonly is: RouteSettings
  readonly others: readonly (readonly [id: number, settings: RouteSettings])[]
  readonly latest: number
}

interface ScanRow {
  at: number
  isUnique: number
  language: string
  visitor: string
  codeId: number
  country: string
  region: string
  city: string
  latitude: number | null
  longitude: number | null
  device: DeviceType
  system: string
  systemVersion: string
  browser: string
}
interface CodeRow {
  id: number
  slug: string
  name: string
  medium: string
  source: string
  term: string
  content: string
  otherwise: string
  latitude: number | null
  longitude: number | null
  campaign: string
}

const PLACES_NAMED = 3
const EVERY_CODE = { codes: 'all', key: null } as const

/**
 * Decides the latest real scans of a route again, under what is live and under what is to be, and sums up who
 * would go elsewhere. Of a stored scan its first language is known and no query; passwords count as given,
 * places as not told, and limits as not reached.
 */
export function effect(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const scanOf =
    database.prepare(`SELECT s.at, s.isUnique, s.language, s.visitor, s.codeId, p.country, p.region, p.city, p.latitude, p.longitude, a.device, a.system, a.systemVersion, a.browser
    FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId WHERE s.id = ?`)
  const codeOf = database.prepare(
    'SELECT c.id, c.slug, c.name, c.medium, c.source, c.term, c.content, c.otherwise, c.latitude, c.longitude, k.utmCampaign AS campaign FROM codes c JOIN campaigns k ON k.id = c.campaignId WHERE c.id = ?',
  )

  return ({ routeId, was, is, others, latest }: EffectQuestion): Omit<Effect, 'broken' | 'changes'> => {
    const led = new Map(others)
    const find = (id: number) => led.get(id) ?? null
    const live = compileRoute({ ...was, locked: false }, find)
    const next = compileRoute({ ...is, locked: false }, find)
    const codes = new Map<number, CompiledCode>()
    const codeFor = (id: number) => {
      const known = codes.get(id) ?? compiledCode(codeOf.get(id) as CodeRow)
      codes.set(id, known)
      return known
    }
    const ways = { group: routeId, isWanted: decidedBy(routeId, ({ apart }) => apart === null) }
    const sought = { owner: EVERY_CODE, span: EVER, counted: 'counted', ways } as const
    const rows = latestOf(scans, sought, latest).map((id) => scanOf.get(id) as ScanRow)
    const moved = new Map<string, { was: string; is: string; scans: number; places: Map<string, number> }>()
    for (const row of rows) {
      const code = codeFor(row.codeId)
      const arrival = plainArrival(row.at, {
        place: row,
        device: {
          type: row.device,
          system: row.system,
          systemVersion: row.systemVersion,
          browser: row.browser,
        },
        languages: row.language === '' ? [] : [row.language],
        visitor: row.visitor,
        repeat: row.isUnique === 0,
        precise: 'refused',
      })
      const [before, after] = [live, next].map((route) => leadsWhere(decide({ code, route }, arrival))) as [
        string,
        string,
      ]
      if (before === after) continue
      // What a code adds to a query is the same on both sides; addresses that it alone tells apart are summed up by page.
      const [from, page] = [withoutQuery(before), withoutQuery(after)]
      const to = from === page ? `${page} with another query` : page
      const key = `${from} ${to}`
      const group = moved.get(key) ?? { was: from, is: to, scans: 0, places: new Map<string, number>() }
      const place = row.city === '' ? row.country : `${row.city} (${row.country})`
      group.scans++
      group.places.set(place, (group.places.get(place) ?? 0) + 1)
      moved.set(key, group)
    }
    const groups = [...moved.values()].sort((a, b) => b.scans - a.scans)
    return {
      scans: rows.length,
      elsewhere: groups.reduce((sum, { scans }) => sum + scans, 0),
      moved: groups.map(({ places, ...group }) => ({
        ...group,
        places: [...places]
          .filter(([place]) => place !== '')
          .sort(([, a], [, b]) => b - a)
          .slice(0, PLACES_NAMED)
          .map(([place]) => place),
      })),
    }
  }
}

function compiledCode({
  slug,
  name,
  medium,
  source,
  term,
  content,
  campaign,
  otherwise,
  latitude,
  longitude,
}: CodeRow): CompiledCode {
  const place = latitude === null || longitude === null ? null : { latitude, longitude }
  return compileCode({
    state: 'live',
    utm: { source, medium, term, content, campaign },
    slug,
    label: name,
    place,
    otherwise,
  })
}
