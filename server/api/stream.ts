import { once } from 'node:events'
import type { Response } from 'express'

/** Writes, and waits where the other side is slower; whoever is gone is not waited for. */
export async function writeTo(response: Response, part: string | Uint8Array): Promise<void> {
  if (response.destroyed || response.write(part)) return
  const gone = new AbortController()
  // Whichever comes first takes the other's listener with it: many parts are written to one answer.
  await Promise.race([
    once(response, 'drain', { signal: gone.signal }),
    once(response, 'close', { signal: gone.signal }),
  ]).catch(() => undefined)
  gone.abort()
}
