import type { Reader } from '../reader/index.ts'
import type { AnswerFiles } from './answerFiles.ts'

/** So often files that nobody sent to its end are looked for. */
const EVERY_MS = 6 * 3_600_000
const FIRST_MS = 60_000

/** Removes files that were sent with forms nobody finished, now and then. */
export function tidyAnswerFiles(
  reader: Pick<Reader, 'ask'>,
  files: Pick<AnswerFiles, 'tidy'>,
  failed: (error: unknown) => void,
): { stop(): void } {
  const look = async () => {
    const now = Date.now()
    const keys = new Set(await reader.ask('answerFileKeys'))
    await files.tidy((key) => keys.has(key), now)
  }
  const run = () => {
    look().catch(failed)
  }
  const first = setTimeout(run, FIRST_MS).unref()
  const every = setInterval(run, EVERY_MS).unref()
  return {
    stop() {
      clearTimeout(first)
      clearInterval(every)
    },
  }
}
