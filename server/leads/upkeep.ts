import type { Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import type { AnswerFiles } from './answerFiles.ts'
import { lookAgain } from '../jobs/index.ts'
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
export function startLeadUpkeep({ database, reader, files, failed }: Parts): { stop(): Promise<void> } {
  const look = async () => {
    const now = Date.now()
    await keepLeads({ database, files }, now)
    await dropUnconfirmed(database, now)
    const keys = new Set(await reader.ask('answerFileKeys'))
    await files.tidy((key) => keys.has(key), now)
  }
  return lookAgain(look, failed, { everyMs: EVERY_MS, firstMs: FIRST_MS })
}
