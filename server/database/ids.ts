import type { EntityManager, EntitySchema, InsertResult, ObjectLiteral } from 'typeorm'
import type { Turns } from './writing.ts'

/** The number the database gave a row that was just inserted. */
export function insertedId(result: InsertResult): number {
  const { id } = result.identifiers[0] as { id?: unknown }
  if (typeof id !== 'number') throw new TypeError('The database gave the new row no number')
  return id
}

/**
 * Has the database give out numbers for rows that are to be inserted: nobody else ever gets one of them, whether or
 * not the rows are stored in the end. Only within a transaction.
 *
 * @param count how many; from the returned one on they follow each other
 */
export async function reserveIds<T extends ObjectLiteral>(
  manager: EntityManager,
  schema: EntitySchema<T>,
  count: number,
): Promise<number> {
  const table = manager.connection.getMetadata(schema).tableName
  // Where SQLite keeps the last number of each AUTOINCREMENT table (SQLite documentation, "SQLite Autoincrement").
  const [found] = await manager.query<{ seq: number }[]>(
    'UPDATE sqlite_sequence SET seq = seq + ? WHERE name = ? RETURNING seq',
    [count, table],
  )
  if (found) return found.seq - count + 1
  await manager.query('INSERT INTO sqlite_sequence (name, seq) VALUES (?, ?)', [table, count])
  return 1
}

/**
 * Has numbers given out in a turn of its own: rows that are made of them afterwards are made without holding the lock
 * that scans wait for.
 *
 * @param count see `reserveIds`
 */
export async function reserveInTurn<T extends ObjectLiteral>(
  manager: EntityManager,
  turns: Turns,
  schema: EntitySchema<T>,
  count: number,
): Promise<number> {
  await turns.begin()
  const first = await reserveIds(manager, schema, count)
  await turns.rest()
  return first
}
