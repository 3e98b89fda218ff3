import { useSyncExternalStore } from 'react'

const TICK_MS = 20_000
let now = Date.now()
const listeners = new Set<() => void>()
let ticking: ReturnType<typeof setInterval> | null = null

function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  ticking ??= setInterval(() => {
    now = Date.now()
    for (const each of listeners) each()
  }, TICK_MS)
  return () => {
    listeners.delete(listener)
    if (listeners.size === 0 && ticking) {
      clearInterval(ticking)
      ticking = null
    }
  }
}

/** The current moment, a few times a minute: ages on the screen grow by it. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, () => now)
}
