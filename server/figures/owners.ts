import type Sqlite from 'better-sqlite3'
import type { Columns } from '@flimbo/core/figures'
import { ownerKey } from './part.ts'

interface Home {
  readonly id: number
  readonly campaignId: number
  readonly routeId: number
}
const AT_ONCE = 500

/** Campaigns, routes and codes that have facts in some columns, as codes belong now: by their keys, with those codes. */
export function ownersIn(
  database: Sqlite.Database,
  { codes }: Pick<Columns, 'codes'>,
): Map<string, Set<number>> {
  const owners = new Map<string, Set<number>>()
  const add = (key: string, code: number) => {
    const own = owners.get(key) ?? new Set<number>()
    own.add(code)
    owners.set(key, own)
  }
  const homes = homesOf(database, codes)
  for (const code of codes) {
    add(ownerKey('code', code), code)
    const home = homes.get(code)
    if (!home) continue
    add(ownerKey('route', home.routeId), code)
    add(ownerKey('campaign', home.campaignId), code)
  }
  return owners
}

/** Where some codes belong now. */
function homesOf(database: Sqlite.Database, codes: Uint32Array): Map<number, Home> {
  const find = database.prepare(
    'SELECT id, campaignId, routeId FROM codes WHERE id IN (SELECT value FROM json_each(?))',
  )
  const homes = new Map<number, Home>()
  for (let i = 0; i < codes.length; i += AT_ONCE)
    for (const home of find.all(JSON.stringify([...codes.subarray(i, i + AT_ONCE)])) as Home[])
      homes.set(home.id, home)
  return homes
}
