import { useEffect, useRef, useState } from 'react'
import { NOTHING_MEASURED, withAnswer, type Measured, type ProofAnswer, type ProofOrder } from './proofing.ts'

/** Measuring begins when nothing was changed for so long. */
const REST_MS = 250

/** A worker that measures; one that is busy with what nobody wants any more is ended. */
function createMeasurer(tell: (answer: ProofAnswer) => void) {
  let worker: Worker | null = null
  let isBusy = false
  return {
    measure(order: ProofOrder): void {
      if (isBusy) {
        worker?.terminate()
        worker = null
      }
      if (!worker) {
        worker = new Worker(new URL('./proof-worker.ts', import.meta.url), { type: 'module' })
        worker.onmessage = ({ data }: MessageEvent<ProofAnswer>) => {
          if (data.kind === 'costs' || data.kind === 'fault') isBusy = false
          tell(data)
        }
        worker.onerror = () => {
          isBusy = false
          worker?.terminate()
          worker = null
          tell({
            id: order.id,
            kind: 'fault',
            sentence: 'Measuring stopped. Reload this page, or choose a simpler look.',
          })
        }
      }
      isBusy = true
      worker.postMessage(order)
    },
    end(): void {
      worker?.terminate()
    },
  }
}

/** Measures a piece as it is drafted, some moments after the last change; null measures nothing. */
export function useProof(order: Omit<ProofOrder, 'id'> | null): Measured {
  const [measured, setMeasured] = useState<Measured>(NOTHING_MEASURED)
  const measurer = useRef<ReturnType<typeof createMeasurer> | null>(null)
  const newest = useRef(0)
  useEffect(() => {
    measurer.current = createMeasurer((answer) => {
      if (answer.id === newest.current) setMeasured((old) => withAnswer(old, answer))
    })
    return () => {
      measurer.current?.end()
    }
  }, [])
  const key = order && JSON.stringify(order)
  useEffect(() => {
    if (key === null) return
    const id = ++newest.current
    setMeasured((old) => ({ ...old, isStale: true }))
    const timer = setTimeout(() => {
      measurer.current?.measure({ id, ...(JSON.parse(key) as Omit<ProofOrder, 'id'>) })
    }, REST_MS)
    return () => {
      clearTimeout(timer)
    }
  }, [key])
  return measured
}
