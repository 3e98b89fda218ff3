import type { Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import type { AnswerFiles } from './answerFiles.ts'
import { dropUnconfirmed } from '../mail/index.ts'
import { keepLeads } from './retention.ts'

/** So often it is looked for what is not to be kept any longer. */
const EVERY_MS = 6 * 3_600_000
const FIRST_MS = 60_000

interface Parts {
  readonly database: Database
  readonly reader: Pick<Reader, 'ask'>
  readonly files: AnswerFiles
  readonly failed: (error: unknown) => void
}

/** Deletes or anonymises what forms do not keep any longer, and files that were sent with forms nobody finished. */
export function startLeadUpkeep({ database, reader, files, failed }: Parts): { stop(): void } {
  const look = async () => {
    const now = Date.now()
    await keepLeads({ database, files }, now)
    await dropUnconfirmed(database, now)
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
