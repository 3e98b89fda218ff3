import { z } from 'zod'
import { DIMENSION_NAMES, isOfKind, type Dimension } from './dimensions.ts'

export const FILTER_KEYS_MAX = 200

export const dimension = z.enum(DIMENSION_NAMES)
const key = z.string().max(400)

/** Which scans are meant, by dimension: those that have one of its keys, and so for each dimension that is named. */
export const filters = z.partialRecord(dimension, z.array(key).min(1).max(FILTER_KEYS_MAX))
export type Filters = z.infer<typeof filters>

/** Each dimension that filters name, with its keys. */
export const filterEntries = (given: Filters) =>
  // Its own names.
  Object.entries(given) as [Dimension, string[]][]

/** Filters with a key put in, or taken out where it was in. */
export function toggleKey(given: Filters, of: Dimension, wanted: string): Filters {
  const { [of]: there = [], ...others } = given
  const keys = there.includes(wanted) ? there.filter((each) => each !== wanted) : [...there, wanted]
  return keys.length === 0 ? others : { ...others, [of]: keys.slice(0, FILTER_KEYS_MAX) }
}

/** Filters but for those of some dimensions: what a chart of these is narrowed by, so that all their keys can be seen. */
export function withoutDimension(given: Filters, ...dimensions: readonly Dimension[]): Filters {
  return Object.fromEntries(
    filterEntries(given).filter(
      ([name]) => !dimensions.some((each) => each === name || areBothTime(each, name)),
    ),
  )
}

/** Days, weeks and hours tell the same apart. */
const areBothTime = (a: Dimension, b: Dimension) => isOfKind(a, 'time') && isOfKind(b, 'time')

/** Filters in a query, as JSON. */
export const filtersQuery = z
  .string()
  .max(100_000)
  .transform((text, context) => {
    try {
      return JSON.parse(text) as unknown
    } catch {
      context.addIssue({ code: 'custom', message: 'Write the filters as JSON.' })
      return z.NEVER
    }
  })
  .pipe(filters)
