import { EventEmitter, getEventListeners } from 'node:events'
import type { Response } from 'express'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { abandonSignal, withAbandonSignal } from '../api/index.ts'
import { callThread } from '../threads/index.ts'
import type { EchoCalls } from '../tests/echo-thread.ts'
import { queueQuestions, WAITING_MAX, type Questions } from './questions.ts'

let questions: Questions<EchoCalls>
beforeEach(() => {
  questions = queueQuestions(callThread<EchoCalls>('echo-thread', import.meta.url))
})
afterEach(() => questions.close())

/** Counts to a number: a question that takes its time. */
const counted = (to: number) => questions.ask('count', to)
const answer = () => new EventEmitter() as unknown as Response

describe('questions to a thread', () => {
  it('that are equal are asked once while they wait, and everybody is answered', async () => {
    const any = () => questions.ask('random')
    const answers = await Promise.all(Array.from({ length: 50 }, any))
    // The first goes ahead at once; the others wait for a second one, all together.
    expect(new Set(answers).size).toBe(2)
    expect(await any()).not.toBe(answers.at(-1))
  })

  it('that nobody waits for any more are not asked', async () => {
    const busy = counted(100_000_000)
    const gone = answer()
    const left = withAbandonSignal(gone, () => counted(20_000_000_000))
    const stays = withAbandonSignal(answer(), () => counted(10))
    gone.emit('close')
    await expect(left).rejects.toThrow()
    expect(await stays).toBe(10)
    await busy
  }, 20_000)

  it('leave nothing behind with their request, however many it asks', async () => {
    await withAbandonSignal(answer(), async () => {
      for (let i = 0; i < 30; i++) await counted(i)
      const signal = abandonSignal()
      if (!signal) throw new Error('There is one within a request')
      expect(getEventListeners(signal, 'abort')).toHaveLength(0)
    })
  })

  it('are asked on while somebody else still waits for the same', async () => {
    const busy = counted(100_000_000)
    const gone = answer()
    const left = withAbandonSignal(gone, () => counted(11))
    const stays = withAbandonSignal(answer(), () => counted(11))
    gone.emit('close')
    await expect(left).rejects.toThrow()
    expect(await stays).toBe(11)
    await busy
  })

  it('are asked although who asked the same before leaves, having the answer', async () => {
    const first = answer()
    const early = withAbandonSignal(first, () => counted(12))
    const busy = counted(100_000_000)
    const late = withAbandonSignal(answer(), () => counted(12))
    expect(await early).toBe(12)
    first.emit('close')
    expect(await late).toBe(12)
    await busy
  })

  it('are no more than can be held; the rest are told to come again', async () => {
    const busy = counted(100_000_000)
    const all = await Promise.allSettled(Array.from({ length: WAITING_MAX + 5 }, (_, i) => counted(i + 1)))
    expect(all.filter(({ status }) => status === 'rejected')).toHaveLength(5)
    await busy
  })
})
