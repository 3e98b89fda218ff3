import type { EntityManager } from 'typeorm'
import type { FileUse } from '@flimbo/core/files'
import { findAmong, tables } from '../database/index.ts'

/** What uses some files, by their public keys, told by their sums: one that is not there any more is used by nothing. */
export async function usesOf(
  read: EntityManager,
  workspaceId: number,
  users: readonly { readonly use: FileUse; readonly keys: readonly string[] }[],
): Promise<{ sum: string; use: FileUse }[]> {
  const keys = users.flatMap((user) => user.keys)
  const rows = await findAmong(read, tables.files, 'key', keys, { workspaceId })
  const sums = new Map(rows.map(({ key, sum }) => [key, sum]))
  return users.flatMap((user) =>
    user.keys.flatMap((key) => {
      const sum = sums.get(key)
      return sum === undefined ? [] : [{ sum, use: user.use }]
    }),
  )
}
