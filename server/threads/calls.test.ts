import { describe, expect, it } from 'vitest'
import { callThread, limitedThread, ThreadEnded } from './index.ts'
import type { EchoCalls } from '../tests/echo-thread.ts'

const started = () => callThread<EchoCalls>('echo-thread', import.meta.url, { greeting: 'moin' })

describe('a thread that is called', () => {
  it('answers each call, what was begun first or not', async () => {
    const thread = started()
    expect(
      await Promise.all([
        thread.call('later', 30, 'slow'),
        thread.call('greet', 'Tern'),
        thread.call('later', 1, 'fast'),
      ]),
    ).toEqual(['slow', 'moin, Tern', 'fast'])
    await thread.close()
  })

  it('tells what a call threw by its name, and goes on', async () => {
    const thread = started()
    await expect(thread.call('fail', 'RangeError', 'too far')).rejects.toMatchObject({
      name: 'RangeError',
      message: 'too far',
    })
    await expect(thread.call('failLater', 'no')).rejects.toMatchObject({ message: 'no' })
    expect(await thread.call('greet', 'Skerry')).toBe('moin, Skerry')
    await thread.close()
  })

  it('finishes what it was called for before it closes, and takes no more then', async () => {
    const thread = started()
    const [slow] = await Promise.all([thread.call('later', 50, 'done'), thread.close()])
    expect(slow).toBe('done')
    await expect(thread.call('greet', 'x')).rejects.toBeInstanceOf(ThreadEnded)
  })

  it('refuses what waits when it ends by itself, and says so once', async () => {
    const thread = started()
    const causes: unknown[] = []
    thread.onEnd((cause) => causes.push(cause))
    const waiting = [thread.call('later', 60_000, 'never'), thread.call('exit')]
    for (const each of waiting) await expect(each).rejects.toBeInstanceOf(ThreadEnded)
    expect(causes).toEqual([expect.any(ThreadEnded)])
  })
})

describe('a thread with a time limit', () => {
  it('gives up what takes too long, and serves the next from a fresh one', async () => {
    const thread = limitedThread<EchoCalls>('echo-thread', import.meta.url, 2000)
    expect(await Promise.all([thread.call('spin'), thread.call('greet', 'you')])).toEqual([
      null,
      'undefined, you',
    ])
    await thread.close()
  })

  it('gives up what fails', async () => {
    const thread = limitedThread<EchoCalls>('echo-thread', import.meta.url, 10_000)
    expect(await thread.call('fail', 'Error', 'x')).toBeNull()
    expect(await thread.call('greet', 'you')).toBe('undefined, you')
    await thread.close()
  })
})
