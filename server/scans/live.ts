import { EventEmitter } from 'node:events'
import type { LiveEvent } from '@flimbo/core/scans'

/** What happens, told to every open office screen of the workspace it happens in. */
export interface LiveHub {
  tell(workspaceId: number, event: LiveEvent): void
  /** Goes up with each change in a workspace; scans leave it as it is. What was worked out under another edition is stale. */
  edition(workspaceId: number): number
  /** @returns a function that stops listening */
  listen(workspaceId: number, listener: (event: LiveEvent) => void): () => void
  /** Calls back when the server stops, so that open streams end. */
  onClose(listener: () => void): () => void
  close(): void
}

export function liveHub(): LiveHub {
  const emitter = new EventEmitter().setMaxListeners(0)
  const editions = new Map<number, number>()
  return {
    edition: (workspaceId) => editions.get(workspaceId) ?? 0,
    tell(workspaceId, event) {
      if (event.type === 'change') editions.set(workspaceId, (editions.get(workspaceId) ?? 0) + 1)
      emitter.emit(String(workspaceId), event)
    },
    listen(workspaceId, listener) {
      emitter.on(String(workspaceId), listener)
      return () => { emitter.off(String(workspaceId), listener) }
    },
    onClose(listener) {
      emitter.on('close', listener)
      return () => { emitter.off('close', listener) }
    },
    close() { emitter.emit('close') },
  }
}
