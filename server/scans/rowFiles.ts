import type { RowFormat } from '@flimbo/core/scans'
import type { EventRowFilter, ScanFilter } from '../results/index.ts'
import { callThread, places, type CalledThread, type Calls } from '../threads/index.ts'

/** Some of the file, and how far it is; `isEnd` where there is no more. */
export interface RowPart {
  readonly bytes: string | Uint8Array
  /** Rows so far. */
  readonly done: number
  /** Rows in all; 0 where that is not known. */
  readonly total: number
  readonly isEnd: boolean
}

/** What a file is of. */
export type FileRows =
  | { readonly of: 'scans'; readonly format: RowFormat; readonly filter: ScanFilter }
  | { readonly of: 'page-events'; readonly filter: EventRowFilter }

/** What a thread is called for. */
export interface RowCalls extends Calls {
  /** The first part of another file. */
  begin(rows: FileRows): RowPart
  /** The next part of the same one. */
  next(): RowPart
}

/** So many files are made at once; who asks for more waits. */
const AT_ONCE = 2
/** A thread that nobody needed for so long is ended. */
const IDLE_MS = 30_000

/** Makes files of rows on threads of their own: no other question waits for one, and phones feel nothing of it. */
export function rowFiles(file: string) {
  const idle: { readonly thread: CalledThread<RowCalls>; readonly end: NodeJS.Timeout }[] = []
  const making = places(AT_ONCE)

  async function turn(): Promise<CalledThread<RowCalls>> {
    await making.take()
    const there = idle.pop()
    if (!there) return callThread<RowCalls>('rows-thread', import.meta.url, { file })
    clearTimeout(there.end)
    return there.thread
  }

  /** Keeps the thread for the next file, and lets whoever waits longest begin theirs. */
  function done(thread: CalledThread<RowCalls>, isWell: boolean): void {
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
  function drop(thread: CalledThread<RowCalls>): void {
    const at = idle.findIndex((each) => each.thread === thread)
    if (at >= 0) idle.splice(at, 1)
    void thread.end()
  }

  return {
    /** The parts of a file, made as they are asked for; nothing is made ahead of whoever reads. */
    async *parts(rows: FileRows): AsyncGenerator<RowPart, void, undefined> {
      const thread = await turn()
      let isWell = false
      try {
        let part = await thread.call('begin', rows)
        for (;;) {
          isWell = true
          yield part
          if (part.isEnd) return
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
