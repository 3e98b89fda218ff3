import type { EventRowFilter, ScanFilter } from '../results/index.ts'
import { callThread, places, type CalledThread, type Calls } from '../threads/index.ts'

/** Some lines of the file; `done` where there are no more. */
export interface CsvPart {
  readonly text: string
  readonly done: boolean
}

/** What a file is of. */
export type FileRows =
  | { readonly of: 'scans'; readonly filter: ScanFilter }
  | { readonly of: 'page-events'; readonly filter: EventRowFilter }

/** What a thread is called for. */
export interface CsvCalls extends Calls {
  /** The first lines of another file. */
  begin(rows: FileRows): CsvPart
  /** The next lines of the same one. */
  next(): CsvPart
}

/** So many files are made at once; who asks for more waits. */
const AT_ONCE = 2
/** A thread that nobody needed for so long is ended. */
const IDLE_MS = 30_000

/** Makes files of rows on threads of their own: no other question waits for one, and phones feel nothing of it. */
export function rowFiles(file: string) {
  const idle: { readonly thread: CalledThread<CsvCalls>; readonly end: NodeJS.Timeout }[] = []
  const making = places(AT_ONCE)

  async function turn(): Promise<CalledThread<CsvCalls>> {
    await making.take()
    const there = idle.pop()
    if (!there) return callThread<CsvCalls>('csv-thread', import.meta.url, { file })
    clearTimeout(there.end)
    return there.thread
  }

  /** Keeps the thread for the next file, and lets whoever waits longest begin theirs. */
  function done(thread: CalledThread<CsvCalls>, isWell: boolean): void {
    if (isWell)
      idle.push({
        thread,
        end: setTimeout(() => {
          drop(thread)
        }, IDLE_MS).unref(),
      })
    else void thread.end()
    making.giveBack()
  }
  function drop(thread: CalledThread<CsvCalls>): void {
    const at = idle.findIndex((each) => each.thread === thread)
    if (at >= 0) idle.splice(at, 1)
    void thread.end()
  }

  return {
    /** The parts of a file, made as they are asked for; nothing is made ahead of whoever reads. */
    async *parts(rows: FileRows): AsyncGenerator<string, void, undefined> {
      const thread = await turn()
      let isWell = false
      try {
        let part = await thread.call('begin', rows)
        for (;;) {
          isWell = true
          yield part.text
          if (part.done) return
          isWell = false
          part = await thread.call('next')
        }
      } finally {
        done(thread, isWell)
      }
    },
  }
}
export type RowFiles = ReturnType<typeof rowFiles>
