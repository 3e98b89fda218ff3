import { hasOrder, isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { type Figures, type KeyedFigures } from '@flimbo/core/results'
import type { FigureCode } from './codeRows.ts'
import { ARRIVAL, LEAD, type Conversions } from './conversions.ts'
import type { Counted, QuestionCount } from './questionCount.ts'
import { rowTable, type CountedRow, type RowTable } from './rowTable.ts'

/** What a question comes to: its rows, in the order of its keys where they have one, and all of them together. */
export interface FoundRows {
  readonly rows: readonly KeyedFigures[]
  readonly total: Figures
}

/** Puts together what was counted with the conversions and the cost of the same codes. */
export function questionRows(
  by: readonly Dimension[],
  count: QuestionCount,
  { pairs }: Counted,
  conversions: Conversions,
): FoundRows {
  const { codes, a, b, filters } = count
  const table = rowTable(a.keys.list.length, b.keys.list.length)
  for (const pair of pairs.counts()) {
    const row = table.rowOf(pair.a, pair.b)
    row.scans = pair.scans
    row.uniques = pair.uniques
  }
  addConversions(table, count, conversions)
  // What a piece cost cannot be parted by who scanned it, or when.
  const isByPiece = filters.length === 0 && by.every((dimension) => isOfKind(dimension, 'piece'))
  if (isByPiece)
    for (const { id, cost } of codes) {
      const row = table.rowOf(placeOfCode(a, id), placeOfCode(b, id))
      row.cost = cost === null ? row.cost : (row.cost ?? 0) + cost
    }
  const [only] = by
  if (by.length === 1 && only !== undefined && hasOrder(only))
    a.keys.list.forEach((key, place) => {
      if (key !== '') table.rowOf(place, 0)
    })

  const found = table.inOrder()
  const keysOf = keyReader(by, count)
  const { valueMilli, ...total } = totalOf(found)
  return {
    // Written out, as there may be many.
    rows: found.map((row) => ({
      keys: keysOf(row),
      scans: row.scans,
      uniques: row.uniques,
      leads: row.leads,
      arrivals: row.arrivals,
      goals: row.goals,
      value: row.valueMilli / 1000,
      cost: row.cost === null ? null : inCents(row.cost),
    })),
    total: {
      ...total,
      value: valueMilli / 1000,
      cost: filters.length === 0 ? costOf(codes) : null,
    },
  }
}

/** What the keys of rows are called, on as many sides as there are. */
function keyReader(by: readonly Dimension[], { a, b }: QuestionCount): (row: CountedRow) => string[] {
  if (by.length === 0) return () => []
  if (by.length === 1) return (row) => [a.keys.list[row.a] ?? '']
  return (row) => [a.keys.list[row.a] ?? '', b.keys.list[row.b] ?? '']
}

/** Counts those conversions that are of the codes and that all filters take. */
function addConversions(
  table: RowTable,
  { codes, a, b, filters }: QuestionCount,
  conversions: Conversions,
): void {
  const { length, codeId, kind, valueMilli } = conversions
  const tests = filters.map((filter) => filter.testOf(conversions))
  if (codes.length < conversions.codes.size) {
    const ids = new Set(codes.map(({ id }) => id))
    tests.push((k) => ids.has(codeId[k] ?? 0))
  }
  const [placesA, placesB] = [a.placesOf(conversions), b.placesOf(conversions)]
  for (let k = 0; k < length; k++) {
    if (tests.length > 0 && !tests.every((isWanted) => isWanted(k))) continue
    const row = table.rowOf(placesA[k] ?? 0, placesB[k] ?? 0)
    if (kind[k] === LEAD) row.leads++
    else if (kind[k] === ARRIVAL) row.arrivals++
    else row.goals++
    row.valueMilli += valueMilli[k] ?? 0
  }
}

function totalOf(rows: readonly CountedRow[]) {
  const total = { scans: 0, uniques: 0, leads: 0, arrivals: 0, goals: 0, valueMilli: 0 }
  for (const row of rows) {
    total.scans += row.scans
    total.uniques += row.uniques
    total.leads += row.leads
    total.arrivals += row.arrivals
    total.goals += row.goals
    total.valueMilli += row.valueMilli
  }
  return total
}

const placeOfCode = ({ sums }: QuestionCount['a'], code: number) =>
  sums?.by === 'code' ? sums.placeOf(code) : 0

function costOf(codes: readonly FigureCode[]): number | null {
  const known = codes.flatMap(({ cost }) => (cost === null ? [] : [cost]))
  return known.length === 0 ? null : inCents(known.reduce((sum, cost) => sum + cost, 0))
}

/** Sums of amounts carry traces of binary fractions. */
const inCents = (amount: number) => Math.round(amount * 100) / 100
