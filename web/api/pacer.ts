export interface Pace {
  /** After a quiet time: so soon. */
  readonly soonMs: number
  /** At most so often. */
  readonly everyMs: number
  /** Up to so much later, so that many screens do not ask at the same moment. */
  readonly spreadMs: number
}

/** Runs something soon after it is wanted, and then no more often than its pace allows, however often it is wanted. */
export function createPacer(
  run: () => void,
  { soonMs, everyMs, spreadMs }: Pace,
  random: () => number = Math.random,
) {
  let timer: ReturnType<typeof setTimeout> | null = null
  let last = -Infinity
  return {
    want(): void {
      if (timer !== null) return
      const wait = Math.max(soonMs, last + everyMs - Date.now())
      timer = setTimeout(
        () => {
          timer = null
          last = Date.now()
          run()
        },
        wait > soonMs ? wait + random() * spreadMs : wait,
      )
    },
    stop(): void {
      if (timer !== null) clearTimeout(timer)
      timer = null
    },
  }
}
