import type { IncomingMessage } from 'node:http'
import type { Worker } from 'node:worker_threads'
import type { Endpoint } from '@flimbo/core/api'
import { startThread } from '../threads/index.ts'
import { Refusal } from './errors.ts'
import { readJson, type BodyRead } from './read.ts'

/** What the thread is asked to read. */
export interface BodyOrder {
  readonly method: string
  readonly path: string
  readonly bytes: Uint8Array
}

const USUAL_BYTES = 1 << 20
/** Whoever is not signed in has little to say. */
const OPEN_BYTES = 16 << 10
/** From this size on, a body is read on a thread: others are answered meanwhile. */
const THREAD_BYTES = 64 << 10
const READ_MS = 20_000
const IDLE_MS = 60_000
/** So much of a body that is not taken is let by, so that its sender hears why. */
const LET_BY_BYTES = 64 << 20

const tooLarge = () => new Refusal('tooLarge', 'The request is larger than the server takes. Send less at once.')

/** Takes the bytes of a body, no more than are allowed. @throws Refusal */
export function takeBytes(request: IncomingMessage, max: number): Promise<Uint8Array> {
  if (Number(request.headers['content-length'] ?? 0) > max) return Promise.reject(tooLarge())
  if (!/^(identity)?$/i.test(request.headers['content-encoding'] ?? '')) return Promise.reject(new Refusal('malformed', 'Send the request as it is, not compressed.'))
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = []
    let length = 0
    request.on('data', (part: Buffer) => {
      length += part.length
      if (length <= max) parts.push(part)
      else { parts.length = 0; reject(tooLarge()) }
    })
    request.on('end', () => { resolve(Buffer.concat(parts)) })
    request.on('error', reject)
    request.on('close', () => { reject(new Refusal('malformed', 'The request broke off.')) })
  })
}

/** Lets a body by that nobody wants, so that its sender can hear the answer; one without end is cut off. */
export function letBy(request: IncomingMessage): void {
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

/** Reads bodies: small ones at once, large ones one after the other on a thread that a time limit ends. */
export function bodyReader(): Bodies {
  let thread: Worker | null = null
  let idle: NodeJS.Timeout | null = null
  let turn: Promise<unknown> = Promise.resolve()

  async function close(): Promise<void> {
    if (idle) clearTimeout(idle)
    const ending = thread
    thread = null
    await ending?.terminate()
  }

  function onThread(order: BodyOrder): Promise<BodyRead> {
    if (idle) clearTimeout(idle)
    const working = (thread ??= startThread('bodies-thread', import.meta.url, {}, { maxOldGenerationSizeMb: 1024 }))
    return new Promise((resolve) => {
      const settle = (read: BodyRead) => {
        clearTimeout(late)
        working.off('message', settle).off('error', fail).off('exit', fail)
        idle = setTimeout(() => { void close() }, IDLE_MS)
        idle.unref()
        resolve(read)
      }
      const fail = () => {
        thread = null
        void working.terminate()
        settle({ ok: false, kind: 'malformed', sentence: 'The request is too large or too tangled to be read. Send less at once.' })
      }
      const late = setTimeout(fail, READ_MS)
      working.once('message', settle).once('error', fail).once('exit', fail)
      working.postMessage(order)
    })
  }

  return {
    async read(request, described) {
      const bytes = await takeBytes(request, described.bytesMax ?? (described.open ? OPEN_BYTES : USUAL_BYTES))
      const { method, path, body } = described
      const small = bytes.length < THREAD_BYTES
      const result = small ? readJson(bytes, body) : await (turn = turn.then(() => onThread({ method, path, bytes }))) as BodyRead
      if (result.ok) return result.value
      if (result.kind === 'malformed') throw new Refusal('malformed', result.sentence)
      throw new Refusal('invalid', result.fields.map(({ message }) => message).join(' '), { fields: result.fields })
    },
    close,
  }
}
