/**
 * Looks again and again, for as long as the office runs; never twice at once.
 *
 * @param look told when it is to end: what takes long looks at it now and then
 * @param failed told what went wrong; it is looked again all the same
 * @param firstMs how long after the start it is looked the first time
 */
export function lookAgain(
  look: (stopping: AbortSignal) => Promise<void>,
  failed: (error: unknown) => void,
  { everyMs, firstMs = everyMs }: { readonly everyMs: number; readonly firstMs?: number },
): { stop(): Promise<void> } {
  const stopping = new AbortController()
  let looking: Promise<void> | null = null
  const begin = () => {
    looking ??= look(stopping.signal)
      .catch(failed)
      .finally(() => {
        looking = null
      })
  }
  const timers = [setTimeout(begin, firstMs), setInterval(begin, everyMs)]
  for (const timer of timers) timer.unref()
  return {
    /** Resolves once nothing is looked at any more. */
    async stop() {
      for (const timer of timers) clearTimeout(timer)
      stopping.abort()
      await looking
    },
  }
}
