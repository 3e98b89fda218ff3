import { EventEmitter } from 'node:events'
import type { LiveEvent } from '@flimbo/core/scans'

/** What happens, told to every open office screen of the workspace it happens in. */
export interface LiveHub {
  tell(workspaceId: number, event: LiveEvent): void
  /** @returns a function that stops listening */
  listen(workspaceId: number, listener: (event: LiveEvent) => void): () => void
  /** Calls back when the server stops, so that open streams end. */
  onClose(listener: () => void): () => void
  close(): void
}

export function liveHub(): LiveHub {
  const emitter = new EventEmitter().setMaxListeners(0)
  return {
    tell(workspaceId, event) { emitter.emit(String(workspaceId), event) },
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
