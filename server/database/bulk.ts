import type { EntityManager, EntitySchema, ObjectLiteral } from 'typeorm'
import { ONE_TURN, type Turns } from './writing.ts'

/** So many rows go into one statement; SQLite takes 32,766 values in all. */
const ROWS_MAX = 100
/** In turns it is fewer: a statement cannot be broken off once its turn is over. */
const ROWS_IN_TURNS = 5

/** Statements written once by TypeORM, by table, kind and number of rows. */
const written = new WeakMap<EntitySchema<never>, Map<string, string>>()

function statement(schema: EntitySchema<never>, kind: string, write: () => string): string {
  const known = written.get(schema) ?? new Map<string, string>()
  written.set(schema, known)
  const sql = known.get(kind) ?? write()
  known.set(kind, sql)
  return sql
}

function columnsOf<T extends ObjectLiteral>(manager: EntityManager, schema: EntitySchema<T>) {
  const { driver } = manager.connection
  return manager.connection.getMetadata(schema).columns.map((column) => ({
    name: column.propertyName,
    valueOf: (row: T): unknown => driver.preparePersistentValue(row[column.propertyName] ?? null, column),
  }))
}

/** A row in which every column has some value, so that TypeORM writes a place for each. */
function sample<T extends ObjectLiteral>(columns: readonly { name: string }[]): T {
  return Object.fromEntries(columns.map(({ name }) => [name, '…'])) as T
}

/**
 * Inserts rows whose numbers are known, many a statement: TypeORM writes each statement once and it is run
 * again with other values. Not for tables with yes-or-no columns, whose values TypeORM writes into the statement.
 */
export async function insertMany<T extends ObjectLiteral>(
  manager: EntityManager,
  schema: EntitySchema<T>,
  rows: readonly T[],
  turns: Turns = ONE_TURN,
): Promise<void> {
  const columns = columnsOf(manager, schema)
  const atOnce = turns === ONE_TURN ? ROWS_MAX : ROWS_IN_TURNS
  for (let i = 0; i < rows.length; i += atOnce) {
    const some = rows.slice(i, i + atOnce)
    const sql = statement(
      schema as EntitySchema<never>,
      `insert ${String(some.length)}`,
      () =>
        manager
          .createQueryBuilder()
          .insert()
          .into(schema)
          .values(some.map(() => sample<T>(columns) as never))
          .updateEntity(false)
          .getQueryAndParameters()[0],
    )
    await manager.query(
      sql,
      some.flatMap((row) => columns.map(({ valueOf }) => valueOf(row))),
    )
    await turns.pause()
  }
}

/** Stores rows over those of the same number, one prepared statement for all. */
export async function updateMany<T extends ObjectLiteral & { id: number }>(
  manager: EntityManager,
  schema: EntitySchema<T>,
  rows: readonly T[],
  turns: Turns = ONE_TURN,
): Promise<void> {
  const columns = columnsOf(manager, schema).filter(({ name }) => name !== 'id')
  const sql = statement(
    schema as EntitySchema<never>,
    'update',
    () =>
      manager
        .createQueryBuilder()
        .update(schema)
        .set(sample<T>(columns))
        .where('id = :id', { id: '…' })
        .getQueryAndParameters()[0],
  )
  for (const row of rows) {
    await manager.query(sql, [...columns.map(({ valueOf }) => valueOf(row)), row.id])
    await turns.pause()
  }
}
