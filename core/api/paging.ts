import { z } from 'zod'

/** Numbers of things that something is done with at once. */
export const someIds = (max: number) => z.array(z.int().positive()).min(1).max(max)

export const PAGE_SIZE_MAX = 500

/**
 * The query of a list: which page (from 0), how many rows a page (at most 500), and by which of the
 * given fields it is sorted.
 */
export function pageQuery<const Fields extends readonly [string, ...string[]]>(
  fields: Fields,
  fallback: Fields[number],
) {
  return z.strictObject({
    page: z.coerce.number().int().min(0).max(1_000_000).default(0),
    pageSize: z.coerce.number().int().min(1).max(PAGE_SIZE_MAX).default(50),
    sort: z.enum(fields, { error: `Sort by one of: ${fields.join(', ')}.` }).default(fallback as never),
    order: z.enum(['asc', 'desc'], { error: 'The order is asc or desc.' }).default('asc'),
  })
}

/** One page of a list, with the number of rows in the whole list. */
export function pageOf<Row extends z.ZodType>(row: Row) {
  return z.object({
    rows: z.array(row),
    total: z.int().min(0),
    page: z.int().min(0),
    pageSize: z.int().min(1),
  })
}

/** The path parameter of one object. */
export const idParams = z.strictObject({
  id: z.coerce.number({ error: 'The number in the address is not one.' }).int().positive(),
})

/** The object one came from, in a query: a whole number above 0. */
export const idQuery = z.coerce.number({ error: 'Give a number.' }).int().positive()
