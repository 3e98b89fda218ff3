import type Sqlite from 'better-sqlite3'
import type { PageEventKind } from '@flimbo/core/pages'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { rowNumbers } from './commonRows.ts'

/** Something that happened on a page, as it is stored. */
export interface PageEventRow {
  readonly at: number
  readonly codeId: number
  /** The scan that was shown the page. */
  readonly scanId: number
  /** The route that decided it, and its revision. */
  readonly routeId: number
  readonly revisionId: number
  readonly pageId: number
  readonly kind: PageEventKind
  readonly part: string
  readonly item: string
  /** Why it is kept apart; empty where it is a person's. */
  readonly apart: string
}

/** Writes what happened on pages into an open database. Each thing is stored once for each scan, however often it is told. */
export function eventRows(database: Sqlite.Database) {
  const ways = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO event_ways (routeId, revisionId, pageId, kind, part, item, apart) VALUES (?, ?, ?, ?, ?, ?, ?)',
    ),
    database.prepare(`SELECT id FROM event_ways WHERE routeId = ? AND revisionId = ? AND pageId = ? AND kind = ?
      AND part = ? AND item = ? AND apart = ?`),
  )
  const insert = database.prepare(
    'INSERT OR IGNORE INTO event_rows (at, codeId, scanId, wayId) VALUES (?, ?, ?, ?)',
  )
  return {
    insert({ at, codeId, scanId, routeId, revisionId, pageId, kind, part, item, apart }: PageEventRow): void {
      insert.run(at, codeId, scanId, ways.numberOf(routeId, revisionId, pageId, kind, part, item, apart))
    },
    forget: ways.forget,
  }
}

/** Stores what happened on pages, in one transaction each call. */
export function eventInserter(database: Sqlite.Database) {
  const rows = eventRows(database)
  const insertAll = database.transaction((events: readonly PageEventRow[]) => {
    for (const event of events) rows.insert(event)
  })
  return (events: readonly PageEventRow[]): void => {
    try {
      retryWhenLockedSync(() => {
        insertAll.immediate(events)
      })
    } catch (error) {
      rows.forget()
      throw error
    }
  }
}
