import type { Forget } from '../line/index.ts'
import type { Watched } from './watchProcess.ts'

/** So long a front door may take to forget; one that takes longer is replaced, and a new one knows nothing. */
export const FORGET_MS = 3000

interface Order {
  readonly waiting: Set<Watched>
  readonly late: ReturnType<typeof setTimeout>
}

export interface Forgetting {
  readonly order: (id: number, what: Forget) => void
  readonly acknowledged: (door: Watched, id: number) => void
  /** A front door has ended: whatever it knew, it knows no more. */
  readonly ended: (door: Watched) => void
}

/**
 * Carries what is to be forgotten to every front door, and tells when all have: each of them said so, or ended.
 *
 * @param doors those there are, starting ones too
 * @param done called once for each order
 */
export function createForgetting(doors: () => readonly Watched[], done: (id: number) => void): Forgetting {
  const orders = new Map<number, Order>()

  function settled(door: Watched, id: number): void {
    const order = orders.get(id)
    if (!order?.waiting.delete(door) || order.waiting.size > 0) return
    clearTimeout(order.late)
    orders.delete(id)
    done(id)
  }

  return {
    order(id, what) {
      const waiting = new Set(doors().filter((door) => door.isBegun()))
      if (waiting.size === 0) {
        done(id)
        return
      }
      const late = setTimeout(() => {
        for (const door of waiting) if (door.isReady()) door.replace('it did not forget what changed')
      }, FORGET_MS)
      orders.set(id, { waiting, late })
      for (const door of [...waiting]) door.tell({ kind: 'forget', id, what })
    },
    acknowledged: settled,
    ended(door) {
      for (const id of [...orders.keys()]) settled(door, id)
    },
  }
}
