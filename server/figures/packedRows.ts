import { packColumns, type Columns } from '@flimbo/core/figures'
import type { FactReader } from './fact.ts'

/** Facts with numbers above one and up to another, packed some at a time as they are read from the database. */
export function* packedRows<D extends string>(
  reader: FactReader<D>,
  after: number,
  upTo: number,
  atOnce: number,
): Generator<Columns<D>> {
  for (let from = after; from < upTo;) {
    const rows = reader.between(from, upTo, atOnce)
    if (rows.id.length === 0) return
    from = rows.id.at(-1) ?? upTo
    yield packColumns(rows)
  }
}
