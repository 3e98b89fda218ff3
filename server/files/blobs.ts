import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, mkdirSync, type ReadStream } from 'node:fs'
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'

/** What is younger than this may belong to something that is only just being stored. */
const FORGOTTEN_MS = 60 * 60_000

/** Bytes on disk, each once, under their SHA-256; what is written is there for good before its name says so. */
export function blobStore(directory: string) {
  const incoming = join(directory, 'incoming')
  mkdirSync(incoming, { recursive: true })
  const placeOf = (sum: string, suffix = '') => join(directory, sum.slice(0, 2), `${sum}${suffix}`)

  async function write(file: string, bytes: Uint8Array): Promise<void> {
    const half = join(incoming, randomUUID())
    const handle = await open(half, 'wx')
    try {
      await handle.writeFile(bytes)
      await handle.sync()
    } finally {
      await handle.close()
    }
    await rename(half, file)
  }

  return {
    /** Where things come in, before it is known what they are. */
    incoming,
    placeOf,
    /**
     * Keeps bytes, and others beside them under the same name and a suffix.
     *
     * @returns the SHA-256 of the former
     */
    async keep(bytes: Uint8Array, beside: Readonly<Record<string, Uint8Array>> = {}): Promise<string> {
      const sum = createHash('sha256').update(bytes).digest('hex')
      await mkdir(join(directory, sum.slice(0, 2)), { recursive: true })
      for (const [suffix, more] of Object.entries(beside)) await write(placeOf(sum, suffix), more)
      await write(placeOf(sum), bytes)
      return sum
    },
    /** Keeps a file that lies among what comes in, whatever its length; it is moved. @returns its SHA-256 */
    async keepFile(file: string): Promise<string> {
      const hash = createHash('sha256')
      await pipeline(createReadStream(file), hash)
      const sum = hash.digest('hex')
      await mkdir(join(directory, sum.slice(0, 2)), { recursive: true })
      const handle = await open(file)
      try {
        await handle.sync()
      } finally {
        await handle.close()
      }
      await rename(file, placeOf(sum))
      return sum
    },
    /** Keeps more beside a file, under its name and a suffix. */
    async keepBeside(sum: string, beside: Readonly<Record<string, Uint8Array>>): Promise<void> {
      for (const [suffix, more] of Object.entries(beside)) await write(placeOf(sum, suffix), more)
    },
    /** @throws Error where there is no such file */
    async open(sum: string, suffix = ''): Promise<{ stream: ReadStream; bytes: number }> {
      const file = placeOf(sum, suffix)
      const { size } = await stat(file)
      return { stream: createReadStream(file), bytes: size }
    },
    /** Removes a file and all that lies beside it. */
    async remove(sum: string): Promise<void> {
      const folder = join(directory, sum.slice(0, 2))
      for (const name of await readdir(folder))
        if (name.startsWith(sum)) await rm(join(folder, name), { force: true })
    },
    /** Takes away what was coming in when an earlier process ended, and what nothing knows of. */
    async tidy(isKnown: (sum: string) => boolean): Promise<void> {
      const old = Date.now() - FORGOTTEN_MS
      const removeOld = async (file: string) => {
        if ((await stat(file)).mtimeMs < old) await rm(file, { force: true })
      }
      for (const name of await readdir(incoming)) await removeOld(join(incoming, name))
      for (const folder of await readdir(directory)) {
        if (!/^[0-9a-f]{2}$/.test(folder)) continue
        for (const name of await readdir(join(directory, folder)))
          if (!isKnown(name.slice(0, 64))) await removeOld(join(directory, folder, name))
      }
    },
  }
}
export type BlobStore = ReturnType<typeof blobStore>
