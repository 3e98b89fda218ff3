import { hasOrder, isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { type Figures, type KeyedFigures } from '@flimbo/core/results'
import type { FigureCode } from './codeRows.ts'
import type { LeadFact } from './leadFacts.ts'
import type { Counted, QuestionCount } from './questionCount.ts'

/** What a question comes to: its rows, in the order of its keys where they have one, and all of them together. */
export interface FoundRows {
  readonly rows: readonly KeyedFigures[]
  readonly total: Figures
}

interface Row {
  readonly a: number
  readonly b: number
  scans: number
  uniques: number
  leads: number
  cost: number | null
}

/** Puts together what was counted with the leads and the cost of the same codes. */
export function questionRows(
  by: readonly Dimension[],
  { codes, a, b, filters }: QuestionCount,
  { pairs }: Counted,
  leads: readonly LeadFact[],
): FoundRows {
  const width = b.keys.list.length
  const rows = new Map<number, Row>()
  const rowOf = (at: number, with_: number): Row => {
    const id = at * width + with_
    const row = rows.get(id) ?? { a: at, b: with_, scans: 0, uniques: 0, leads: 0, cost: null }
    rows.set(id, row)
    return row
  }
  for (const { scans, uniques, ...at } of pairs.counts()) Object.assign(rowOf(at.a, at.b), { scans, uniques })
  const ids = new Set(codes.map(({ id }) => id))
  for (const lead of leads)
    if (ids.has(lead.codeId) && filters.every((filter) => filter.takesLead(lead)))
      rowOf(a.placeOfLead(lead), b.placeOfLead(lead)).leads++
  // What a piece cost cannot be parted by who scanned it, or when.
  const isByPiece = filters.length === 0 && by.every((dimension) => isOfKind(dimension, 'piece'))
  if (isByPiece)
    for (const { id, cost } of codes) {
      const row = rowOf(placeOfCode(a, id), placeOfCode(b, id))
      row.cost = cost === null ? row.cost : (row.cost ?? 0) + cost
    }
  const [only] = by
  if (by.length === 1 && only !== undefined && hasOrder(only))
    a.keys.list.forEach((key, place) => {
      if (key !== '') rowOf(place, 0)
    })

  const found = [...rows.values()].sort((x, y) => x.a - y.a || x.b - y.b)
  const sum = (of: 'scans' | 'uniques' | 'leads') => found.reduce((total, row) => total + row[of], 0)
  return {
    rows: found.map(({ a: at, b: with_, cost, ...counts }) => ({
      keys: [a.keys.list[at] ?? '', b.keys.list[with_] ?? ''].slice(0, by.length),
      ...counts,
      cost: cost === null ? null : inCents(cost),
    })),
    total: {
      scans: sum('scans'),
      uniques: sum('uniques'),
      leads: sum('leads'),
      cost: filters.length === 0 ? costOf(codes) : null,
    },
  }
}

const placeOfCode = ({ sums }: QuestionCount['a'], code: number) =>
  sums?.by === 'code' ? sums.placeOf(code) : 0

function costOf(codes: readonly FigureCode[]): number | null {
  const known = codes.flatMap(({ cost }) => (cost === null ? [] : [cost]))
  return known.length === 0 ? null : inCents(known.reduce((sum, cost) => sum + cost, 0))
}

/** Sums of amounts carry traces of binary fractions. */
const inCents = (amount: number) => Math.round(amount * 100) / 100
