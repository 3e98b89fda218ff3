import type { EntityManager } from 'typeorm'

/** Which of some codes were ever asked for, by a person's device or otherwise: what is printed of them may still be out there. */
export async function findScanned(manager: EntityManager, codeIds: readonly number[]): Promise<Set<number>> {
  if (codeIds.length === 0) return new Set()
  const rows = await manager.query<{ id: number }[]>(
    'SELECT value AS id FROM json_each(?) WHERE EXISTS (SELECT 1 FROM scans WHERE codeId = value)',
    [JSON.stringify(codeIds)],
  )
  return new Set(rows.map(({ id }) => id))
}
