import type { PlanColumn } from './columns.ts'

/** Which column each heading of a file stands for; null where it stands for none. */
export type Mapping = readonly (string | null)[]

/** A heading without what its spellings differ by. */
export function headingForm(heading: string): string {
  return heading
    .trim()
    .toLowerCase()
    .replace(/[_\s]+/g, ' ')
    .replace(/[^\p{L}\p{N} /(),-]/gu, '')
}

/** Columns by the forms of some of their names; of equal names the first column has it. */
function byForm(
  columns: readonly PlanColumn[],
  namesOf: (column: PlanColumn) => readonly string[],
): ReadonlyMap<string, string> {
  const found = new Map<string, string>()
  for (const column of columns)
    for (const name of namesOf(column))
      if (!found.has(headingForm(name))) found.set(headingForm(name), column.id)
  return found
}

/**
 * Finds what each heading stands for: as the workspace decided the last time, by the column's own title
 * or name, or by another name it often has. Every column is taken once, by the surest heading.
 */
export function detectMapping(
  headings: readonly string[],
  columns: readonly PlanColumn[],
  remembered: Readonly<Record<string, string | null>> = {},
): (string | null)[] {
  const mapping: (string | null)[] = headings.map(() => null)
  const taken = new Set<string>()
  const forms = headings.map(headingForm)
  const known = new Set(columns.map(({ id }) => id))
  const own = new Map(Object.entries(remembered))
  const passes = [own, byForm(columns, ({ id, title }) => [title, id]), byForm(columns, ({ also }) => also)]
  for (const pass of passes) {
    forms.forEach((form, i) => {
      if (mapping[i] !== null || form === '' || own.get(form) === null) return
      const id = pass.get(form)
      if (!id || taken.has(id) || !known.has(id)) return
      mapping[i] = id
      taken.add(id)
    })
  }
  return mapping
}

/** Whether a first row is one of headings: some of its cells name columns, and none is a number or an address. */
export function looksLikeHeadings(row: readonly string[], columns: readonly PlanColumn[]): boolean {
  if (row.some((cell) => /^https?:/i.test(cell) || /^-?\d+([.,]\d+)?$/.test(cell.trim()))) return false
  return detectMapping(row, columns).some((id) => id !== null)
}
