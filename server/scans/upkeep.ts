import { startThread } from '../threads/index.ts'

export interface UpkeepSettings {
  readonly file: string
  readonly everyMs: number
}

/** What the thread says after each look: whether nothing destroyed is left in the log. */
export type UpkeepNews =
  { readonly ok: true; readonly isClean: boolean } | { readonly ok: false; readonly message: string }

export interface Upkeep {
  close(): Promise<void>
}

const EVERY_MS = 250

/**
 * Looks after the database beside the scans, on a thread of its own: destroys what was kept of visitors as soon as
 * their day is over, scans or none, and keeps the write-ahead log short.
 *
 * @param onError told what went wrong, each time; the next look tries again
 */
export function startUpkeep(file: string, onError: (message: string) => void, everyMs = EVERY_MS): Upkeep {
  const thread = startThread('upkeep-thread', import.meta.url, { file, everyMs } satisfies UpkeepSettings)
  thread.on('message', (news: UpkeepNews) => {
    if (!news.ok) onError(news.message)
  })
  thread.on('error', (error) => {
    onError(String(error))
  })
  return {
    close: () =>
      new Promise((resolve) => {
        thread.once('exit', () => {
          resolve()
        })
        thread.postMessage('close')
      }),
  }
}
