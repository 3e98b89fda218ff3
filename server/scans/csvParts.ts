import type { Worker } from 'node:worker_threads'
import type { ScanFilter } from '../results/index.ts'
import { places, startThread } from '../threads/index.ts'

/** What a thread is asked: to begin another file, or for the next lines of the one it makes. */
export type CsvOrder = { readonly begin: ScanFilter } | 'next'

/** Some lines of the file; `done` where there are no more. */
export type CsvPart =
  | { readonly ok: true; readonly text: string; readonly done: boolean }
  | { readonly ok: false; readonly message: string }

/** So many files are made at once; who asks for more waits. */
const AT_ONCE = 2
/** A thread that nobody needed for so long is ended. */
const IDLE_MS = 30_000

/** Makes files of scans on threads of their own: no other question waits for one, and phones feel nothing of it. */
export function scanFiles(file: string) {
  const idle: { readonly thread: Worker; readonly end: NodeJS.Timeout }[] = []
  const making = places(AT_ONCE)

  async function turn(): Promise<Worker> {
    await making.take()
    const there = idle.pop()
    if (!there) return startThread('csv-thread', import.meta.url, { file })
    clearTimeout(there.end)
    return there.thread
  }

  /** Keeps the thread for the next file, and lets whoever waits longest begin theirs. */
  function done(thread: Worker, isWell: boolean): void {
    if (isWell)
      idle.push({
        thread,
        end: setTimeout(() => {
          drop(thread)
        }, IDLE_MS).unref(),
      })
    else void thread.terminate()
    making.giveBack()
  }
  function drop(thread: Worker): void {
    const at = idle.findIndex((each) => each.thread === thread)
    if (at >= 0) idle.splice(at, 1)
    void thread.terminate()
  }

  function ask(thread: Worker, order: CsvOrder): Promise<CsvPart> {
    return new Promise((resolve, reject) => {
      const settle = (part: CsvPart) => {
        thread.off('error', fail)
        resolve(part)
      }
      const fail = (error: Error) => {
        thread.off('message', settle)
        reject(error)
      }
      thread.once('message', settle).once('error', fail)
      thread.postMessage(order)
    })
  }

  return {
    /** The parts of a file, made as they are asked for; nothing is made ahead of whoever reads. */
    async *parts(filter: ScanFilter): AsyncGenerator<string, void, undefined> {
      const thread = await turn()
      let isWell = false
      try {
        for (let order: CsvOrder = { begin: filter }; ; order = 'next') {
          isWell = false
          const part = await ask(thread, order)
          if (!part.ok) throw new Error(part.message)
          isWell = true
          yield part.text
          if (part.done) return
        }
      } finally {
        done(thread, isWell)
      }
    },
  }
}
