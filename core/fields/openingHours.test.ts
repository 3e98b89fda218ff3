import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isOpen, openingHours, openState, type OpeningHours } from './openingHours.ts'

const DAY = [
  { from: '09:00', upTo: '12:30' },
  { from: '14:00', upTo: '18:00' },
]
const CLOSED: OpeningHours['week'][number] = []
const kiosk: OpeningHours = {
  zone: 'Europe/Berlin',
  week: [
    DAY,
    DAY,
    CLOSED,
    DAY,
    [{ from: '18:00', upTo: '02:00' }],
    [{ from: '00:00', upTo: '00:00' }],
    CLOSED,
  ],
  except: [{ from: '2026-12-24', to: '2026-12-26', slots: [], note: 'Christmas' }],
}
/** Local times of Berlin in winter, an hour before UTC. */
const at = (local: string) => Date.parse(`${local}:00+01:00`)

describe('opening hours', () => {
  it.each([
    // 23 November 2026 is a Monday.
    ['2026-11-23T08:59', false, '2026-11-23T09:00'],
    ['2026-11-23T09:00', true, '2026-11-23T12:30'],
    ['2026-11-23T12:30', false, '2026-11-23T14:00'],
    ['2026-11-24T18:00', false, '2026-11-26T09:00'],
    // From Friday evening over midnight; Saturday is open all day.
    ['2026-11-27T23:00', true, '2026-11-29T00:00'],
    ['2026-11-29T12:00', false, '2026-11-30T09:00'],
    // Christmas, a Thursday to a Saturday: what opened on Wednesday would go on, but that is closed.
    ['2026-12-24T10:00', false, '2026-12-28T09:00'],
  ])('at %s: open %s until %s', (local, open, until) => {
    expect(openState(kiosk, at(local))).toEqual({ isOpen: open, until: at(until) })
  })

  it('never change where they are always, or never', () => {
    const always = Array.from({ length: 7 }, () => [{ from: '00:00', upTo: '00:00' }])
    const never = Array.from({ length: 7 }, () => CLOSED)
    expect(openState({ ...kiosk, week: always, except: [] }, at('2026-11-23T08:00'))).toEqual({
      isOpen: true,
      until: null,
    })
    expect(openState({ ...kiosk, week: never, except: [] }, at('2026-11-23T08:00'))).toEqual({
      isOpen: false,
      until: null,
    })
  })

  const time = fc
    .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
    .map(([hour, minute]) => `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`)
  const slots = fc.array(fc.record({ from: time, upTo: time }), { maxLength: 2 })
  const hours = fc.record({
    zone: fc.constantFrom(
      'Europe/Berlin',
      'America/St_Johns',
      'Australia/Lord_Howe',
      'Asia/Kathmandu',
      'Pacific/Apia',
    ),
    week: fc.array(slots, { minLength: 7, maxLength: 7 }),
    except: fc.array(
      fc.record({
        from: fc.constant('2026-03-29'),
        to: fc.constantFrom('2026-03-29', '2026-10-25'),
        slots,
        note: fc.constant(''),
      }),
      { maxLength: 1 },
    ),
  })
  /** About the changes of clocks: in Berlin on 29 March and 25 October, on Lord Howe by half an hour on 5 April. */
  const moment = fc
    .tuple(
      fc.constantFrom('2026-03-08', '2026-03-29', '2026-04-05', '2026-10-04', '2026-10-25', '2026-11-01'),
      fc.integer({ min: -1500, max: 1500 }),
    )
    .map(([day, minutes]) => Date.parse(day) + minutes * 60_000)

  it('stay as they are until the moment that is told, minute by minute, over every change of clocks', () => {
    fc.assert(
      fc.property(hours, moment, (given, now) => {
        const { isOpen: open, until } = openState(given, now)
        expect(open).toBe(isOpen(given, now))
        const end = Math.min(until ?? Infinity, now + 3 * 86_400_000)
        for (let each = now; each < end; each += 60_000)
          if (isOpen(given, each) !== open) expect.fail(new Date(each).toISOString())
        if (until !== null) expect(isOpen(given, until)).toBe(!open)
      }),
      { numRuns: 60 },
    )
  })

  it.each([
    [{ week: [DAY] }, 'seven days'],
    [{ week: [[{ from: '24:00', upTo: '25:00' }], ...kiosk.week.slice(1)] }, '08:30'],
    [{ except: [{ from: '2026-12-26', to: '2026-12-24', slots: [], note: '' }] }, 'before the first'],
    [{ zone: 'Mars/Olympus' }, ''],
  ])('are refused with a sentence: %j', (change, sentence) => {
    const { error } = openingHours.safeParse({ ...kiosk, ...change })
    expect(error?.issues.map(({ message }) => message).join(' ')).toContain(sentence)
  })
})
