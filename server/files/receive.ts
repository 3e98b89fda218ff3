import { createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { Refusal } from '../api/index.ts'

const MB = 1024 * 1024
const tooLarge = (max: number) =>
  new Refusal(
    'tooLarge',
    `The file is larger than ${String(Math.floor(max / MB))} MB. Save it smaller, or with fewer pixels, and upload it again.`,
  )

/**
 * Writes the body of a request to a file, part by part as it comes; nothing of it is left where it does not come to
 * its end.
 *
 * @param keepRoom called for each part; throws where there is no room
 * @returns how many bytes there were
 * @throws Refusal
 */
export async function receive(
  request: IncomingMessage,
  file: string,
  max: number,
  keepRoom: () => void,
): Promise<number> {
  if (Number(request.headers['content-length'] ?? 0) > max) throw tooLarge(max)
  if (!/^(identity)?$/i.test(request.headers['content-encoding'] ?? ''))
    throw new Refusal('malformed', 'Send the file as it is, not compressed.')
  let bytes = 0
  const counted = new Transform({
    transform(part: Buffer, _encoding, done) {
      bytes += part.length
      try {
        if (bytes > max) throw tooLarge(max)
        keepRoom()
        done(null, part)
      } catch (error) {
        done(error as Error)
      }
    },
  })
  // Not by `pipeline`, which would cut the connection before its sender has heard why.
  request.on('aborted', () => {
    counted.destroy(new Refusal('malformed', 'The upload broke off, and nothing of it was kept. Try again.'))
  })
  request.on('error', (error) => counted.destroy(error))
  request.pipe(counted)
  try {
    await pipeline(counted, createWriteStream(file, { flags: 'wx' }))
    return bytes
  } catch (error) {
    request.unpipe(counted)
    await rm(file, { force: true })
    throw error
  }
}
