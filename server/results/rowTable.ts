/** Rows of so many pairs of keys are found by an array (4 bytes each); those of more, by a map. */
const DENSE_MAX = 1 << 20

/** What a pair of keys comes to, by the places of these. */
export interface CountedRow {
  readonly a: number
  readonly b: number
  scans: number
  uniques: number
  leads: number
  arrivals: number
  goals: number
  valueMilli: number
  cost: number | null
}

export const newRow = (a: number, b: number): CountedRow => ({
  ...{ a, b, scans: 0, uniques: 0, leads: 0, arrivals: 0, goals: 0, valueMilli: 0, cost: null },
})

/** The rows of a question: each is made when its pair of keys is first met. */
export interface RowTable {
  rowOf(a: number, b: number): CountedRow
  /** All of them, by the places of their keys. */
  inOrder(): CountedRow[]
}

/** A table of as many keys on both sides. */
export function rowTable(as: number, bs: number): RowTable {
  const rows: CountedRow[] = []
  // One more than the place of each row, so that nothing stands for what was not met yet.
  const dense = as * bs <= DENSE_MAX ? new Uint32Array(as * bs) : null
  const sparse = new Map<number, number>()
  return {
    rowOf(a, b) {
      const pair = a * bs + b
      const there = rows[(dense ? (dense[pair] ?? 0) : (sparse.get(pair) ?? 0)) - 1]
      if (there) return there
      const row = newRow(a, b)
      const place = rows.push(row)
      if (dense) dense[pair] = place
      else sparse.set(pair, place)
      return row
    },
    inOrder() {
      if (!dense) return rows.sort((x, y) => x.a - y.a || x.b - y.b)
      return Array.from(
        dense.filter((place) => place > 0),
        (place) => rows[place - 1] ?? newRow(0, 0),
      )
    },
  }
}
