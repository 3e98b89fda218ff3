const FIRST_PAUSE_MS = 5000
const LONGEST_PAUSE_MS = 60 * 60_000

/**
 * How long to wait before trying again after so many failures: five seconds, then twice as long each time, an hour at
 * most (exponential backoff, common practice).
 *
 * @param attempts at least 1
 * @returns milliseconds
 */
export function pauseAfter(attempts: number): number {
  return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (attempts - 1))
}
