import type { EntityManager } from 'typeorm'

/** Which of some codes were ever asked for, by a person's device or otherwise: what is printed of them may still be out there. */
export async function findScanned(manager: EntityManager, codeIds: readonly number[]): Promise<Set<number>> {
  if (codeIds.length === 0) return new Set()
  const rows = await manager.query<{ id: number }[]>(
    'SELECT codeId AS id FROM scanned_codes WHERE codeId IN (SELECT value FROM json_each(?))',
    [JSON.stringify(codeIds)],
  )
  return new Set(rows.map(({ id }) => id))
}
