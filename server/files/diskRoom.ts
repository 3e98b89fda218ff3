import { statfsSync } from 'node:fs'
import { Refusal } from '../api/index.ts'

/** What stays free on the disk whatever is written to it, bytes: scans are written to the same disk. */
const RESERVE_BYTES = 512 * 1024 * 1024
const LOOK_MS = 500

export function freeBytesOf(directory: string): number {
  const { bavail, bsize } = statfsSync(directory)
  return bavail * bsize
}

/**
 * Looks now and then whether there is room on the disk of a directory.
 *
 * @throws Refusal where going on could leave none for scans
 */
export function roomKeeper(directory: string, freeBytes = freeBytesOf): () => void {
  let lookedAt = 0
  return () => {
    if (Date.now() < lookedAt + LOOK_MS) return
    lookedAt = Date.now()
    if (freeBytes(directory) < RESERVE_BYTES)
      throw new Refusal(
        'taken',
        'The disk of the server is nearly full; what is left is kept for scans. Have it cleared, and try again.',
      )
  }
}
