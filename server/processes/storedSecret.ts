import { randomBytes } from 'node:crypto'
import { linkSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const BYTES = 32

/**
 * A secret of this installation that outlives a restart, made once: what pages carry in their links is good for longer than a
 * process runs. Several front doors that begin at once agree on one.
 */
export function storedSecret(directory: string): string {
  const file = join(directory, 'door.secret')
  const read = () => readFileSync(file, 'utf8')
  try {
    return read()
  } catch {
    const half = `${file}.${randomBytes(6).toString('hex')}`
    writeFileSync(half, randomBytes(BYTES).toString('base64url'), { mode: 0o600 })
    try {
      // Whole or not at all; who comes second finds that of the first.
      linkSync(half, file)
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
    } finally {
      rmSync(half, { force: true })
    }
    return read()
  }
}
