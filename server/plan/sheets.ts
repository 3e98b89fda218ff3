import type { Worker } from 'node:worker_threads'
import type { DryRunOptions, Encoding, KnownPiece, KnownRoute, Mapping, PlanLine } from '@flimbo/core/plan'
import type { HouseRules, ValueCounts } from '@flimbo/core/tagging'
import { startThread } from '../threads/index.ts'

/** A file and, where a person said so, how it is to be read. */
export interface SheetOrder {
  readonly bytes: Uint8Array
  readonly encoding?: Encoding | undefined
  readonly delimiter?: string | undefined
  readonly sheet?: string | undefined
}

/** Rows of a file and all they are judged by, as it crosses to the thread. */
export interface JudgeOrder {
  readonly rows: readonly (readonly string[])[]
  readonly mapping: Mapping
  readonly options: DryRunOptions
  readonly world: {
    readonly rules: HouseRules
    readonly campaign: string
    readonly domainId: number
    readonly pieces: readonly KnownPiece[]
    readonly routes: readonly KnownRoute[]
    readonly taken: ReadonlySet<string>
    readonly values: ValueCounts
    readonly sameTags: ReadonlyMap<string, number>
    /** Everything that reaches the front door: no destination may lead there. */
    readonly doors: readonly string[]
  }
}

export type TableOrder = { readonly work: 'read'; readonly order: SheetOrder } | { readonly work: 'judge'; readonly order: JudgeOrder }

export type SheetRead =
  | { readonly ok: true; readonly kind: 'text' | 'workbook'; readonly rows: string[][]; readonly encoding: Encoding; readonly delimiter: string; readonly sheets: string[]; readonly sheet: string }
  | { readonly ok: false; readonly sentence: string }

export type Judged = { readonly ok: true; readonly lines: PlanLine[] } | { readonly ok: false; readonly sentence: string }

const TOO_MUCH = { ok: false, sentence: 'This file is too large or too tangled to be read. Split it, or save it as CSV.' } as const

/** A thread that nobody needed for so long is ended, with all it kept. */
const IDLE_MS = 60_000
/** A file that takes longer is given up: others wait for their turn. */
export const READ_MS = 30_000

export interface SheetReader {
  read(order: SheetOrder): Promise<SheetRead>
  /** Works out line by line what importing rows would do. */
  judge(order: JudgeOrder): Promise<Judged>
  close(): Promise<void>
}

/**
 * Reads tables, and judges their lines, on a thread of its own, one after the other: nobody else waits for them, and a
 * file that unpacks into gigabytes, or never ends, ends only that thread.
 */
export function sheetReader(limitMs = READ_MS): SheetReader {
  let thread: Worker | null = null
  let idle: NodeJS.Timeout | null = null
  let turn: Promise<unknown> = Promise.resolve()

  async function close(): Promise<void> {
    if (idle) clearTimeout(idle)
    const ending = thread
    thread = null
    await ending?.terminate()
  }

  function run<T>(order: TableOrder): Promise<T | typeof TOO_MUCH> {
    if (idle) clearTimeout(idle)
    const working = (thread ??= startThread('sheets-thread', import.meta.url, {}, { maxOldGenerationSizeMb: 1024 }))
    return new Promise((resolve) => {
      const settle = (result: T | typeof TOO_MUCH) => {
        clearTimeout(late)
        working.off('message', settle).off('error', end).off('exit', end)
        idle = setTimeout(() => { void close() }, IDLE_MS)
        idle.unref()
        resolve(result)
      }
      const end = () => {
        thread = null
        void working.terminate()
        settle(TOO_MUCH)
      }
      const late = setTimeout(end, limitMs)
      working.once('message', settle).once('error', end).once('exit', end)
      working.postMessage(order)
    })
  }

  function inTurn<T>(order: TableOrder): Promise<T | typeof TOO_MUCH> {
    const result = turn.then(() => run<T>(order))
    turn = result
    return result
  }

  return {
    read: (order) => inTurn<SheetRead>({ work: 'read', order }),
    judge: (order) => inTurn<Judged>({ work: 'judge', order }),
    close,
  }
}
