/** A value of a dimension, as it is stored: a text, or the number of a row that stands for more. */
export type DimensionValue = string | number

/** One dimension of some facts: each value once, and of each fact which of them it has. */
export interface Dimension {
  readonly values: readonly DimensionValue[]
  readonly index: Uint8Array | Uint16Array | Uint32Array
}

/** Something that happened is counted; it was the first of its visitor that day. */
export const COUNTED = 1
export const UNIQUE = 2

/**
 * Facts in columns: something that happened at a moment, at a code, with its dimensions. They stand by code, and at
 * each code in the order of time, so that those of a code in a span stand side by side.
 */
export interface Columns<D extends string = string> {
  readonly length: number
  /** The first and the last number of the facts in it; whatever else bears a number between them is in it too. */
  readonly firstId: number
  readonly lastId: number
  /** The codes, ascending; the facts of `codes[i]` stand from `starts[i]` to `starts[i + 1]`. */
  readonly codes: Uint32Array
  readonly starts: Uint32Array
  /** UTC milliseconds. */
  readonly at: Float64Array
  /** Each fact's number, counted from `firstId`. */
  readonly id: Uint32Array
  /** `COUNTED` and `UNIQUE`. */
  readonly flags: Uint8Array
  readonly dimensions: Readonly<Record<D, Dimension>>
}

/** The same facts as they come: in the order of their numbers, ascending. */
export interface FactRows<D extends string = string> {
  readonly id: readonly number[]
  readonly at: readonly number[]
  readonly code: readonly number[]
  readonly flags: readonly number[]
  readonly dimensions: Readonly<Record<D, readonly DimensionValue[]>>
}

/** The smallest kind of array that holds whole numbers below a bound. */
export function indexArray(length: number, bound: number): Dimension['index'] {
  if (bound <= 0x100) return new Uint8Array(length)
  return bound <= 0x1_0000 ? new Uint16Array(length) : new Uint32Array(length)
}

/** @throws Error where there is no fact */
export function packColumns<D extends string>(rows: FactRows<D>): Columns<D> {
  const length = rows.id.length
  const [firstId, lastId] = [rows.id[0], rows.id.at(-1)]
  if (firstId === undefined || lastId === undefined) throw new Error('There is nothing to pack.')
  const code = Uint32Array.from(rows.code)
  const moment = Float64Array.from(rows.at)
  // Numbers ascend, so that places of rows stand for them where moments are equal.
  const order = new Uint32Array(length)
  for (let i = 0; i < length; i++) order[i] = i
  order.sort((a, b) => (code[a] ?? 0) - (code[b] ?? 0) || (moment[a] ?? 0) - (moment[b] ?? 0) || a - b)

  const at = new Float64Array(length)
  const id = new Uint32Array(length)
  const flags = new Uint8Array(length)
  const codes: number[] = []
  const starts: number[] = []
  for (let i = 0; i < length; i++) {
    const row = order[i] ?? 0
    at[i] = moment[row] ?? 0
    id[i] = (rows.id[row] ?? 0) - firstId
    flags[i] = rows.flags[row] ?? 0
    if (codes.at(-1) !== code[row]) {
      codes.push(code[row] ?? 0)
      starts.push(i)
    }
  }
  starts.push(length)
  const dimensions = Object.fromEntries(
    Object.entries<readonly DimensionValue[]>(rows.dimensions).map(([name, column]) => [
      name,
      packDimension(column, order),
    ]),
    // Its names are those of the rows.
  ) as Record<D, Dimension>
  return {
    length,
    firstId,
    lastId,
    codes: Uint32Array.from(codes),
    starts: Uint32Array.from(starts),
    at,
    id,
    flags,
    dimensions,
  }
}

function packDimension(column: readonly DimensionValue[], order: Uint32Array): Dimension {
  const places = new Map<DimensionValue, number>()
  const found = new Uint32Array(order.length)
  for (let i = 0; i < order.length; i++) {
    const value = column[order[i] ?? 0] ?? ''
    let place = places.get(value)
    if (place === undefined) {
      place = places.size
      places.set(value, place)
    }
    found[i] = place
  }
  const index = indexArray(order.length, places.size)
  index.set(found)
  return { values: [...places.keys()], index }
}

/**
 * The same facts, with the values of their dimensions in a given order.
 *
 * @param values those of each dimension; whatever a fact has must be among them
 * @throws Error where it is not
 */
export function withValues<D extends string>(
  columns: Columns<D>,
  values: Readonly<Record<D, readonly DimensionValue[]>>,
): Columns<D> {
  const dimensions = Object.fromEntries(
    Object.entries<Dimension>(columns.dimensions).map(([name, dimension]) => [
      name,
      // Its own names.
      inOrder(dimension, values[name as D]),
    ]),
  ) as Record<D, Dimension>
  return { ...columns, dimensions }
}

function inOrder(dimension: Dimension, values: readonly DimensionValue[]): Dimension {
  const places = new Map(values.map((value, place) => [value, place]))
  const moved = Uint32Array.from(dimension.values, (value) => {
    const place = places.get(value)
    if (place === undefined) throw new Error('A value is not among those given.')
    return place
  })
  const index = indexArray(dimension.index.length, values.length)
  for (let i = 0; i < index.length; i++) index[i] = moved[dimension.index[i] ?? 0] ?? 0
  return { values, index }
}
