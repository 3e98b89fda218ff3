import type { Worker } from 'node:worker_threads'
import type { Encoding } from '@flimbo/core/plan'
import { startThread } from '../threads/index.ts'

/** A file and, where a person said so, how it is to be read. */
export interface SheetOrder {
  readonly bytes: Uint8Array
  readonly encoding?: Encoding | undefined
  readonly delimiter?: string | undefined
  readonly sheet?: string | undefined
}

export type SheetRead =
  | { readonly ok: true; readonly kind: 'text' | 'workbook'; readonly rows: string[][]; readonly encoding: Encoding; readonly delimiter: string; readonly sheets: string[]; readonly sheet: string }
  | { readonly ok: false; readonly sentence: string }

const TOO_MUCH: SheetRead = { ok: false, sentence: 'This file is too large or too tangled to be read. Split it, or save it as CSV.' }

/** A thread that nobody needed for so long is ended, with all it kept. */
const IDLE_MS = 60_000

export interface SheetReader {
  read(order: SheetOrder): Promise<SheetRead>
  close(): Promise<void>
}

/** Reads tables on a thread of its own, one after the other: phones do not wait for them, and a file that unpacks into gigabytes ends only that thread. */
export function sheetReader(): SheetReader {
  let thread: Worker | null = null
  let idle: NodeJS.Timeout | null = null
  let turn: Promise<unknown> = Promise.resolve()

  async function close(): Promise<void> {
    if (idle) clearTimeout(idle)
    const ending = thread
    thread = null
    await ending?.terminate()
  }

  function run(order: SheetOrder): Promise<SheetRead> {
    if (idle) clearTimeout(idle)
    const working = (thread ??= startThread('sheets-thread', import.meta.url, {}, { maxOldGenerationSizeMb: 1024 }))
    return new Promise((resolve) => {
      const settle = (read: SheetRead) => {
        working.off('message', settle).off('error', end).off('exit', end)
        idle = setTimeout(() => { void close() }, IDLE_MS)
        idle.unref()
        resolve(read)
      }
      const end = () => {
        thread = null
        settle(TOO_MUCH)
      }
      working.once('message', settle).once('error', end).once('exit', end)
      working.postMessage(order)
    })
  }

  return {
    read(order) {
      const result = turn.then(() => run(order))
      turn = result
      return result
    },
    close,
  }
}
