import type Sqlite from 'better-sqlite3'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { commonRows } from './commonRows.ts'
import { eventRows } from './eventRows.ts'
import { PACKED_AT, PACKED_WIDTH, type OutboxEntry, type Packed, type PackedField } from './record.ts'
import { limitTaker, type LimitCount, type NoneLeft } from './take.ts'

/** What became of a group of scans. */
export interface Stored {
  /** Scans that found their route's limit used up, by their place in the group: nothing of them was stored. */
  readonly refused: readonly (readonly [place: number, none: NoneLeft])[]
  /** Those that were the first of their visitor at their code that day, by their place in the group. */
  readonly uniques: readonly number[]
  /** The numbers of those that were shown a page, or that a site names, by their place in the group. */
  readonly named: readonly (readonly [place: number, scanId: number])[]
  /** What limited routes have let through by now, of those that the group was for. */
  readonly counts: readonly (readonly [routeId: number, count: LimitCount])[]
}

const HASH = /^[0-9a-f]{16}$/
/** A hash of a visitor as the bytes it stands for. */
const visitorBytes = (visitor: string) => Buffer.from(visitor, HASH.test(visitor) ? 'hex' : 'utf8')

/** Writes packed scans into an open database, in one transaction each call. */
export function scanInserter(database: Sqlite.Database) {
  const common = commonRows(database)
  const limits = limitTaker(database)
  const events = eventRows(database)
  const see = database.prepare(
    'INSERT OR IGNORE INTO visits (workspaceId, day, codeId, visitor) VALUES (?, ?, ?, ?)',
  )
  const insert = database.prepare(`INSERT INTO scan_rows
    (at, codeId, wayId, isUnique, placeId, agentId, languageId, referrerId, visitor) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`)

  const post = database.prepare(
    'INSERT INTO outbox (workspaceId, kind, topic, at, isTest, payload, nextAt) VALUES (?, ?, ?, ?, ?, ?, ?)',
  )
  const postAll = (text: string, workspaceId: Packed, at: Packed, apart: Packed) => {
    // Written by `pack`, on the other side of the thread.
    for (const { kind, topic, payload } of JSON.parse(text) as OutboxEntry[])
      post.run(workspaceId, kind, topic, at, apart === 'test' ? 1 : 0, JSON.stringify(payload), at)
  }

  const insertAll = database.transaction((packed: readonly Packed[]): Stored => {
    const refused: [number, NoneLeft][] = []
    const limited = new Set<number>()
    const uniques: number[] = []
    const named: [number, number][] = []
    for (let i = 0; i < packed.length; i += PACKED_WIDTH) {
      const the = (field: PackedField): Packed => packed[i + PACKED_AT[field]] ?? null
      const [at, workspaceId, codeId, apart] = [the('at'), the('workspaceId'), the('codeId'), the('apart')]
      const [takeDay, entries] = [the('takeDay'), the('outbox')]
      if (typeof takeDay === 'string') {
        const [routeId, mark] = [Number(the('routeId')), String(the('takeMark'))]
        limited.add(routeId)
        const none = limits.take(Number(workspaceId), String(the('day')), routeId, takeDay, mark)
        if (none) {
          refused.push([i / PACKED_WIDTH, none])
          continue
        }
      }
      const isUnique = apart === null ? see.run(workspaceId, the('day'), codeId, the('visitor')).changes : 0
      if (isUnique === 1) uniques.push(i / PACKED_WIDTH)
      common.noteScanned(Number(codeId))
      const { lastInsertRowid } = insert.run(
        at,
        codeId,
        common.wayOf(the('routeId'), the('revisionId'), the('outcome'), the('exit'), the('variant'), apart),
        isUnique,
        common.placeOf(the('country'), the('region'), the('city'), the('latitude'), the('longitude')),
        common.agentOf(the('device'), the('system'), the('systemVersion'), the('browser')),
        common.wordOf(the('language')),
        common.wordOf(the('referrer')),
        visitorBytes(String(the('visitor'))),
      )
      const pageId = the('pageId')
      const scanId = Number(lastInsertRowid)
      if (pageId !== null || the('isNamed') !== null) named.push([i / PACKED_WIDTH, scanId])
      if (pageId !== null) {
        events.insert({
          at: Number(at),
          codeId: Number(codeId),
          scanId,
          routeId: Number(the('routeId')),
          revisionId: Number(the('revisionId')),
          pageId: Number(pageId),
          kind: 'opened',
          part: '',
          item: '',
          // As `apartAfter` has it: this thread loads nothing of core.
          apart: apart === null || apart === 'onward' ? '' : String(apart),
        })
      }
      if (typeof entries === 'string') postAll(entries, workspaceId, at, apart)
    }
    const counts = [...limited].flatMap((routeId) => {
      const count = limits.countOf(routeId)
      return count ? [[routeId, count] as const] : []
    })
    return { refused, uniques, named, counts }
  })

  return (packed: readonly Packed[]): Stored => {
    try {
      return retryWhenLockedSync(() => insertAll.immediate(packed))
    } catch (error) {
      common.forget()
      events.forget()
      throw error
    }
  }
}
