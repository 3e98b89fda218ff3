import type Sqlite from 'better-sqlite3'

const REMEMBERED = 50_000

/** Reads rows that never change by their numbers, each once as long as there are not too many. */
export function rememberedRows<R>(row: Sqlite.Statement): (id: number) => R | undefined {
  const known = new Map<number, R>()
  return (id) => {
    const there = known.get(id)
    if (there !== undefined) return there
    const read = row.get(id) as R | undefined
    if (read === undefined) return undefined
    if (known.size >= REMEMBERED) known.clear()
    known.set(id, read)
    return read
  }
}
