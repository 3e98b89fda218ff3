/** The row so many steps from another; the first or last where the list ends, undefined where it is empty. */
export function neighbour<Row extends { readonly id: number }>(
  rows: readonly Row[],
  id: number | undefined,
  by: number,
): Row | undefined {
  return rows[Math.min(rows.length - 1, Math.max(0, rows.findIndex((row) => row.id === id) + by))]
}
