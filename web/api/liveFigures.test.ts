import { describe, expect, it, vi } from 'vitest'
import { campaignsApi } from '@flimbo/core/campaigns'
import { codesApi } from '@flimbo/core/codes'
import { resultsApi } from '@flimbo/core/results'
import { routesApi } from '@flimbo/core/routing'
import { scansApi } from '@flimbo/core/scans'
import { COUNTED, PULSE_PATH, SUMMED_PATHS, withScans, type Line } from './liveFigures.ts'
import { createPacer } from './pacer.ts'

const line = (more: Partial<Line>): Line => ({
  codeId: 1,
  routeId: 2,
  campaignId: 3,
  at: 5000,
  count: 1,
  uniques: 1,
  apart: 0,
  ...more,
})
const tally = { scans: 10, uniques: 4, lastAt: 4000 }

describe('an answer with some scans more', () => {
  it('counts those of each row, and leaves other rows and answers as they are', () => {
    const rows = [
      { id: 3, scans: tally, recent: [1, 2] },
      { id: 4, scans: tally, recent: [1, 2] },
    ]
    const answer = { rows, total: 2 }
    const next = withScans(
      '/campaigns',
      answer,
      [line({ count: 2, uniques: 1 }), line({ codeId: 9, at: 6000 })],
      0,
      0,
    ) as typeof answer
    expect(next).toEqual({
      rows: [{ id: 3, scans: { scans: 13, uniques: 6, lastAt: 6000 }, recent: [1, 5] }, rows[1]],
      total: 2,
    })
    expect(next.rows[1]).toBe(rows[1])
    expect(withScans('/campaigns', answer, [line({ campaignId: 7 })], 0, 0)).toBe(answer)
  })

  it('is a code’s, a route’s or a campaign’s by its own number', () => {
    const thing = { id: 2, scans: tally }
    expect(withScans('/routes/:id', thing, [line({})], 0, 0)).toEqual({
      id: 2,
      scans: { scans: 11, uniques: 5, lastAt: 5000 },
    })
    expect(withScans('/codes/:id', thing, [line({})], 0, 0)).toBe(thing)
  })

  it('counts nothing twice that was stored before the answer was read', () => {
    const thing = { id: 1, scans: tally }
    expect(withScans('/codes/:id', thing, [line({ at: 4000 }), line({ at: 3000 })], 0, 0)).toBe(thing)
    expect(withScans('/codes/:id', thing, [line({ at: 4000 }), line({ at: 4001 })], 0, 0)).toEqual({
      id: 1,
      scans: { scans: 11, uniques: 5, lastAt: 4001 },
    })
    const none = { id: 1, scans: { scans: 0, uniques: 0, lastAt: null } }
    expect(withScans('/codes/:id', none, [line({ at: 1 })], 0, 0)).toMatchObject({ scans: { scans: 1 } })
  })

  it('does not count what was kept apart', () => {
    const thing = { id: 1, scans: tally }
    expect(
      withScans('/codes/:id', thing, [line({ count: 0, uniques: 0, apart: 3, at: 9000 })], 0, 0),
    ).toEqual(thing)
  })

  it('beats in the minute that is now', () => {
    const pulse = { minutes: [...Array.from({ length: 58 }, () => 0), 7, 3], total: 10 }
    expect(withScans('/pulse', pulse, [line({ count: 2 })], 59_000, 59_900)).toEqual({
      minutes: [...Array.from({ length: 58 }, () => 0), 7, 5],
      total: 12,
    })
    expect(withScans('/pulse', pulse, [line({ count: 2 })], 59_000, 125_000)).toEqual({
      minutes: [...Array.from({ length: 56 }, () => 0), 7, 3, 0, 2],
      total: 12,
    })
    expect(withScans('/pulse', pulse, [line({ count: 2 })], 0, 86_400_000)).toEqual({
      minutes: [...Array.from({ length: 59 }, () => 0), 2],
      total: 2,
    })
  })

  it('leaves alone what it cannot work out', () => {
    const answer = { anything: 1 }
    expect(withScans('/results', answer, [line({})], 0, 0)).toBe(answer)
    expect(withScans('/campaigns', undefined, [line({})], 0, 0)).toBeUndefined()
  })
})

describe('the paths that are known', () => {
  it('are those of the contract', () => {
    expect(Object.keys(COUNTED)).toEqual(
      [campaignsApi.list, campaignsApi.get, codesApi.list, codesApi.get, routesApi.list, routesApi.get].map(
        ({ path }) => path,
      ),
    )
    expect(PULSE_PATH).toBe(scansApi.pulse.path)
    expect([...SUMMED_PATHS]).toEqual(
      [
        resultsApi.get,
        resultsApi.ask,
        routesApi.exits,
        routesApi.attention,
        codesApi.groups,
        scansApi.list,
      ].map(({ path }) => path),
    )
  })
})

describe('a pace', () => {
  it('is quick after a quiet time, and slow while it is wanted all the time', () => {
    vi.useFakeTimers({ now: 0 })
    const runs: number[] = []
    const work = createPacer(
      () => {
        runs.push(Date.now())
      },
      { soonMs: 100, everyMs: 1000, spreadMs: 0 },
    )
    for (let at = 0; at < 3000; at += 50) {
      work.want()
      vi.advanceTimersByTime(50)
    }
    expect(runs).toEqual([100, 1100, 2100])
    work.stop()
    vi.advanceTimersByTime(5000)
    expect(runs).toHaveLength(3)
    work.want()
    vi.advanceTimersByTime(100)
    expect(runs.at(-1)).toBe(Date.now())
    vi.useRealTimers()
  })
})
