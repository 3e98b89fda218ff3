import { firstSince, type Columns, type DimensionValue } from '@flimbo/core/figures'
import { greatCircleKm } from '@flimbo/core/conditions'
import {
  distanceBand,
  DISTANCE_BANDS,
  RECURRING_KEYS,
  RECURRING_PLACE,
  type RecurringDimension,
  type TimePiece,
} from '@flimbo/core/dimensions'
import { QUARTER_MS } from '@flimbo/core/time'
import type { Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import type { FigureCode } from './codeRows.ts'
import type { Trait } from './dimensions.ts'
import type { QuarterHours } from './hours.ts'
import { Keys } from './keys.ts'
import type { Conversions } from './conversions.ts'
import type { PlaceRow } from './lookUps.ts'

/** Facts of a part that are looked at together: by their places in its columns. */
export interface Chosen {
  readonly columns: Columns<ScanDimension>
  readonly code: number
  readonly facts: Uint32Array
  readonly length: number
}

/** What sums know of a side: which code, which quarter of an hour, or which value of a dimension has which key. */
export type SummedBy =
  | { readonly by: 'code'; placeOf(code: number): number }
  | { readonly by: 'quarter'; placeOf(quarter: number): number }
  | {
      readonly by: 'value'
      readonly dimension: ScanDimension
      placesIn(part: Part<ScanDimension>): Uint32Array
    }

/** One dimension while scans are counted by it: it meets all its keys first, and then tells those of facts. */
export interface Side {
  readonly keys: Keys
  meet(part: Part<ScanDimension>): void
  /** Writes the place of the key of each fact. */
  fill(part: Part<ScanDimension>, chosen: Chosen, into: Uint32Array): void
  /** The places of the keys of conversions. */
  placesOf(conversions: Conversions): Uint32Array
  /** Null where sums do not know it. */
  readonly sums: SummedBy | null
}

/** The keys of a part's values: each once, and of each value which of them it has. */
interface ValueKeys {
  readonly keys: readonly string[]
  readonly index: Uint32Array
}
/** Values of a part never change: what their keys are is worked out once for each trait. */
const known = new WeakMap<Trait, WeakMap<readonly DimensionValue[], ValueKeys>>()
function keysOfValues(trait: Trait, values: readonly DimensionValue[]): ValueKeys {
  const ofTrait = known.get(trait) ?? new WeakMap<readonly DimensionValue[], ValueKeys>()
  known.set(trait, ofTrait)
  const there = ofTrait.get(values)
  if (there) return there
  const keys = new Keys()
  const index = Uint32Array.from(values, (value) => keys.placeOf(trait.keyOf(value)))
  const made = { keys: keys.list, index }
  ofTrait.set(values, made)
  return made
}

/** By what stands in a scan. */
export function traitSide(trait: Trait): Side {
  const { dimension, ofConversions } = trait
  const keys = new Keys()
  const places = new Map<Part<ScanDimension>, Uint32Array>()
  function placesIn(part: Part<ScanDimension>): Uint32Array {
    const there = places.get(part)
    if (there) return there
    const own = keysOfValues(trait, part.values[dimension])
    const placeOf = own.keys.map((key) => keys.placeOf(key))
    const made = own.index.map((key) => placeOf[key] ?? 0)
    places.set(part, made)
    return made
  }
  return {
    keys,
    meet: placesIn,
    fill(part, { columns, facts, length }, into) {
      const placeOf = placesIn(part)
      const { index } = columns.dimensions[dimension]
      for (let k = 0; k < length; k++) into[k] = placeOf[index[facts[k] ?? 0] ?? 0] ?? 0
    },
    placesOf(conversions) {
      const { index, keyOf } = ofConversions(conversions)
      return placesBy(index, (number) => keys.placeOf(keyOf(number)))
    },
    sums: { by: 'value', dimension, placesIn },
  }
}

/** By what a code belongs to. */
export function codeSide(keyOf: ReadonlyMap<number, string>): Side {
  const keys = new Keys([...keyOf.values()])
  const placeOf = (code: number) => keys.placeOf(keyOf.get(code) ?? '')
  return {
    keys,
    meet: () => undefined,
    fill(_part, { code, length }, into) {
      into.fill(placeOf(code), 0, length)
    },
    placesOf: ({ codeId }) => placesBy(codeId, placeOf),
    sums: { by: 'code', placeOf },
  }
}

/** By pieces of time that follow each other. */
export function timeSide(pieces: readonly TimePiece[]): Side {
  const keys = new Keys(pieces.map(({ key }) => key))
  const starts = Float64Array.from(pieces, ({ start }) => start)
  /** The place of the last one: moments that follow each other mostly lie in the same. */
  let near = 0
  function placeAt(at: number): number {
    if (at < (starts[near] ?? Infinity) || at >= (starts[near + 1] ?? Infinity))
      near = Math.max(0, firstSince(starts, 0, starts.length, at + 1) - 1)
    return near
  }
  return {
    keys,
    meet: () => undefined,
    fill(_part, { columns: { at }, facts, length }, into) {
      for (let k = 0; k < length; k++) into[k] = placeAt(at[facts[k] ?? 0] ?? 0)
    },
    placesOf: ({ at }) => placesAt(at, placeAt),
    sums: { by: 'quarter', placeOf: (quarter) => placeAt(quarter * QUARTER_MS) },
  }
}

/** By time that comes again: every quarter of an hour lies in one hour of the week, in every zone. */
export function recurringSide(dimension: RecurringDimension, hourOf: QuarterHours): Side {
  const keys = new Keys(RECURRING_KEYS[dimension])
  const place = RECURRING_PLACE[dimension]
  const placeOf = (quarter: number) => place(hourOf(quarter))
  return {
    keys,
    meet: () => undefined,
    fill(_part, { columns: { at }, facts, length }, into) {
      for (let k = 0; k < length; k++) into[k] = placeOf(Math.floor((at[facts[k] ?? 0] ?? 0) / QUARTER_MS))
    },
    placesOf: ({ at }) => placesAt(at, (moment) => placeOf(Math.floor(moment / QUARTER_MS))),
    sums: { by: 'quarter', placeOf },
  }
}

/** By how far the scan was from where its piece hangs, as far as both are known. */
export function distanceSide(
  codes: ReadonlyMap<number, FigureCode>,
  spotOf: (placeId: number) => PlaceRow | undefined,
): Side {
  const keys = new Keys([...DISTANCE_BANDS, ''])
  const unknown = keys.placeOf('')
  /** The places of keys by code and by the number of the place, as they were worked out. */
  const known = new Map<number, Map<number, number>>()
  function between(
    code: FigureCode | undefined,
    spot: Pick<PlaceRow, 'latitude' | 'longitude'> | undefined,
  ): number {
    if (!code || code.latitude === null || code.longitude === null) return unknown
    if (!spot || spot.latitude === null || spot.longitude === null) return unknown
    const km = greatCircleKm(
      { latitude: code.latitude, longitude: code.longitude },
      { latitude: spot.latitude, longitude: spot.longitude },
    )
    return keys.placeOf(distanceBand(km))
  }
  return {
    keys,
    meet: () => undefined,
    fill(_part, { code, columns, facts, length }, into) {
      const { values, index } = columns.dimensions.place
      const own = known.get(code) ?? new Map<number, number>()
      known.set(code, own)
      for (let k = 0; k < length; k++) {
        const place = Number(values[index[facts[k] ?? 0] ?? 0])
        let found = own.get(place)
        if (found === undefined) own.set(place, (found = between(codes.get(code), spotOf(place))))
        into[k] = found
      }
    },
    placesOf(conversions) {
      const { values, index } = conversions.trait('spot')
      return conversions.codeId.map((code, k) => between(codes.get(code), values[index[k] ?? 0]))
    },
    sums: null,
  }
}

/** All scans under one key. */
export function oneSide(): Side {
  const keys = new Keys([''])
  return {
    keys,
    meet: () => undefined,
    fill(_part, { length }, into) {
      into.fill(0, 0, length)
    },
    placesOf: ({ length }) => new Uint32Array(length),
    sums: { by: 'code', placeOf: () => 0 },
  }
}

/** The places of numbers, each worked out once. */
function placesBy(numbers: Uint32Array, placeOf: (number: number) => number): Uint32Array {
  const places = new Uint32Array(numbers.length)
  const known: number[] = []
  for (let k = 0; k < numbers.length; k++) {
    const number = numbers[k] ?? 0
    places[k] = known[number] ??= placeOf(number)
  }
  return places
}
function placesAt(moments: Float64Array, placeAt: (moment: number) => number): Uint32Array {
  const places = new Uint32Array(moments.length)
  for (let k = 0; k < moments.length; k++) places[k] = placeAt(moments[k] ?? 0)
  return places
}

/** The codes of some that have each key of a side by code. */
export function codesByPlace(codes: ReadonlySet<number>, placeOf: (code: number) => number) {
  const groups = new Map<number, Set<number>>()
  for (const code of codes) {
    const place = placeOf(code)
    const own = groups.get(place) ?? new Set<number>()
    own.add(code)
    groups.set(place, own)
  }
  return groups
}
