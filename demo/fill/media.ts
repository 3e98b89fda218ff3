import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { tables, type Database } from '@flimbo/server/database'
import { fileLibrary } from '@flimbo/server/files'
import { SEALS_DRAWING, wavesSound } from '../scenario/media.ts'

/** The public keys of the sample's files. */
export interface SampleFiles {
  readonly seals: string
  readonly waves: string
}

/** Uploads what the sample's pages show. */
export async function fillMedia(
  database: Database,
  directory: string,
  personId: number,
): Promise<SampleFiles> {
  const { workspaceId } = await database.read.findOneByOrFail(tables.people, { id: personId })
  const files = fileLibrary({ database, directory, quotaBytes: Infinity })
  const temporary = mkdtempSync(join(tmpdir(), 'flimbo-media-'))
  const take = async (name: string, bytes: Uint8Array) => {
    const file = join(temporary, 'file')
    writeFileSync(file, bytes)
    return (await files.take(workspaceId, personId, name, file)).key
  }
  try {
    return {
      seals: await take(
        'seals.jpg',
        await sharp(Buffer.from(SEALS_DRAWING)).jpeg({ quality: 90 }).toBuffer(),
      ),
      waves: await take('waves.wav', wavesSound()),
    }
  } finally {
    rmSync(temporary, { recursive: true, force: true })
  }
}
