import { createHash } from 'node:crypto'
import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { Refusal } from '../api/index.ts'

/** A ZIP file without its 64-bit extension holds less than 4 GiB and 65,535 files (APPNOTE, section 4.4). */
const BYTES_MAX = 0xffff_ffff - (1 << 20)
const FILES_MAX = 65_000
/** What is compressed already is stored as it is. */
const PACKED = /\.(png|jpeg|webp|pdf)$/

/** Writes a ZIP file part by part, no faster than its reader takes it. */
export function archive(out: Writable) {
  let isFull = false
  let bytes = 0
  let files = 0
  const zip = new Zip((error, part) => {
    if (error) {
      out.destroy(error)
      return
    }
    bytes += part.length
    if (!out.write(part)) isFull = true
  })
  return {
    /** @returns the SHA-256 of what was added; @throws Refusal where it would be more than a ZIP file holds */
    async add(name: string, content: Uint8Array): Promise<string> {
      if (bytes + content.length > BYTES_MAX || ++files > FILES_MAX)
        throw new Refusal(
          'tooLarge',
          'That is more than one ZIP file holds (4 GB, or 65,000 files). Choose fewer pieces, or fewer dpi.',
        )
      const file = PACKED.test(name) ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 })
      // The same pieces give the same bytes: a file says nothing of when it was made.
      file.mtime = new Date(1980, 0, 1)
      zip.add(file)
      file.push(content, true)
      if (isFull && !out.destroyed) {
        isFull = false
        await Promise.race([once(out, 'drain'), once(out, 'close')])
      }
      return createHash('sha256').update(content).digest('hex')
    },
    end(): void {
      zip.end()
    },
  }
}
