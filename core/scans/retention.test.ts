import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayIn } from '../time/index.ts'
import { keptSince, retention } from './retention.ts'

describe('how long single scans are kept', () => {
  it.each([
    ['Europe/Berlin', '2026-11-27T03:00:00Z', 1, '2026-09-30T22:00:00.000Z'],
    ['UTC', '2026-11-01T00:00:00Z', 1, '2026-10-01T00:00:00.000Z'],
    ['UTC', '2026-01-31T23:59:59Z', 14, '2024-11-01T00:00:00.000Z'],
    // Still October on the west coast, already November in Kathmandu.
    ['America/Los_Angeles', '2026-11-01T02:00:00Z', 3, '2026-07-01T07:00:00.000Z'],
    ['Asia/Kathmandu', '2026-10-31T20:00:00Z', 3, '2026-07-31T18:15:00.000Z'],
  ])('in %s at %s, for %i months: those since %s', (zone, now, months, since) => {
    expect(new Date(keptSince(zone, Date.parse(now), months)).toISOString()).toBe(since)
  })

  it('is never less than so many months, and begins with a month', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Europe/Berlin', 'Pacific/Apia', 'America/St_Johns'),
        fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2100, 0) }),
        fc.integer({ min: 1, max: 240 }),
        (zone, now, months) => {
          const since = keptSince(zone, now, months)
          expect(dayIn(zone, since)).toMatch(/-01$/)
          const [year = 0, month = 0] = dayIn(zone, since).split('-').map(Number)
          const [thisYear = 0, thisMonth = 0] = dayIn(zone, now).split('-').map(Number)
          expect(thisYear * 12 + thisMonth - (year * 12 + month)).toBe(months)
        },
      ),
    )
  })

  it.each([0, -1, 241, 1.5, '6'])('is not %s months', (months) => {
    expect(retention.safeParse({ months }).success).toBe(false)
  })
})
