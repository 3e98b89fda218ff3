import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { insertedId, tables, type Database } from '@flimbo/server/database'
import { fileLibrary } from '@flimbo/server/files'
import { BOAT_MARK, STYLES } from '../scenario/styles.ts'

/**
 * Uploads the sample's mark and makes its house styles.
 *
 * @returns which house style pieces of a source are printed in
 */
export async function fillStyles(
  database: Database,
  directory: string,
  { personId, now }: { personId: number; now: number },
): Promise<ReadonlyMap<string, number>> {
  const { workspaceId } = await database.read.findOneByOrFail(tables.people, { id: personId })
  const files = fileLibrary({ database, directory, quotaBytes: Infinity })
  const temporary = mkdtempSync(join(tmpdir(), 'flimbo-mark-'))
  try {
    const mark = join(temporary, 'boat.svg')
    writeFileSync(mark, BOAT_MARK)
    const { sum } = await files.take(workspaceId, personId, 'boat mark.svg', mark)
    return await database.write(async (manager) => {
      const styleOf = new Map<string, number>()
      for (const { name, sources, look } of STYLES) {
        const row = { workspaceId, clientId: null, name, version: 1, createdAt: now }
        const id = insertedId(await manager.insert(tables.houseStyles, { ...row, look: look(sum) as never }))
        for (const source of sources) styleOf.set(source, id)
      }
      return styleOf
    })
  } finally {
    rmSync(temporary, { recursive: true, force: true })
  }
}
