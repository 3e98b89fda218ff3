import type { DryRunOptions, Encoding, Mapping, PlanLine, PlanWorld } from '@flimbo/core/plan'
import type { ValueCounts } from '@flimbo/core/tagging'
import { limitedThread, type Calls } from '../threads/index.ts'

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
  readonly world: Pick<
    PlanWorld,
    'rules' | 'campaign' | 'domainId' | 'pieces' | 'routes' | 'styles' | 'taken'
  > & {
    readonly values: ValueCounts
    readonly sameTags: ReadonlyMap<string, number>
    /** Everything that reaches the front door: no destination may lead there. */
    readonly doors: readonly string[]
  }
}

export type SheetRead =
  | {
      readonly ok: true
      readonly kind: 'text' | 'workbook'
      readonly rows: string[][]
      readonly encoding: Encoding
      readonly delimiter: string
      readonly sheets: string[]
      readonly sheet: string
    }
  | { readonly ok: false; readonly sentence: string }

export type Judged =
  { readonly ok: true; readonly lines: PlanLine[] } | { readonly ok: false; readonly sentence: string }

/** What the thread is called for. */
export interface SheetCalls extends Calls {
  read(order: SheetOrder): Promise<SheetRead>
  judge(order: JudgeOrder): Judged
}

const TOO_MUCH = {
  ok: false,
  sentence: 'This file is too large or too tangled to be read. Split it, or save it as CSV.',
} as const

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
  const thread = limitedThread<SheetCalls>('sheets-thread', import.meta.url, limitMs)
  return {
    read: async (order) => (await thread.call('read', order)) ?? TOO_MUCH,
    judge: async (order) => (await thread.call('judge', order)) ?? TOO_MUCH,
    close: () => thread.close(),
  }
}
