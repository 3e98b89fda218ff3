import type { ScanFilter } from '../results/index.ts'
import { startThread } from '../threads/index.ts'

/** What the thread is given when it starts. */
export interface CsvOrder {
  readonly file: string
  readonly filter: ScanFilter
}

/** Some lines of the file; `done` where there are no more. */
export type CsvPart = { readonly ok: true; readonly text: string; readonly done: boolean } | { readonly ok: false; readonly message: string }

/** So many files are made at once; who asks for more waits. */
const AT_ONCE = 2

/** Makes files of scans, each on a thread of its own: no other question waits for one, and phones feel nothing of it. */
export function scanFiles(file: string) {
  let making = 0
  const waiting: (() => void)[] = []

  async function turn(): Promise<void> {
    if (making >= AT_ONCE) await new Promise<void>((resolve) => { waiting.push(resolve) })
    else making++
  }
  const done = () => {
    // Whoever waits longest takes this one's place.
    const next = waiting.shift()
    if (next) next()
    else making--
  }

  return {
    /** The parts of a file, made as they are asked for; nothing is made ahead of whoever reads. */
    async *parts(filter: ScanFilter): AsyncGenerator<string, void, undefined> {
      await turn()
      const thread = startThread('csv-thread', import.meta.url, { file, filter } satisfies CsvOrder)
      try {
        for (;;) {
          const part = await new Promise<CsvPart>((resolve, reject) => {
            thread.once('message', resolve)
            thread.once('error', reject)
            thread.postMessage('next')
          })
          thread.removeAllListeners('error')
          if (!part.ok) throw new Error(part.message)
          yield part.text
          if (part.done) return
        }
      } finally {
        await thread.terminate()
        done()
      }
    },
  }
}
