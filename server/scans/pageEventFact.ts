import type { PageEventKind } from '@flimbo/core/pages'
import type { Fact } from '../figures/index.ts'
import { rememberedRows } from '../sqlite/index.ts'
import { EVENT_TABLE, foldedRow } from './foldedRow.ts'

/** What happened on a page is counted by its way alone: which page, which part, and what. Who did it is the scan's. */
export type PageEventDimension = 'way'

/** What happened, where on which page. */
export interface EventWay {
  readonly pageId: number
  /** Why it is kept apart; empty where it is a person's. */
  readonly apart: string
  readonly kind: PageEventKind
  readonly part: string
  readonly item: string
}

const WAY = 'pageId || char(9) || apart || char(9) || kind || char(9) || part || char(9) || item'

/** A way as it stands in the dimension: its parts, with a tab between each two. */
export function readEventWay(text: string): EventWay {
  const [pageId = '0', apart = '', kind = '', part = '', item = ''] = text.split('\t')
  // As they were written.
  return { pageId: Number(pageId), apart, kind: kind as PageEventKind, part, item }
}

type StoredRow = [id: number, at: number, code: number, way: number]
const COLUMNS = 'id, at, codeId, wayId'
const BETWEEN = `SELECT ${COLUMNS} FROM event_rows WHERE id > ? AND id <= ? ORDER BY id LIMIT ?`
/** The same while rows that are folded still stand there. */
const BESIDE = `SELECT ${COLUMNS} FROM event_rows
  WHERE id > ? AND id <= ? AND NOT ${foldedRow(EVENT_TABLE)} ORDER BY id LIMIT ?`

/** What happened on pages, as it is counted. Each thing is there once for each scan: none of them is unique beside that. */
export const pageEventFact: Fact<PageEventDimension> = {
  name: 'page-events',
  dimensions: ['way'],
  everyFact: ['way'],
  group: { dimension: 'way', of: (way) => Number.parseInt(way, 10) },
  reader(database) {
    const newest = database.prepare('SELECT max(id) FROM event_rows').pluck()
    const proof = database
      .prepare(`SELECT at || ' ' || codeId || ' ' || scanId || ' ' || wayId FROM event_rows WHERE id = ?`)
      .pluck()
    const between = database.prepare(BETWEEN).raw()
    const beside = database.prepare(BESIDE).raw()
    const isClearing = database.prepare(
      `SELECT 1 FROM folds WHERE fact = 'page-events' AND clearedTo < lastId LIMIT 1`,
    )
    const ways = rememberedRows<{ text: string; isCounted: number }>(
      database.prepare(`SELECT ${WAY} AS text, apart = '' AS isCounted FROM event_ways WHERE id = ?`),
    )
    return {
      newest: () => (newest.get() as number | null) ?? 0,
      proof: (id) => (proof.get(id) as string | undefined) ?? '',
      between(after, upTo, limit) {
        const statement = isClearing.get() === undefined ? between : beside
        const rows = statement.all(after, upTo, limit) as StoredRow[]
        return {
          id: rows.map(([id]) => id),
          at: rows.map(([, at]) => at),
          code: rows.map(([, , code]) => code),
          flags: rows.map(([, , , way]) => ways(way)?.isCounted ?? 0),
          dimensions: { way: rows.map(([, , , way]) => ways(way)?.text ?? '') },
        }
      },
    }
  },
}
