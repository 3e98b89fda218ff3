import type { Columns } from '@flimbo/core/figures'
import type { Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import type { Conversions } from './conversions.ts'
import type { Side } from './sides.ts'

/** Whether a fact or a conversion, by its place in the columns, is wanted. */
export type FactTest = (i: number) => boolean

/** Only facts that have one of some keys of a dimension. */
export interface FactFilter {
  /** The test of a part's facts, code by code. */
  testIn(part: Part<ScanDimension>, columns: Columns<ScanDimension>): (code: number) => FactTest
  /** The test of conversions. */
  testOf(conversions: Conversions): FactTest
}

/** A filter by the keys of a side that met the parts before. */
export function factFilter(side: Side, wanted: readonly string[]): FactFilter {
  const keys = new Set(wanted)
  const isWanted = (place: number) => keys.has(side.keys.list[place] ?? '')
  return {
    testIn(part, columns) {
      const { sums } = side
      if (sums?.by === 'value') {
        const { index } = columns.dimensions[sums.dimension]
        const mask = Uint8Array.from(sums.placesIn(part), (place) => (isWanted(place) ? 1 : 0))
        return () => (i) => mask[index[i] ?? 0] === 1
      }
      // One fact at a time: what a side tells of it depends on its code or on its moment.
      const [fact, place] = [new Uint32Array(1), new Uint32Array(1)]
      return (code) => {
        const one = { columns, code, facts: fact, length: 1 }
        return (i) => {
          fact[0] = i
          side.fill(part, one, place)
          return isWanted(place[0] ?? 0)
        }
      }
    },
    testOf(conversions) {
      const places = side.placesOf(conversions)
      const mask = Uint8Array.from(side.keys.list, (key) => (keys.has(key) ? 1 : 0))
      return (k) => mask[places[k] ?? 0] === 1
    },
  }
}
