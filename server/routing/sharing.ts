import type { EntityManager } from 'typeorm'
import { tables } from '../database/index.ts'

const AT_ONCE = 1000

/** How many codes lead by each of some routes, deleted ones left out; a route without any is not in it. */
export async function codesOnRoutes(
  manager: EntityManager,
  routeIds: Iterable<number>,
): Promise<Map<number, number>> {
  const wanted = [...new Set(routeIds)]
  const counts = new Map<number, number>()
  for (let i = 0; i < wanted.length; i += AT_ONCE) {
    const found = await manager
      .createQueryBuilder()
      .select('c.routeId', 'routeId')
      .addSelect('count(*)', 'n')
      .from(tables.codes, 'c')
      .where("c.routeId IN (:...ids) AND c.state <> 'deleted'", { ids: wanted.slice(i, i + AT_ONCE) })
      .groupBy('c.routeId')
      .getRawMany<{ routeId: number; n: number }>()
    for (const { routeId, n } of found) counts.set(routeId, n)
  }
  return counts
}
