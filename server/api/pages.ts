/** Which page of a list is meant, and how the list is sorted. */
export interface PageQuery<Sort extends string = string> {
  readonly page: number
  readonly pageSize: number
  readonly sort: Sort
  readonly order: 'asc' | 'desc'
}

/**
 * Cuts a page out of a list by a value of each row, text by the reader's alphabet and what has no
 * value last; equals keep their order. For lists sorted by what the table itself does not know.
 */
export function sortedPage<T>(
  rows: readonly T[],
  query: PageQuery,
  valueOf: (row: T) => number | string | null,
): T[] {
  const factor = query.order === 'asc' ? 1 : -1
  const collator = new Intl.Collator('en', { numeric: true })
  const sorted = rows
    .map((row) => ({ row, value: valueOf(row) }))
    .sort((a, b) => {
      if (a.value === null || b.value === null) return Number(a.value === null) - Number(b.value === null)
      if (typeof a.value === 'string' || typeof b.value === 'string')
        return factor * collator.compare(String(a.value), String(b.value))
      return factor * (a.value - b.value)
    })
    .map(({ row }) => row)
  return sorted.slice(query.page * query.pageSize, (query.page + 1) * query.pageSize)
}

/** The bounds of a page, as TypeORM takes them. */
export function bounds({ page, pageSize }: PageQuery) {
  return { skip: page * pageSize, take: pageSize }
}
