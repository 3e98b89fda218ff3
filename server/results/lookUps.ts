import type Sqlite from 'better-sqlite3'
import { rememberedRows } from '../sqlite/index.ts'

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
    placeOf: rememberedRows<PlaceRow>(
      database.prepare('SELECT country, region, city, latitude, longitude FROM places WHERE id = ?'),
    ),
    agentOf: rememberedRows<AgentRow>(
      database.prepare('SELECT device, system, browser FROM agents WHERE id = ?'),
    ),
  }
}
