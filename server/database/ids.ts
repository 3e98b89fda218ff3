import type { InsertResult } from 'typeorm'

/** The number the database gave a row that was just inserted. */
export function insertedId(result: InsertResult): number {
  const { id } = result.identifiers[0] as { id?: unknown }
  if (typeof id !== 'number') throw new TypeError('The database gave the new row no number')
  return id
}
