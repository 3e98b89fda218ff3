import type Sqlite from 'better-sqlite3'

export interface PlaceRow {
  readonly country: string
  readonly region: string
  readonly city: string
  readonly latitude: number | null
  readonly longitude: number | null
}
export interface AgentRow {
  readonly device: string
  readonly system: string
  readonly browser: string
}

/** Reads what scans name by number: rows that never change, each once. */
export function lookUps(database: Sqlite.Database) {
  return {
    placeOf: remembered<PlaceRow>(
      database.prepare('SELECT country, region, city, latitude, longitude FROM places WHERE id = ?'),
    ),
    agentOf: remembered<AgentRow>(
      database.prepare('SELECT device, system, browser FROM agents WHERE id = ?'),
    ),
  }
}

function remembered<R>(row: Sqlite.Statement): (id: number) => R | undefined {
  const known = new Map<number, R>()
  return (id) => {
    const there = known.get(id) ?? (row.get(id) as R | undefined)
    if (there) known.set(id, there)
    return there
  }
}
