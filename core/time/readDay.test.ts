import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { day, moment } from '../formats/index.ts'
import { momentOf, readDay, readMoment, shiftDay } from './index.ts'

const anyDay = fc.integer({ min: 0, max: 84_000 }).map((n) => shiftDay('1970-01-01', n))

describe('a day or a moment that a person writes', () => {
  it('is read as it is written everywhere', () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: 0, max: 1439 }), (written, minute) => {
        expect(readDay(day(written))).toEqual({ ok: true, value: written })
        const local = `${written}T${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
        expect(readMoment(moment(momentOf('UTC', local), 'UTC'))).toEqual({ ok: true, value: local })
      }),
    )
  })

  it.each([
    ['2026-07-01T08:00', '2026-07-01T08:00'],
    ['1.7.2026 8:05', '2026-07-01T08:05'],
    ['3 July 2026, 18.30', '2026-07-03T18:30'],
    ['3 Jul 2026', '2026-07-03T00:00'],
  ])('%s is the moment %s', (typed, value) => {
    expect(readMoment(typed)).toEqual({ ok: true, value })
  })

  it.each(['3 Jul 2026, 24:00', '3 Jul 2026, 12:60', '1 Jan 9999, 08:00', 'noon', ''])(
    '%j is no moment',
    (typed) => {
      expect(readMoment(typed).ok).toBe(false)
    },
  )
})
