import type { Server, ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'

/** What was there before may still be letting go of the port. */
const TRIES = 20
const TRY_MS = 150

function tryToListen(server: Server, port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => {
      server.off('error', reject)
      resolve((server.address() as AddressInfo).port)
    })
  })
}

/** Opens a port, trying for a few seconds where it is in use. @returns the port that was opened */
export async function listen(server: Server, port: number, host: string): Promise<number> {
  for (let i = 1; ; i++) {
    try {
      return await tryToListen(server, port, host)
    } catch (error) {
      if ((error as { code?: string }).code !== 'EADDRINUSE' || i === TRIES) throw error
      await pause(TRY_MS)
    }
  }
}

/**
 * A port that is open, whoever accepts on it: it can be handed to another process, and as long as somebody holds it,
 * phones wait in the system's own queue instead of being refused.
 */
export interface OpenPort {
  close(): void
}

/** What `net` keeps of a listening server, which it can listen on again and hand over to other processes. */
export function openPortOf(server: Server): OpenPort {
  return (server as unknown as { _handle: OpenPort })._handle
}

/** Listens on a port that somebody else opened. @returns its number */
export function listenOn(server: Server, port: OpenPort): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen({ _handle: port }, () => {
      server.off('error', reject)
      resolve((server.address() as AddressInfo).port)
    })
  })
}

const GRACE_MS = 8000

/** Stops taking requests, lets open ones finish, and cuts what has not ended after eight seconds. */
export function closeServer(server: Server, { atOnce = false } = {}): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => {
      resolve()
    })
    server.closeIdleConnections()
    // A busy connection would go on for ever: its next answer is its last.
    server.prependListener('request', (_request, response: ServerResponse) => {
      response.shouldKeepAlive = false
    })
    if (atOnce) server.closeAllConnections()
    else
      setTimeout(() => {
        server.closeAllConnections()
      }, GRACE_MS).unref()
  })
}

/** Where this machine itself finds what listens on `bind`. */
export const loopback = (bind: string) => (bind === '0.0.0.0' || bind === '::' ? '127.0.0.1' : bind)
