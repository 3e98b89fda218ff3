import { buckets, spanOfDays, type Unit } from '@flimbo/core/time'
import { describe, expect, it } from 'vitest'
import { type Results } from '@flimbo/core/results'
import { bucketNames, timeOption } from './timeOption.ts'
import { periodOf } from './period.ts'

const NOW = Date.parse('2026-11-24T23:30:00Z')
const of = (address: string, zone = 'Europe/Berlin') => periodOf(new URLSearchParams(address), zone, NOW)

describe('the period an address names', () => {
  it('is the last thirty days where it names none, in the campaign’s zone', () => {
    expect(of('')).toEqual({
      preset: '30',
      from: '2026-10-27',
      to: '2026-11-25',
      unit: undefined,
      compare: false,
    })
    expect(of('', 'America/New_York').to).toBe('2026-11-24')
  })
  it.each([
    ['days=today', '2026-11-25'],
    ['days=7', '2026-11-19'],
    ['days=365', '2025-11-26'],
    ['days=nonsense', '2026-10-27'],
  ])('%s begins on %s', (address, from) => {
    expect(of(address)).toMatchObject({ from, to: '2026-11-25' })
  })
  it('is what was chosen', () => {
    expect(of('from=2026-05-01&to=2026-09-30&unit=week&compare=yes')).toEqual({
      preset: 'custom',
      from: '2026-05-01',
      to: '2026-09-30',
      unit: 'week',
      compare: true,
    })
  })
  it.each(['from=2026-05-01', 'from=1.5.2026&to=2.5.2026', 'unit=fortnight'])('passes over %s', (address) => {
    expect(of(address)).toMatchObject({ preset: '30', unit: undefined })
  })
})

/** Results of some days with a scan in every bucket. */
function results(unit: Unit, from: string, to: string, more: Partial<Results> = {}): Results {
  const zone = 'Europe/Berlin'
  const period = {
    from,
    to,
    tally: { scans: 0, uniques: 0, lastAt: null },
    buckets: buckets(zone, spanOfDays(zone, from, to), unit).map((span) => ({
      ...span,
      scans: 2,
      uniques: 1,
    })),
  }
  return {
    zone,
    unit,
    period,
    before: null,
    rowsSince: null,
    ever: period.tally,
    apart: [],
    changes: [],
    countries: [],
    cities: [],
    citiesTotal: 0,
    devices: [],
    systems: [],
    browsers: [],
    languages: [],
    channels: [],
    codes: [],
    ...more,
  }
}

describe('the names of the columns', () => {
  it.each<[Unit, string, string]>([
    ['day', '2026-10-24', 'Sat 24 Oct'],
    ['week', '2026-10-24', 'week of 24 Oct 2026'],
    ['month', '2026-10-01', 'Oct 2026'],
    ['year', '2026-01-01', '2026'],
  ])('by %s', (unit, from, name) => {
    expect(bucketNames(results(unit, from, '2026-10-26'))[0]).toMatch(
      new RegExp(`^${name.replace(' ', ',? ')}$`),
    )
  })
  it('tell the hour that comes twice apart, and no other', () => {
    const names = bucketNames(results('hour', '2026-10-25', '2026-10-25'))
    expect(new Set(names).size).toBe(25)
    expect(names.filter((name) => name.includes('GMT'))).toEqual([
      expect.stringContaining('GMT+2') as string,
      expect.stringContaining('GMT+1') as string,
    ])
  })
})

describe('the chart', () => {
  const colours = {
    series: ['#1', '#2', '#3'],
    ink: '#4',
    quiet: '#5',
    hairline: '#6',
    sheet: '#7',
    signal: '#8',
  }
  const change = (at: string) => ({
    at: Date.parse(at),
    routeId: 1,
    routeName: 'R',
    by: 'Anna',
    was: 'a',
    is: 'b',
  })
  type Option = {
    series: { name: string; data: number[]; markLine?: { data: { xAxis: number; name: string }[] } }[]
  }

  it('marks the moments of change on their columns, numbered as in the list', () => {
    const { series } = timeOption(
      results('day', '2026-10-20', '2026-10-26', {
        changes: [
          change('2026-10-20T22:30:00Z'),
          change('2026-10-25T08:00:00Z'),
          change('2026-10-25T09:00:00Z'),
        ],
      }),
      colours,
    ) as unknown as Option
    // 22:30 UTC is half past midnight of the next day in Berlin.
    expect(series[0]?.markLine?.data).toEqual([
      { xAxis: 1, name: '1' },
      { xAxis: 5, name: '2–3' },
    ])
  })
  it('shows the period before where it was asked for', () => {
    const plain = results('day', '2026-10-20', '2026-10-22')
    const names = (given: Results) =>
      (timeOption(given, colours) as unknown as Option).series.map(({ name }) => name)
    expect(names(plain)).toEqual(['Scans', 'Unique scans'])
    expect(names({ ...plain, before: plain.period })).toEqual([
      'Scans',
      'Unique scans',
      'Scans, period before',
    ])
  })
  it('shows what was counted', () => {
    const { series } = timeOption(results('day', '2026-10-20', '2026-10-22'), colours) as unknown as Option
    expect(series.map(({ data }) => data)).toEqual([
      [2, 2, 2],
      [1, 1, 1],
    ])
  })
})
