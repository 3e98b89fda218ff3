import type { IncomingMessage } from 'node:http'

/** Reads a body as text; null where it is longer than so many bytes, and then whoever sends it is cut off. */
export function readBody(request: IncomingMessage, bytesMax: number): Promise<string | null> {
  return new Promise((resolve, reject) => {
    const pieces: Buffer[] = []
    let length = 0
    request.on('data', (piece: Buffer) => {
      length += piece.length
      if (length <= bytesMax) pieces.push(piece)
      else {
        resolve(null)
        request.destroy()
      }
    })
    request.on('end', () => {
      resolve(Buffer.concat(pieces).toString('utf8'))
    })
    request.on('error', reject)
  })
}
