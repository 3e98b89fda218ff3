import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { lookAgain } from './lookAgain.ts'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

describe('looking again and again', () => {
  it('begins when it is said, goes on whatever went wrong, and never twice at once', async () => {
    const ends: (() => void)[] = []
    const failed: unknown[] = []
    let looks = 0
    const looking = lookAgain(
      async () => {
        looks++
        if (looks === 1) throw new Error('away')
        await new Promise<void>((end) => ends.push(end))
      },
      (error) => failed.push(error),
      { everyMs: 1000, firstMs: 100 },
    )
    await vi.advanceTimersByTimeAsync(99)
    expect(looks).toBe(0)
    await vi.advanceTimersByTimeAsync(1)
    expect([looks, failed.length]).toEqual([1, 1])
    await vi.advanceTimersByTimeAsync(3900)
    expect(looks).toBe(2)
    ends[0]?.()
    await vi.advanceTimersByTimeAsync(1000)
    expect(looks).toBe(3)
    ends[1]?.()
    await looking.stop()
  })

  it('tells what is under way that it is to end, and waits for it', async () => {
    let isOver = false
    const looking = lookAgain(
      (stopping) =>
        new Promise<void>((end) => {
          stopping.addEventListener('abort', () => {
            setTimeout(() => {
              isOver = true
              end()
            }, 500)
          })
        }),
      () => undefined,
      { everyMs: 1000 },
    )
    await vi.advanceTimersByTimeAsync(1000)
    const stopped = looking.stop()
    await vi.advanceTimersByTimeAsync(499)
    expect(isOver).toBe(false)
    await vi.advanceTimersByTimeAsync(1)
    await stopped
    expect(isOver).toBe(true)
  })
})
