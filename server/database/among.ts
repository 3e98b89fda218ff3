import { In, type EntityManager, type EntitySchema, type FindOptionsWhere, type ObjectLiteral } from 'typeorm'

/** SQLite takes 32,766 values in one statement; parts this large are as quick as larger ones. */
const AT_ONCE = 1000

/** Rows whose column holds one of many values, asked for in parts: there may be more values than one statement takes. */
export async function findAmong<T extends ObjectLiteral, C extends keyof T & string>(
  manager: EntityManager,
  schema: EntitySchema<T>,
  column: C,
  values: Iterable<T[C]>,
  where: FindOptionsWhere<T> = {},
): Promise<T[]> {
  const wanted = [...new Set(values)]
  const rows: T[] = []
  for (let i = 0; i < wanted.length; i += AT_ONCE) {
    rows.push(...(await manager.findBy(schema, { ...where, [column]: In(wanted.slice(i, i + AT_ONCE)) })))
  }
  return rows
}
