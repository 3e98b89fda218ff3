import type { Logger } from 'pino'

/** The same trouble is told at most so often, with how often it came meanwhile. */
const EVERY_MS = 60_000
const KINDS_MAX = 100

interface Known {
  until: number
  more: number
}

const messageOf = (error: unknown) =>
  error instanceof Error ? `${error.name} ${error.message}` : String(error)

/**
 * Tells of what may go wrong thousands of times a second, such as a full disk: the first time whole, then once a
 * minute how often. Different troubles are told apart by their messages.
 */
export function createSparingLog(
  log: Pick<Logger, 'error'>,
  now: () => number = Date.now,
): (error: unknown, sentence: string) => void {
  const known = new Map<string, Known>()
  return (error, sentence) => {
    const key = `${sentence} ${messageOf(error)}`
    const there = known.get(key)
    if (there && now() < there.until) {
      there.more++
      return
    }
    if (known.size >= KINDS_MAX) known.clear()
    known.set(key, { until: now() + EVERY_MS, more: 0 })
    if (there && there.more > 0) log.error({ error: messageOf(error), times: there.more + 1 }, sentence)
    else log.error({ error }, sentence)
  }
}
