import type { EntityManager } from 'typeorm'
import { findAmong } from './among.ts'
import { tables } from './entities/index.ts'

/** What some people are called; of one who is gone it is only known that they are. */
export async function peopleNames(
  read: EntityManager,
  ids: Iterable<number>,
): Promise<(id: number) => string> {
  const people = await findAmong(read, tables.people, 'id', ids)
  const names = new Map(people.map(({ id, name }) => [id, name]))
  return (id) => names.get(id) ?? 'someone who left'
}
