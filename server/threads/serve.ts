import { parentPort } from 'node:worker_threads'
import type { Answer, Calls, Order } from './calls.ts'

/**
 * Makes the running thread answer calls, each in turn begun when it comes; those that are async may end in another
 * order.
 *
 * @param finish called when the thread is to end: what it holds open is to be closed
 */
export function serveCalls(calls: Calls, finish: () => void = () => undefined): void {
  const port = parentPort
  if (!port) throw new Error('This file is a thread’s: start it by callThread.')
  const answer = (given: Answer) => {
    port.postMessage(given)
  }
  const fail = (id: number, error: unknown) => {
    const { name, message } = error instanceof Error ? error : new Error(String(error))
    answer({ id, ok: false, name, message })
  }
  const underWay = new Set<Promise<void>>()

  function carryOut({ id, call, values }: NonNullable<Order>): void {
    try {
      const value = calls[call]?.(...values)
      if (!(value instanceof Promise)) {
        answer({ id, ok: true, value })
        return
      }
      const working = value
        .then(
          (given: unknown) => {
            answer({ id, ok: true, value: given })
          },
          (error: unknown) => {
            fail(id, error)
          },
        )
        .finally(() => underWay.delete(working))
      underWay.add(working)
    } catch (error) {
      fail(id, error)
    }
  }

  port.on('message', (order: Order) => {
    if (order) {
      carryOut(order)
      return
    }
    void Promise.all(underWay).then(() => {
      finish()
      port.close()
    })
  })
}
