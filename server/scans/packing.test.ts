import { describe, expect, it } from 'vitest'
import type { JobRow } from '../database/index.ts'
import type { JobContext, NewJob } from '../jobs/index.ts'
import { packingJob, showPacking } from './packing.ts'

const state = (done: number, total: number, toMove: number) => ({
  done,
  total,
  toMove,
  hasMore: done < total || toMove > 0,
})

describe('how far the packing is', () => {
  it('is told while it goes on: scans that are packed, and those of before that are moved', async () => {
    const states = [null, state(0, 10, 4), state(10, 10, 4), state(10, 10, 1), state(10, 10, 0)]
    const told: [number, number][] = []
    const context = {
      signal: new AbortController().signal,
      progress: (done: number, total: number) => told.push([done, total]),
    } as unknown as JobContext
    const job = packingJob({ progress: () => states.shift() ?? null })
    expect(await job.run({} as JobRow, context)).toEqual({ sentence: 'Figures are as quick as they get.' })
    expect(told).toEqual([
      [0, 14],
      [10, 14],
      [13, 14],
    ])
  })

  it.each([
    [
      'is shown to each workspace that does not see it yet, where it takes a while',
      state(0, 400_000, 0),
      [1, 3],
    ],
    ['and so is moving what was stored before', state(5, 5, 400_000), [1, 3]],
    ['and to nobody where it is over before they look', state(100, 200_000, 0), []],
  ])('%s', async (_what, begun, shown) => {
    const added: number[] = []
    const jobs = {
      active: (workspaceId: number) => Promise.resolve(workspaceId === 2 ? [{} as JobRow] : []),
      add: ({ workspaceId }: NewJob) => {
        added.push(workspaceId)
        return Promise.resolve({} as JobRow)
      },
    }
    await showPacking({ begun: Promise.resolve(begun) }, jobs, () => Promise.resolve([1, 2, 3]))
    expect(added).toEqual(shown)
  })
})
