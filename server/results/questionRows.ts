import { hasOrder, isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { type Figures, type KeyedFigures } from '@flimbo/core/results'
import type { FigureCode } from './codeRows.ts'
import type { ConversionCounts, ConversionFact } from './conversionFacts.ts'
import type { Counted, QuestionCount } from './questionCount.ts'

/** What a question comes to: its rows, in the order of its keys where they have one, and all of them together. */
export interface FoundRows {
  readonly rows: readonly KeyedFigures[]
  readonly total: Figures
}

const SUMMED = ['scans', 'uniques', 'leads', 'arrivals', 'goals', 'valueMilli'] as const

type Row = { readonly a: number; readonly b: number; cost: number | null } & Record<
  (typeof SUMMED)[number],
  number
>
const NOTHING = { scans: 0, uniques: 0, leads: 0, arrivals: 0, goals: 0, valueMilli: 0, cost: null }

/** Puts together what was counted with the conversions and the cost of the same codes. */
export function questionRows(
  by: readonly Dimension[],
  { codes, a, b, filters }: QuestionCount,
  { pairs }: Counted,
  conversions: readonly ConversionFact[],
): FoundRows {
  const width = b.keys.list.length
  const rows = new Map<number, Row>()
  const rowOf = (at: number, with_: number): Row => {
    const id = at * width + with_
    const row = rows.get(id) ?? { a: at, b: with_, ...NOTHING }
    rows.set(id, row)
    return row
  }
  for (const { scans, uniques, ...at } of pairs.counts()) Object.assign(rowOf(at.a, at.b), { scans, uniques })
  const ids = new Set(codes.map(({ id }) => id))
  for (const fact of conversions)
    if (ids.has(fact.codeId) && filters.every((filter) => filter.takesConversion(fact)))
      addTo(rowOf(a.placeOfConversion(fact), b.placeOfConversion(fact)), fact)
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
  const total: Row = { a: 0, b: 0, ...NOTHING }
  for (const row of found) for (const of of SUMMED) total[of] += row[of]
  return {
    rows: found.map((row) => ({
      keys: [a.keys.list[row.a] ?? '', b.keys.list[row.b] ?? ''].slice(0, by.length),
      ...figuresOf(row, row.cost === null ? null : inCents(row.cost)),
    })),
    total: figuresOf(total, filters.length === 0 ? costOf(codes) : null),
  }
}

function addTo(row: Row, { leads, arrivals, goals, valueMilli }: ConversionCounts): void {
  row.leads += leads
  row.arrivals += arrivals
  row.goals += goals
  row.valueMilli += valueMilli
}

const figuresOf = (
  { valueMilli, scans, uniques, leads, arrivals, goals }: Row,
  cost: number | null,
): Figures => ({
  ...{ scans, uniques, leads, arrivals, goals },
  value: valueMilli / 1000,
  cost,
})

const placeOfCode = ({ sums }: QuestionCount['a'], code: number) =>
  sums?.by === 'code' ? sums.placeOf(code) : 0

function costOf(codes: readonly FigureCode[]): number | null {
  const known = codes.flatMap(({ cost }) => (cost === null ? [] : [cost]))
  return known.length === 0 ? null : inCents(known.reduce((sum, cost) => sum + cost, 0))
}

/** Sums of amounts carry traces of binary fractions. */
const inCents = (amount: number) => Math.round(amount * 100) / 100
