import { pino, type Logger } from 'pino'

/** So much is kept for a disk that does not take it; what is more is dropped rather than kept in memory. */
const WAITING_MAX = 1 << 20

/** What a log needs of an error, and nothing that was sent with the request. */
function briefly(error: unknown) {
  if (!(error instanceof Error)) return { message: String(error) }
  return {
    name: error.name,
    message: error.message,
    code: (error as { code?: unknown }).code,
    stack: error.stack,
  }
}

/**
 * Opens the log. It goes to standard output, which may be a file on a disk that is full, or a pipe that nobody reads:
 * nothing that is logged may then stop what is being done. What could not be written is tried again with the next line.
 */
export function openLog(level: string, part: string): Logger {
  const destination = pino.destination({ dest: 1, sync: false, maxLength: WAITING_MAX })
  // Without a listener, an error of the destination would end the process.
  destination.on('error', () => undefined)
  return pino({ level, base: { pid: process.pid, part }, serializers: { error: briefly } }, destination)
}
