import type { EntityManager } from 'typeorm'
import type { StyleUse } from '@flimbo/core/houseStyles'
import { tables } from '../database/index.ts'

/** So many of them are named. */
const SHOWN_MAX = 50

/** What is printed in a house style: released things first, as a new look is not what was printed of them. */
export async function styleUses(
  read: EntityManager,
  styleId: number,
): Promise<{ rows: StyleUse[]; total: number; released: number }> {
  const rows: StyleUse[] = []
  let [total, released] = [0, 0]
  for (const kind of ['code', 'static'] as const) {
    const used = () => {
      const query = read
        .createQueryBuilder(kind === 'code' ? tables.codes : tables.staticCodes, 'c')
        .innerJoin(tables.campaigns.options.name, 'm', 'm.id = c.campaignId')
        .where('c.styleId = :styleId', { styleId })
      return kind === 'code' ? query.andWhere("c.state <> 'deleted'") : query
    }
    const isReleased = `EXISTS (${read
      .createQueryBuilder(tables.releases, 'r')
      .select('1')
      .where(kind === 'code' ? 'r.codeId = c.id' : 'r.staticCodeId = c.id')
      .getQuery()})`
    const found = await used()
      .select('c.id', 'id')
      .addSelect('c.name', 'name')
      .addSelect('m.name', 'campaignName')
      .addSelect(isReleased, 'isReleased')
      .orderBy('isReleased', 'DESC')
      .addOrderBy('c.name')
      .addOrderBy('c.id')
      .limit(SHOWN_MAX - rows.length)
      .getRawMany<{ id: number; name: string; campaignName: string; isReleased: number }>()
    rows.push(...found.map((row) => ({ kind, ...row, isReleased: Boolean(row.isReleased) })))
    total += await used().getCount()
    released += await used().andWhere(isReleased).getCount()
  }
  return { rows, total, released }
}
