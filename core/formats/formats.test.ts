import { describe, expect, it } from 'vitest'
import { age, bounds, quantity, day, moment, number, share } from './index.ts'

const MINUTE = 60_000

describe('how things are written', () => {
  it.each([
    [0, '0'],
    [1234, '1,234'],
    [1_234_567, '1,234,567'],
  ])('the number %i as %s', (n, text) => {
    expect(number(n)).toBe(text)
  })
  it.each([
    [0, '0 scans'],
    [1, '1 scan'],
    [2, '2 scans'],
    [1000, '1,000 scans'],
  ])('%i of something as %s', (n, text) => {
    expect(quantity(n, 'scan')).toBe(text)
  })
  it('an interval, below nothing too, with the sign for minus', () => {
    expect(bounds({ low: 0.223, high: 0.399 })).toBe('22.3 to 39.9 %')
    expect(bounds({ low: -0.011, high: 0.008 })).toBe('−1.1 to 0.8 %')
    expect(bounds({ low: -0.02, high: -0.01 })).toBe('−2.0 to −1.0 %')
  })
  it('with an own plural', () => {
    expect(quantity(2, 'look ahead', 'looks ahead')).toBe('2 looks ahead')
  })
  it.each([
    [1, 3, '33.3%'],
    [0, 3, '0%'],
    [3, 3, '100%'],
    [0, 0, '–'],
  ])('%i of %i as %s', (part, all, text) => {
    expect(share(part, all)).toBe(text)
  })
  it.each([
    [10_000, 'just now'],
    [3 * MINUTE, '3 min ago'],
    [2 * 60 * MINUTE, '2 h ago'],
    [3 * 24 * 60 * MINUTE, '3 days ago'],
    [70 * 24 * 60 * MINUTE, '2 months ago'],
  ])('%i ms ago as %s', (ago, text) => {
    expect(age(1e12 - ago, 1e12)).toBe(text)
  })
  it('a moment in the zone it is asked for', () => {
    const at = Date.parse('2026-07-01T22:30:00Z')
    expect(moment(at, 'Europe/Berlin')).toBe('2 Jul 2026, 00:30')
    expect(moment(at, 'America/New_York')).toBe('1 Jul 2026, 18:30')
  })
  it('a day wherever the reader is', () => {
    expect(day('2026-07-01')).toBe('1 Jul 2026')
  })
})
