import type { EntityManager } from 'typeorm'
import { NEUTRAL_LOOKS, PLAIN_LOOK } from '@flimbo/core/symbol'
import { tables } from '../database/index.ts'

/** Gives a new workspace the looks that ship with Flimbo; the plain one needs no row. */
export async function insertNeutralStyles(
  manager: EntityManager,
  workspaceId: number,
  at: number,
): Promise<void> {
  for (const { name, look } of NEUTRAL_LOOKS)
    if (look !== PLAIN_LOOK)
      // TypeORM wants to know the parts of a value it only writes as JSON.
      await manager.insert(tables.houseStyles, {
        workspaceId,
        clientId: null,
        name,
        look: look as never,
        version: 1,
        createdAt: at,
      })
}
