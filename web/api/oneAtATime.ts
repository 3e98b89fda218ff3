/**
 * Saves the newest of what comes, never two at once: what comes while one is under way waits for its end, and of
 * several only the last is sent. Each save can so start from the version that the one before it was answered with.
 */
export function oneAtATime<T>(save: (value: T) => Promise<void>) {
  let waiting: { readonly value: T } | null = null
  let busy = false

  async function work(): Promise<void> {
    busy = true
    while (waiting !== null) {
      const { value }: { readonly value: T } = waiting
      waiting = null
      await save(value)
    }
    busy = false
  }

  return (value: T): void => {
    waiting = { value }
    if (!busy) void work()
  }
}
