/** Things that are done one after the other, whatever becomes of each. */
export function queue() {
  let last: Promise<unknown> = Promise.resolve()
  return {
    run<T>(work: () => Promise<T>): Promise<T> {
      const result = last.then(work)
      last = result.catch(() => undefined)
      return result
    },
    empty: () => last,
  }
}

/** Places of which there are only so many; who finds none waits, and whoever waits longest has the next. */
export function places(max: number) {
  const waiting: (() => void)[] = []
  let taken = 0
  return {
    waiting: () => waiting.length,
    async take(): Promise<void> {
      if (taken >= max)
        await new Promise<void>((resolve) => {
          waiting.push(resolve)
        })
      else taken++
    },
    giveBack(): void {
      // Whoever waits takes over this very place.
      const next = waiting.shift()
      if (next) next()
      else taken--
    },
  }
}
