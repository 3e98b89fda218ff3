import type { IncomingMessage } from 'node:http'
import type { Endpoint } from '@flimbo/core/api'
import { limitedThread, type Calls } from '../threads/index.ts'
import { Refusal } from './errors.ts'
import { readJson, valueOf, type BodyRead } from './read.ts'

/** What the thread is called for. */
export interface BodyCalls extends Calls {
  /** Reads the body of the endpoint at a path as its contract writes it. */
  read(method: string, path: string, bytes: Uint8Array): BodyRead
}

const DEFAULT_BYTES = 1 << 20
/** Whoever is not signed in has little to say. */
const OPEN_BYTES = 16 << 10
/** From this size on, a body is read on a thread: others are answered meanwhile. */
const THREAD_BYTES = 64 << 10
const READ_MS = 20_000
/** So much of a body that is not taken is let by, so that its sender hears why. */
const LET_BY_BYTES = 64 << 20

const tooLarge = () =>
  new Refusal('tooLarge', 'The request is larger than the server takes. Send less at once.')

/** Takes the bytes of a body, no more than are allowed. @throws Refusal */
export function readBytes(request: IncomingMessage, max: number): Promise<Uint8Array> {
  if (Number(request.headers['content-length'] ?? 0) > max) return Promise.reject(tooLarge())
  if (!/^(identity)?$/i.test(request.headers['content-encoding'] ?? ''))
    return Promise.reject(new Refusal('malformed', 'Send the request as it is, not compressed.'))
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = []
    let length = 0
    request.on('data', (part: Buffer) => {
      length += part.length
      if (length <= max) parts.push(part)
      else {
        parts.length = 0
        reject(tooLarge())
      }
    })
    request.on('end', () => {
      resolve(Buffer.concat(parts))
    })
    request.on('error', reject)
    request.on('close', () => {
      reject(new Refusal('malformed', 'The request broke off.'))
    })
  })
}

/** Lets a body by that nobody wants, so that its sender can hear the answer; one without end is cut off. */
export function drainBody(request: IncomingMessage): void {
  if (request.complete) return
  let length = 0
  request.on('data', (part: Buffer) => {
    length += part.length
    if (length > LET_BY_BYTES) request.destroy()
  })
  request.on('error', () => undefined)
  request.resume()
}

export interface Bodies {
  /** Reads the JSON body of an endpoint by its contract. @throws Refusal */
  read(request: IncomingMessage, described: Endpoint): Promise<unknown>
  close(): Promise<void>
}

const tooTangled = {
  ok: false,
  kind: 'malformed',
  sentence: 'The request is too large or too tangled to be read. Send less at once.',
} as const

/** Reads bodies: small ones at once, large ones one after the other on a thread that a time limit ends. */
export function bodyReader(): Bodies {
  const thread = limitedThread<BodyCalls>('bodies-thread', import.meta.url, READ_MS)
  return {
    async read(request, described) {
      const bytes = await readBytes(
        request,
        described.bytesMax ?? (described.access === 'anybody' ? OPEN_BYTES : DEFAULT_BYTES),
      )
      const { method, path, body } = described
      return valueOf(
        bytes.length < THREAD_BYTES
          ? readJson(bytes, body)
          : ((await thread.call('read', method, path, bytes)) ?? tooTangled),
      )
    },
    close: () => thread.close(),
  }
}
