import type Sqlite from 'better-sqlite3'
import { allLanes, lanesOfSet, type Lane, type Rules } from '@flimbo/core/routing'

/** A route as it is live, with the lanes of the set it uses among its own. */
export interface LiveRoute {
  readonly name: string
  readonly destination: string
  readonly rules: Rules
  readonly lanes: readonly Lane[]
}

interface RouteRow {
  readonly name: string
  readonly destination: string
  readonly rules: string
}

/** Reads routes with their lanes; null where one is gone. */
export function routeLanes(database: Sqlite.Database): (routeId: number) => LiveRoute | null {
  const routeOf = database.prepare('SELECT name, destination, rules FROM routes WHERE id = ?')
  const setOf = database.prepare('SELECT lanes FROM lane_sets WHERE id = ?').pluck()
  return (routeId) => {
    const row = routeOf.get(routeId) as RouteRow | undefined
    if (!row) return null
    // They were rules when they were stored.
    const rules = JSON.parse(row.rules) as Rules
    const stored = rules.shared ? (setOf.get(rules.shared.setId) as string | undefined) : undefined
    const ofSet = rules.shared && stored ? lanesOfSet(rules.shared.setId, JSON.parse(stored) as Lane[]) : []
    return { name: row.name, destination: row.destination, rules, lanes: allLanes(rules, ofSet) }
  }
}
