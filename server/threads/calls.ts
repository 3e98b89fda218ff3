import type { ResourceLimits } from 'node:worker_threads'
import { startThread } from './thread.ts'

/** What a thread can be called for: its file gives these to `serveCalls`. */
// Any function will do; what it takes and gives is known by its name.
// oxlint-disable-next-line typescript/no-explicit-any
export type Calls = Readonly<Record<string, (...values: any[]) => unknown>>

/** One call, as it crosses to the thread; `null` asks it to finish and end. */
export type Order = { readonly id: number; readonly call: string; readonly values: readonly unknown[] } | null

/** What came of a call. */
export type Answer =
  | { readonly id: number; readonly ok: true; readonly value: unknown }
  | { readonly id: number; readonly ok: false; readonly name: string; readonly message: string }

/** A thread ended before it had answered. */
export class ThreadEnded extends Error {
  override readonly name = 'ThreadEnded'
}

/** A thread that is called like an object whose methods all answer later. */
export interface CalledThread<C extends Calls> {
  /**
   * Calls it; calls are begun in the order in which they are made.
   * @throws ThreadEnded where the thread ended first; else what the call threw, by its name and message
   */
  call<K extends keyof C & string>(name: K, ...values: Parameters<C[K]>): Promise<Awaited<ReturnType<C[K]>>>
  /** Called once, when the thread ends without having been asked to. */
  onEnd(listener: (cause: ThreadEnded) => void): void
  /** Lets it finish what it was called for, and ends it. */
  close(): Promise<void>
  /** Ends it at once, in the middle of whatever it does. */
  end(): Promise<void>
}

/**
 * Starts a thread to be called.
 *
 * @param name see `startThread`
 * @param caller see `startThread`
 * @param given what the thread's file reads as `workerData`
 */
export function callThread<C extends Calls>(
  name: string,
  caller: string,
  given: object = {},
  limits: ResourceLimits = {},
): CalledThread<C> {
  const thread = startThread(name, caller, given, limits)
  const open = new Map<number, { resolve: (value: never) => void; reject: (error: Error) => void }>()
  const listeners: ((cause: ThreadEnded) => void)[] = []
  let ids = 0
  let ended: ThreadEnded | null = null
  let isClosing = false

  thread.on('message', (answer: Answer) => {
    const asked = open.get(answer.id)
    open.delete(answer.id)
    if (answer.ok) asked?.resolve(answer.value as never)
    else asked?.reject(Object.assign(new Error(answer.message), { name: answer.name }))
  })
  const giveUp = (cause?: unknown) => {
    if (ended) return
    ended = new ThreadEnded(`The thread ${name} ended`, { cause })
    for (const { reject } of open.values()) reject(ended)
    open.clear()
    if (!isClosing) for (const listener of listeners) listener(ended)
  }
  thread.on('error', giveUp)
  const exited = new Promise<void>((resolve) => {
    thread.on('exit', () => {
      giveUp()
      resolve()
    })
  })

  return {
    call: (call, ...values) =>
      new Promise((resolve, reject) => {
        if (ended) {
          reject(ended)
          return
        }
        const id = ids++
        open.set(id, { resolve, reject })
        thread.postMessage({ id, call, values } satisfies Order)
      }),
    onEnd(listener) {
      listeners.push(listener)
    },
    async close() {
      isClosing = true
      thread.postMessage(null satisfies Order)
      await exited
    },
    async end() {
      isClosing = true
      await thread.terminate()
    },
  }
}
