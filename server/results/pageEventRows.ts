import type Sqlite from 'better-sqlite3'
import { LRUCache } from 'lru-cache'
import {
  isCountedAs,
  partName,
  type EventFilter,
  type PageContent,
  type PageEventRow,
} from '@flimbo/core/pages'
import { readEventWay } from '../scans/queries.ts'
import { allInOrder, pageInOrder, type Sought, type WayStore } from './matching.ts'
import { scopeOwner } from './scope.ts'

/** Which of the things that happened on pages are meant, in a span of moments (UTC ms). */
export type EventRowFilter = Omit<EventFilter, 'from' | 'to'> & {
  readonly start: number
  readonly end: number
}

/** Each on its own, as scans are read. */
const BY_ID = `SELECT e.id, e.at, e.scanId, e.codeId, c.name AS codeName, w.routeId, ifnull(v.number, 0) AS revision,
    w.pageId, w.kind, w.part, w.item, w.apart
  FROM event_rows e JOIN event_ways w ON w.id = e.wayId JOIN codes c ON c.id = e.codeId
    LEFT JOIN revisions v ON v.id = w.revisionId
  WHERE e.id = ?`
/** By a value, never by a join: all scans would be looked through for each. */
const SCAN_BY_ID = `SELECT p.country, p.region, p.city, a.device, s.language
  FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId WHERE s.id = ?`

type OfScan = Pick<PageEventRow, 'country' | 'region' | 'city' | 'device' | 'language'>
type StoredEvent = Omit<PageEventRow, keyof OfScan | 'apart' | 'pageName' | 'partName'> & { apart: string }
/** A scan is folded together with what happened after it; should it be gone before, nothing is known of it. */
const NO_SCAN: OfScan = { country: '', region: '', city: '', device: 'other', language: '' }

function soughtBy(database: Sqlite.Database, filter: EventRowFilter): Sought {
  const { pageId, start, end, counted, count, kind, part, item } = filter
  return {
    owner: pageId === undefined ? scopeOwner(database, filter) : { codes: 'all', key: null },
    span: { start, end },
    counted,
    ways: {
      group: pageId ?? null,
      isWanted(text) {
        const way = readEventWay(text)
        if (counted !== 'both' && (counted === 'counted') !== (way.apart === '')) return false
        return (
          (pageId === undefined || way.pageId === pageId) &&
          (count === undefined || isCountedAs(count, way)) &&
          (kind === undefined || way.kind === kind) &&
          (part === undefined || way.part === part) &&
          (item === undefined || way.item === item)
        )
      },
    },
  }
}

/** Pages whose parts are remembered while their events are read. */
const PAGES_MAX = 200

/** Reads events by their numbers, and what their pages and parts are called now. */
function eventReader(database: Sqlite.Database) {
  const read = database.prepare(BY_ID)
  const readScan = database.prepare(SCAN_BY_ID)
  const findPage = database.prepare('SELECT name, live FROM pages WHERE id = ?')
  const pages = new LRUCache<number, { name: string; content: PageContent | null }>({ max: PAGES_MAX })
  function pageOf(id: number) {
    const known = pages.get(id)
    if (known) return known
    const row = findPage.get(id) as { name: string; live: string | null } | undefined
    // It was content when it was stored.
    const content = row?.live ? (JSON.parse(row.live) as PageContent) : null
    const page = { name: row?.name ?? '', content }
    pages.set(id, page)
    return page
  }
  return (id: number): PageEventRow | null => {
    const row = read.get(id) as StoredEvent | undefined
    if (!row) return null
    const page = pageOf(row.pageId)
    return {
      ...row,
      ...((readScan.get(row.scanId) as OfScan | undefined) ?? NO_SCAN),
      // As it was written: one of the reasons, or nothing.
      apart: row.apart === '' ? null : (row.apart as PageEventRow['apart']),
      pageName: page.name,
      partName: partName(page.content, row.part),
    }
  }
}

/** What happened on pages, row by row. */
export function readPageEvents(database: Sqlite.Database, events: WayStore) {
  return {
    pageEventRows(
      filter: EventRowFilter,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): { rows: PageEventRow[]; total: number } {
      const { ids, total } = pageInOrder(events, soughtBy(database, filter), order, limit, offset)
      const read = eventReader(database)
      return { total, rows: ids.map(read).filter((row) => row !== null) }
    },
  }
}

/** All of a filter, the oldest first, some at a time; no transaction stays open in between. */
export function* pageEventsInOrder(
  database: Sqlite.Database,
  events: WayStore,
  filter: EventRowFilter,
  atOnce: number,
): Generator<PageEventRow[], undefined, undefined> {
  const ids = database.transaction(() => allInOrder(events, soughtBy(database, filter)))()
  const read = eventReader(database)
  for (let i = 0; i < ids.length; i += atOnce)
    // Those that are folded meanwhile have no row any more.
    yield Array.from(ids.subarray(i, i + atOnce), read).filter((row) => row !== null)
  return undefined
}
