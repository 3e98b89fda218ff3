import { indexArray, type Columns, type Dimension, type DimensionValue } from './columns.ts'

/**
 * Puts several columns together into one.
 *
 * @param parts in the order of their numbers, none of which two of them share
 * @throws Error where there is none
 */
export function mergeColumns<D extends string>(parts: readonly Columns<D>[]): Columns<D> {
  const [first, ...others] = parts
  const last = parts.at(-1)
  if (!first || !last) throw new Error('There is nothing to merge.')
  if (others.length === 0) return first
  const length = parts.reduce((sum, part) => sum + part.length, 0)
  const codes = Uint32Array.from(new Set(parts.flatMap((part) => [...part.codes]))).sort()
  const starts = new Uint32Array(codes.length + 1)
  const from = placesOf(parts, codes, starts)

  const at = new Float64Array(length)
  const id = new Uint32Array(length)
  const flags = new Uint8Array(length)
  for (const [p, part] of parts.entries()) {
    const shift = part.firstId - first.firstId
    const place = from[p] ?? new Uint32Array()
    for (let i = 0; i < part.length; i++) {
      const to = place[i] ?? 0
      at[to] = part.at[i] ?? 0
      id[to] = (part.id[i] ?? 0) + shift
      flags[to] = part.flags[i] ?? 0
    }
  }
  const dimensions = Object.fromEntries(
    Object.keys(first.dimensions).map((name) => [
      name,
      mergeDimension(
        // Every part has the same ones.
        parts.map(({ dimensions: each }) => each[name as D]),
        from,
        length,
      ),
    ]),
  ) as Record<D, Dimension>
  return { length, firstId: first.firstId, lastId: last.lastId, codes, starts, at, id, flags, dimensions }
}

/** Where each fact of each part goes. Fills `starts`, which has one place more than there are codes. */
function placesOf(parts: readonly Columns[], codes: Uint32Array, starts: Uint32Array): Uint32Array[] {
  const places = parts.map((part) => new Uint32Array(part.length))
  /** Which of its codes each part is at. */
  const reached = parts.map(() => 0)
  let to = 0
  for (let c = 0; c < codes.length; c++) {
    starts[c] = to
    const runs: Run[] = []
    for (const [p, part] of parts.entries()) {
      const k = reached[p] ?? 0
      if (part.codes[k] !== codes[c]) continue
      reached[p] = k + 1
      const [start, end] = [part.starts[k] ?? 0, part.starts[k + 1] ?? 0]
      runs.push({ part, place: places[p] ?? new Uint32Array(), start, end })
    }
    to = inOrder(runs) ? laidInTurn(runs, to) : laidByMoment(runs, to)
  }
  starts[codes.length] = to
  return places
}

interface Run {
  readonly part: Columns
  readonly place: Uint32Array
  readonly start: number
  readonly end: number
}

const firstAt = ({ part, start }: Run) => part.at[start] ?? 0
const lastAt = ({ part, end }: Run) => part.at[end - 1] ?? 0

/** Whether each run begins when the one before it has ended, as nearly all do. */
function inOrder(runs: readonly Run[]): boolean {
  return runs.every((run, i) => {
    const before = runs[i - 1]
    return before === undefined || lastAt(before) <= firstAt(run)
  })
}

function laidInTurn(runs: readonly Run[], from: number): number {
  let to = from
  for (const { place, start, end } of runs) for (let i = start; i < end; i++) place[i] = to++
  return to
}

function laidByMoment(runs: readonly Run[], from: number): number {
  const all = runs.flatMap((run, r) =>
    Array.from({ length: run.end - run.start }, (_each, i) => ({ run, r, i: run.start + i })),
  )
  // Numbers ascend from part to part: equal moments stand in the order of the parts.
  all.sort((a, b) => (a.run.part.at[a.i] ?? 0) - (b.run.part.at[b.i] ?? 0) || a.r - b.r || a.i - b.i)
  let to = from
  for (const { run, i } of all) run.place[i] = to++
  return to
}

function mergeDimension(
  parts: readonly Dimension[],
  places: readonly Uint32Array[],
  length: number,
): Dimension {
  const known = new Map<DimensionValue, number>()
  const maps = parts.map(({ values }) =>
    Uint32Array.from(values, (value) => {
      const there = known.get(value) ?? known.size
      known.set(value, there)
      return there
    }),
  )
  const index = indexArray(length, known.size)
  for (const [p, part] of parts.entries()) {
    const [map, place] = [maps[p] ?? new Uint32Array(), places[p] ?? new Uint32Array()]
    for (let i = 0; i < place.length; i++) index[place[i] ?? 0] = map[part.index[i] ?? 0] ?? 0
  }
  return { values: [...known.keys()], index }
}
