import type { EntityManager, EntitySchema } from 'typeorm'
import { insertedId } from './ids.ts'

/** A row that a workspace knows by its name. */
interface NamedRow {
  readonly id: number
  readonly workspaceId: number
  readonly name: string
}

/**
 * Keeps a row under its name in a workspace: one of that name is replaced.
 *
 * @param max a workspace has no more of them
 * @returns its number; null where there are too many already
 */
export async function keepNamed<T extends NamedRow>(
  manager: EntityManager,
  schema: EntitySchema<T>,
  row: Omit<T, 'id'>,
  max: number,
): Promise<number | null> {
  const { workspaceId, name } = row
  // TypeORM wants to know the parts of values that it only writes as JSON, and which columns a table has.
  const [where, written] = [{ workspaceId, name } as never, row as never]
  const there = await manager.findOneBy(schema, where)
  if (there) {
    await manager.update(schema, there.id, written)
    return there.id
  }
  if ((await manager.countBy(schema, { workspaceId } as never)) >= max) return null
  return insertedId(await manager.insert(schema, written))
}
