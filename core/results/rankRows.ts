import { hasOrder, isOfKind, type Dimension } from '../dimensions/index.ts'
import { addFigures, byMeasure, NO_FIGURES, type Figures, type Measure } from './measures.ts'
import { CELLS_MAX, CROSSED_MAX, type AnswerRow } from './question.ts'

/** Figures of a key, or of two keys together. */
export type KeyedFigures = Figures & { readonly keys: readonly string[] }

interface Ranking {
  readonly what: Measure
  readonly by: readonly Dimension[]
  readonly top: number
}

const idOf = (keys: readonly string[]) => JSON.stringify(keys)

/**
 * The rows that are shown, with those of the days they are held against. What has an order of its own stands in it and
 * is there from first to last; the rest stands by what is asked, and of it only the first so many are there.
 *
 * @param now by time and what else has an order of its own in that order
 * @param before null where they are held against nothing; keys of time are those of `now`
 */
export function rankRows(
  { what, by, top }: Ranking,
  now: readonly KeyedFigures[],
  before: readonly KeyedFigures[] | null,
): { rows: AnswerRow[]; rowsTotal: number } {
  const shown = shownRows({ what, by, top }, now)
  const earlier = new Map((before ?? []).map(({ keys, ...figures }) => [idOf(keys), figures]))
  const rows = shown.map(({ keys, ...figures }) => ({
    keys: [...keys],
    ...figures,
    before: before && (earlier.get(idOf(keys)) ?? { ...NO_FIGURES, cost: figures.cost }),
  }))
  return { rows, rowsTotal: now.length }
}

function shownRows({ what, by, top }: Ranking, rows: readonly KeyedFigures[]): readonly KeyedFigures[] {
  if (by.length === 2) return crossedRows(what, by, rows)
  const [only] = by
  if (only === undefined || hasOrder(only)) return rows
  const order = byMeasure(what)
  return [...rows].sort((a, b) => order(a, b) || compareKeys(a, b)).slice(0, top)
}

const compareKeys = ({ keys: [a = ''] }: KeyedFigures, { keys: [b = ''] }: KeyedFigures) => {
  if (a === b) return 0
  return a < b ? -1 : 1
}

/** Of each side the keys that come to most, all of time: as many as leave no more cells than can be shown. */
function crossedRows(
  what: Measure,
  by: readonly Dimension[],
  rows: readonly KeyedFigures[],
): readonly KeyedFigures[] {
  const ranked = by.map((dimension, side) =>
    isOfKind(dimension, 'time') || isOfKind(dimension, 'recurring') ? null : largestKeys(what, rows, side),
  )
  for (let limit = CROSSED_MAX; ; limit = Math.ceil(limit / 2)) {
    const [first, second] = ranked.map((keys) => keys && new Set(keys.slice(0, limit)))
    const shown = rows.filter(
      ({ keys: [a = '', b = ''] }) => (!first || first.has(a)) && (!second || second.has(b)),
    )
    if (shown.length <= CELLS_MAX || limit === 1) return shown.slice(0, CELLS_MAX)
  }
}

function largestKeys(what: Measure, rows: readonly KeyedFigures[], side: number): string[] {
  const sums = new Map<string, Figures>()
  for (const row of rows) {
    const key = row.keys[side] ?? ''
    sums.set(key, addFigures(sums.get(key) ?? { ...NO_FIGURES, cost: 0 }, row))
  }
  const order = byMeasure(what)
  return [...sums].sort(([x, a], [y, b]) => order(a, b) || (x < y ? -1 : 1)).map(([key]) => key)
}
