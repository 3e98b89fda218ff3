import type Sqlite from 'better-sqlite3'
import { EVENT_COUNTS, isCountedAs, type PageTally, type PieceOnPages } from '@flimbo/core/pages'
import type { Scope } from '@flimbo/core/scans'
import { runsOf } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import { overlap, type FactStore, type Owner, type Part } from '../figures/index.ts'
import { readEventWay, type EventWay, type PageEventDimension } from '../scans/queries.ts'
import { scopeOwner } from './scope.ts'

const NOTHING = { opened: 0, followed: 0, taken: 0, played: 0, finished: 0 }

/** How many events of each code took each way, in a part: from its columns, or else, folded, from its sums. */
function* codeWays(
  part: Part<PageEventDimension>,
  codes: ReadonlySet<number>,
  span: Span,
): Generator<[code: number, way: EventWay, count: number]> {
  const ways = part.values.way.map((text) => readEventWay(String(text)))
  if (!part.columns) {
    for (const code of part.totals.codes) {
      if (!codes.has(code)) continue
      const taken = part.sums({ codes: new Set([code]), key: null }, span)?.dimensions.way
      for (let i = 0; taken && i < taken.value.length; i++) {
        const way = ways[taken.value[i] ?? 0]
        if (way) yield [code, way, taken.count[i] ?? 0]
      }
    }
    return
  }
  const columns = part.columns()
  const { index } = columns.dimensions.way
  const counts = new Uint32Array(ways.length)
  for (const { code, from, to } of runsOf(columns, codes, span)) {
    counts.fill(0)
    for (let i = from; i < to; i++) {
      const place = index[i] ?? 0
      counts[place] = (counts[place] ?? 0) + 1
    }
    for (const [place, count] of counts.entries()) {
      const way = ways[place]
      if (count > 0 && way) yield [code, way, count]
    }
  }
}

/** What happened on pages, of people alone. Each thing counts once for each scan that was shown the page. */
export function pageEvents(database: Sqlite.Database, events: FactStore<PageEventDimension>) {
  const name = database.prepare('SELECT name FROM codes WHERE id = ?').pluck()

  /** The ways of some codes' events in a span, with how many took each. */
  function* waysOf(owner: Owner, start: number, end: number): Generator<[way: EventWay, count: number]> {
    for (const part of events.parts()) {
      if (overlap(part.span, { start, end }) === 'none') continue
      const taken = part.sums(owner, { start, end })?.dimensions.way
      for (let i = 0; taken && i < taken.value.length; i++) {
        const way = readEventWay(String(part.values.way[taken.value[i] ?? 0]))
        if (way.apart === '') yield [way, taken.count[i] ?? 0]
      }
    }
  }

  return {
    /** On one page, by what, where, and which of it; the most frequent first. */
    pageTallies(pageId: number, start: number, end: number): PageTally[] {
      const tallies = new Map<string, PageTally>()
      const codes = new Set([...events.parts()].flatMap((part) => [...part.codesOfGroup(pageId)]))
      for (const [way, count] of waysOf({ codes, key: null }, start, end)) {
        if (way.pageId !== pageId) continue
        const { kind, part, item } = way
        const key = `${kind}\t${part}\t${item}`
        tallies.set(key, { kind, part, item, scans: count + (tallies.get(key)?.scans ?? 0) })
      }
      return [...tallies.values()].sort((a, b) => b.scans - a.scans || (a.kind < b.kind ? -1 : 1))
    },

    /** What scans of each code of a scope did on pages; codes without any are left out. */
    piecesOnPages(scope: Scope, start: number, end: number): PieceOnPages[] {
      const { codes } = scopeOwner(database, scope)
      const rows = new Map<number, PieceOnPages>()
      for (const part of events.parts()) {
        if (overlap(part.span, { start, end }) === 'none') continue
        for (const [code, way, count] of codeWays(part, codes, { start, end })) {
          if (way.apart !== '') continue
          const row = rows.get(code) ?? { ...NOTHING, codeId: code, name: String(name.get(code)) }
          for (const column of EVENT_COUNTS) if (isCountedAs(column, way)) row[column] += count
          rows.set(code, row)
        }
      }
      return [...rows.values()].sort((a, b) => b.opened - a.opened || a.codeId - b.codeId)
    },
  }
}
