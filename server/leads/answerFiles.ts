import { createReadStream, createWriteStream, existsSync } from 'node:fs'
import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Readable } from 'node:stream'
import type { AnswerFile } from '@flimbo/core/forms'
import { roomKeeper } from '../files/index.ts'

const KEY_BYTES = 18
const KEY = /^[A-Za-z0-9_-]{24}$/
/** Files that were sent with forms nobody finished are kept for so long. */
const UNFINISHED_MS = 3 * 24 * 3_600_000

/** Files that were sent with answers. They are nobody's but those who may read the answers: no public address leads to them. */
export function answerFiles(dataDir: string) {
  const directory = join(dataDir, 'answers')
  const keepRoom = roomKeeper(dataDir)
  const pathOf = (key: string) => {
    if (!KEY.test(key)) throw new Error('This is no key of a file.')
    return join(directory, key)
  }

  return {
    /**
     * Keeps what is sent, on disk before this resolves. Its type is told by its content.
     * @returns null where it is longer than so many bytes
     * @throws Refusal where the disk is so full that scans might not be written
     */
    async keep(source: Readable, name: string, bytesMax: number): Promise<AnswerFile | null> {
      keepRoom()
      await mkdir(directory, { recursive: true })
      const key = randomBytes(KEY_BYTES).toString('base64url')
      const path = pathOf(key)
      let bytes = 0
      source.on('data', (piece: Buffer) => {
        bytes += piece.length
      })
      try {
        await pipeline(source, createWriteStream(path, { flags: 'wx', flush: true }))
      } catch (error) {
        await rm(path, { force: true })
        throw error
      }
      if (bytes > bytesMax || bytes === 0) {
        await rm(path, { force: true })
        return null
      }
      const { fileTypeFromFile } = await import('file-type')
      const type = (await fileTypeFromFile(path))?.mime ?? 'application/octet-stream'
      return { key, name: cleanName(name), type, bytes }
    },
    async remove(key: string): Promise<void> {
      await rm(pathOf(key), { force: true })
    },
    /** Whether a file is still there. */
    has: (key: string): boolean => KEY.test(key) && existsSync(pathOf(key)),
    open: (key: string): Readable => createReadStream(pathOf(key)),
    /** Removes files that stand in no answer and were not sent lately. @param isKept whether an answer has it */
    async tidy(isKept: (key: string) => boolean, now: number): Promise<number> {
      let removed = 0
      for (const key of await readdir(directory).catch(() => [])) {
        if (!KEY.test(key) || isKept(key)) continue
        const found = await stat(pathOf(key)).catch(() => null)
        if (!found || now - found.mtimeMs < UNFINISHED_MS) continue
        await rm(pathOf(key), { force: true })
        removed++
      }
      return removed
    },
  }
}
export type AnswerFiles = ReturnType<typeof answerFiles>

const NAME_MAX = 120
/** A name as it may be shown and saved: no path, no control characters. */
const cleanName = (name: string) =>
  name
    .replace(/^.*[\\/]/, '')
    .replace(/\p{Cc}/gu, '')
    .slice(-NAME_MAX) || 'file'
