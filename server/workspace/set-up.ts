import type { z } from 'zod'
import type { setUp as setUpContract } from '@flimbo/core/workspace'
import { Refusal } from '../api/index.ts'
import { insertedId, tables, type Database } from '../database/index.ts'
import { insertNeutralStyles } from '../houseStyles/index.ts'
import { hashPassword } from './passwords.ts'

/** Whether nobody has set this Flimbo up yet. */
export async function isNew(database: Database): Promise<boolean> {
  return !(await database.read.exists(tables.people))
}

const setUpAlready = () =>
  new Refusal('forbidden', 'This Flimbo is set up already. Sign in, or ask its owner to invite you.')

/**
 * Creates the workspace, its first client and its owner, on an installation where nobody is yet.
 * @returns the owner's number
 */
export async function setUpWorkspace(
  database: Database,
  given: z.output<typeof setUpContract>,
): Promise<number> {
  // Deriving a key takes 64 MiB and a tenth of a second: not for everybody who asks.
  if (!(await isNew(database))) throw setUpAlready()
  const passwordHash = await hashPassword(given.password)
  const createdAt = Date.now()
  return database.write(async (manager) => {
    if (await manager.exists(tables.people)) throw setUpAlready()
    const workspaceId = insertedId(
      await manager.insert(tables.workspaces, { name: given.workspace, zone: given.zone, createdAt }),
    )
    await manager.insert(tables.clients, { workspaceId, name: given.workspace, createdAt })
    await insertNeutralStyles(manager, workspaceId, createdAt)
    return insertedId(
      await manager.insert(tables.people, {
        workspaceId,
        name: given.name,
        email: given.email,
        role: 'admin',
        passwordHash,
        createdAt,
      }),
    )
  })
}
