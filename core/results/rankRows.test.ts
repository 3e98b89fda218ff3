import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  CELLS_MAX,
  CROSSED_MAX,
  daysAgainst,
  intervalOf,
  isRanked,
  measured,
  MEASURE_NAMES,
  NO_FIGURES,
  rankRows,
  type KeyedFigures,
} from './index.ts'

const row = (key: string, scans: number, more: Partial<KeyedFigures> = {}): KeyedFigures => ({
  keys: [key],
  ...NO_FIGURES,
  scans,
  uniques: scans,
  ...more,
})
const keysOf = (ranked: ReturnType<typeof rankRows>) => ranked.rows.map(({ keys }) => keys.join('|'))

describe('a measure', () => {
  it('is worked out of counts and cost', () => {
    const figures = { scans: 200, uniques: 160, leads: 8, arrivals: 50, goals: 10, value: 600, cost: 400 }
    expect(MEASURE_NAMES.map((measure) => [measure, measured(measure, figures)])).toEqual([
      ['scans', 200],
      ['uniques', 160],
      ['leads', 8],
      ['leadRate', 0.04],
      ['arrivals', 50],
      ['arrivalRate', 0.25],
      ['goals', 10],
      ['goalRate', 0.05],
      ['value', 600],
      ['valuePerScan', 3],
      ['cost', 400],
      ['costPerScan', 2],
      ['costPerUnique', 2.5],
      ['costPerLead', 50],
      ['costPerGoal', 40],
      ['returnOnCost', 0.5],
    ])
  })

  it('is no figure where there is nothing to divide by, or no cost is known', () => {
    const none = { ...NO_FIGURES, cost: 10 }
    for (const measure of [
      'leadRate',
      'goalRate',
      'valuePerScan',
      'costPerScan',
      'costPerUnique',
      'costPerLead',
      'costPerGoal',
    ] as const)
      expect(measured(measure, none)).toBeNull()
    expect(measured('costPerScan', { ...none, scans: 5, cost: null })).toBeNull()
    expect(measured('returnOnCost', { ...none, cost: 0, value: 5 })).toBeNull()
    expect(measured('returnOnCost', { ...none, cost: null, value: 5 })).toBeNull()
    expect(measured('returnOnCost', { ...none, cost: 10 })).toBe(-1)
    expect(intervalOf('leadRate', none)).toBeNull()
  })

  it('has an interval where it is a rate (Newcombe, Statistics in Medicine 17, 1998: 81 of 263, from memory)', () => {
    const { low, high } = intervalOf('leadRate', { ...NO_FIGURES, scans: 263, leads: 81 }) ?? {}
    expect([low?.toFixed(4), high?.toFixed(4)]).toEqual(['0.2553', '0.3662'])
    // Somebody may answer twice: no more than every scan can have brought a lead.
    expect(intervalOf('leadRate', { ...NO_FIGURES, scans: 2, leads: 3 })?.value).toBe(1)
    expect(intervalOf('scans', { ...NO_FIGURES, scans: 2, leads: 3 })).toBeNull()
  })

  it('is not ranked where it is a rate of fewer than five scans', () => {
    const of = (scans: number) => ({ ...NO_FIGURES, scans, leads: 1, cost: 1 })
    expect([
      isRanked('leadRate', of(4)),
      isRanked('leadRate', of(5)),
      isRanked('costPerScan', of(4)),
    ]).toEqual([false, true, false])
    expect([isRanked('scans', of(1)), isRanked('cost', of(0))]).toEqual([true, true])
  })
})

describe('rows', () => {
  it('stand by what is asked: rates of few scans after those that can be ranked, what has no figure last', () => {
    const rows = [
      row('nobody', 0),
      row('few', 2, { leads: 2 }),
      row('good', 50, { leads: 10 }),
      row('weak', 500, { leads: 20 }),
    ]
    expect(keysOf(rankRows({ what: 'leadRate', by: ['piece'], top: 9 }, rows, null))).toEqual([
      'good',
      'weak',
      'few',
      'nobody',
    ])
    const { rows: shown, rowsTotal } = rankRows({ what: 'scans', by: ['piece'], top: 2 }, rows, null)
    expect([shown.map(({ keys }) => keys[0]), rowsTotal]).toEqual([['weak', 'good'], 4])
  })

  it('have those of the days before beside them: nothing where there was nothing, the cost as it is', () => {
    const { rows } = rankRows(
      { what: 'scans', by: ['piece'], top: 9 },
      [row('a', 5, { cost: 12 }), row('b', 3)],
      [row('b', 7), row('gone', 9)],
    )
    expect(rows.map(({ before }) => before)).toEqual([
      { ...NO_FIGURES, cost: 12 },
      { ...NO_FIGURES, scans: 7, uniques: 7 },
    ])
  })

  it('of time stay in its order, and all of them', () => {
    const days = ['2026-07-03', '2026-07-01', '2026-07-02'].map((day, i) => row(day, i))
    expect(keysOf(rankRows({ what: 'scans', by: ['day'], top: 1 }, days, null))).toHaveLength(3)
  })

  it('of two dimensions are those of the largest keys of each, every one with all its cells', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), (more) => {
        const pieces = Array.from({ length: CROSSED_MAX + more }, (_, i) => i + 1)
        const rows = pieces.flatMap((piece) => [
          { ...row('', piece), keys: [String(piece), '2026-07-01'] },
          { ...row('', 1), keys: [String(piece), '2026-07-02'] },
        ])
        const found = rankRows({ what: 'scans', by: ['piece', 'day'], top: 9 }, rows, null)
        expect(found.rows).toHaveLength(2 * CROSSED_MAX)
        expect(Math.min(...found.rows.map(({ keys }) => Number(keys[0])))).toBe(more + 1)
      }),
      { numRuns: 10 },
    )
  })
})

describe('cells of two dimensions', () => {
  it('are no more than can be shown: the largest keys, each with all its cells', () => {
    const hours = Array.from({ length: 300 }, (_, i) => `hour ${String(i)}`)
    const rows = Array.from({ length: 200 }, (_, i) => i + 1).flatMap((piece) =>
      hours.map((hour) => ({ ...row('', piece), keys: [String(piece), hour] })),
    )
    const found = rankRows({ what: 'scans', by: ['piece', 'hour'], top: 9 }, rows, null)
    expect([found.rows.length, found.rowsTotal]).toEqual([50 * 300, 200 * 300])
    expect(found.rows.length).toBeLessThanOrEqual(CELLS_MAX)
    expect(new Set(found.rows.map(({ keys }) => keys[0]))).toContain('200')
  })
})

describe('days that others are held against', () => {
  it('are as many just before, or the same a year earlier', () => {
    const days = { from: '2024-02-29', to: '2024-03-06' }
    expect(daysAgainst('before', days)).toEqual({ from: '2024-02-22', to: '2024-02-28' })
    expect(daysAgainst('year', days)).toEqual({ from: '2023-02-28', to: '2023-03-06' })
    expect(daysAgainst('none', days)).toBeNull()
  })
})
