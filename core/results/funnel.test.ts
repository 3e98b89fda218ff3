import { describe, expect, it } from 'vitest'
import { funnelRows } from './index.ts'

describe('how far scans got', () => {
  it('is a part of all scans at each step, with its interval (Newcombe 1998: 15 of 148, from memory)', () => {
    const rows = funnelRows({ scans: 148, arrivals: 0, leads: 15, goals: 300 }, 60)
    expect(rows.map(({ step, count }) => [step, count])).toEqual([
      ['scans', 148],
      ['opened', 60],
      ['leads', 15],
      ['goals', 300],
    ])
    const { low, high } = rows[2]?.share ?? {}
    expect([low?.toFixed(4), high?.toFixed(4)]).toEqual(['0.0624', '0.1605'])
    expect(rows[3]?.share?.value).toBe(1)
  })
  it('divides nothing by 0', () => {
    expect(funnelRows({ scans: 0, arrivals: 2, leads: 0, goals: 0 }, null)).toEqual([
      { step: 'scans', count: 0, share: null },
      { step: 'arrivals', count: 2, share: null },
    ])
  })
})
