import { once } from 'node:events'
import type { Writable } from 'node:stream'

/** Writes, and waits where the other side is slower; whoever is gone is not waited for. */
export async function writeTo(stream: Writable, part: string | Uint8Array): Promise<void> {
  if (stream.destroyed || stream.write(part)) return
  const gone = new AbortController()
  // Whichever comes first takes the other's listener with it: many parts are written to one answer.
  await Promise.race([
    once(stream, 'drain', { signal: gone.signal }),
    once(stream, 'close', { signal: gone.signal }),
  ]).catch(() => undefined)
  gone.abort()
}
