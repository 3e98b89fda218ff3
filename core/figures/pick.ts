import { indexArray, type Columns, type Dimension } from './columns.ts'

/**
 * Some facts of some columns, as columns of their own.
 *
 * @param places where they stand, ascending
 * @returns null where there are none
 */
export function pickFacts<D extends string>(columns: Columns<D>, places: Uint32Array): Columns<D> | null {
  const length = places.length
  if (length === 0) return null
  const [codes, starts]: [number[], number[]] = [[], []]
  for (let k = 0, c = 0; k < length; k++) {
    const place = places[k] ?? 0
    while (place >= (columns.starts[c + 1] ?? Infinity)) c++
    const code = columns.codes[c] ?? 0
    if (codes.at(-1) === code) continue
    codes.push(code)
    starts.push(k)
  }
  starts.push(length)
  let [least, most] = [Infinity, 0]
  for (const place of places) {
    const id = columns.id[place] ?? 0
    least = Math.min(least, id)
    most = Math.max(most, id)
  }
  return {
    length,
    firstId: columns.firstId + least,
    lastId: columns.firstId + most,
    codes: Uint32Array.from(codes),
    starts: Uint32Array.from(starts),
    at: Float64Array.from(places, (place) => columns.at[place] ?? 0),
    id: Uint32Array.from(places, (place) => (columns.id[place] ?? 0) - least),
    flags: Uint8Array.from(places, (place) => columns.flags[place] ?? 0),
    dimensions: Object.fromEntries(
      Object.entries<Dimension>(columns.dimensions).map(([name, each]) => [name, pickValues(each, places)]),
      // Its own names.
    ) as Record<D, Dimension>,
  }
}

/** Values that none of the facts has are left out. */
function pickValues({ values, index }: Dimension, places: Uint32Array): Dimension {
  const moved = new Int32Array(values.length).fill(-1)
  const met: (typeof values)[number][] = []
  const found = Uint32Array.from(places, (place) => {
    const value = index[place] ?? 0
    if ((moved[value] ?? -1) < 0) moved[value] = met.push(values[value] ?? '') - 1
    return moved[value] ?? 0
  })
  const picked = indexArray(places.length, met.length)
  picked.set(found)
  return { values: met, index: picked }
}
