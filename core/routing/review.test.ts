import { describe, expect, it } from 'vitest'
import { EVERY_SCAN, type Condition } from '../conditions/index.ts'
import {
  changesInWords,
  forecastLimit,
  laneInWords,
  lifeInWords,
  NO_NAMES,
  NO_RULES,
  openLife,
  reviewRoute,
  type Lane,
  type LaneOutcome,
  type Rules,
} from './index.ts'

const to = (page: string) => ({ kind: 'address', address: `https://saltmarsh.example/${page}` }) as const
const lane = (
  id: string,
  condition: Condition,
  outcome: LaneOutcome = to(id),
  more: Partial<Lane> = {},
): Lane => ({ id, name: id, condition, outcome, resting: false, ...more })
const country = (...of: string[]): Condition => ({ kind: 'country', in: of })
const near = (name: string, latitude: number, longitude: number, km: number): Condition => ({
  kind: 'near',
  name,
  latitude,
  longitude,
  km,
})
const hours = (days: number[], from: string, upTo: string): Condition => ({
  kind: 'hours',
  days,
  from,
  upTo,
  zone: 'Europe/Berlin',
})
const now = Date.parse('2026-11-25T12:00:00Z')
const found = (lanes: Lane[], more: Partial<Parameters<typeof reviewRoute>[0]> = {}) =>
  reviewRoute({ destination: 'https://saltmarsh.example/else', rules: { ...NO_RULES, lanes }, now, ...more })
const kinds = (...given: Parameters<typeof found>) =>
  found(...given).map(({ kind, lane: of }) => `${kind}${of === null ? '' : ` ${of}`}`)

describe('the review of a route', () => {
  it('finds nothing wrong with what is right', () => {
    expect(found([lane('a', country('DE')), lane('b', country('NL')), lane('c', EVERY_SCAN)])).toEqual([])
  })

  it('finds lanes that earlier ones cover, alone or together', () => {
    expect(
      kinds([
        lane('a', country('DE', 'AT')),
        lane('b', { kind: 'all', of: [country('DE'), { kind: 'device', in: ['phone'] }] }),
      ]),
    ).toEqual(['covered b'])
    expect(
      kinds([lane('a', country('DE')), lane('b', country('AT')), lane('c', country('AT', 'DE'))]),
    ).toEqual(['covered c'])
    expect(kinds([lane('a', EVERY_SCAN), lane('b', country('DE'))])).toEqual(['covered b'])
    expect(
      found([lane('a', country('DE')), lane('b', country('AT')), lane('c', country('AT', 'DE'))])[0]
        ?.sentence,
    ).toContain('“b” and “a” take all of its scans')
  })

  it('does not count on lanes that rest, or whose split takes nobody', () => {
    const nobody: LaneOutcome = {
      kind: 'split',
      variants: ['x', 'y'].map((id) => ({ id, name: id, weight: 0, ended: false, leads: to(id) })),
    }
    expect(kinds([lane('a', EVERY_SCAN, to('a'), { resting: true }), lane('b', country('DE'))])).toEqual([])
    expect(kinds([lane('a', EVERY_SCAN, nobody), lane('b', country('DE'))])).toEqual(['weights a'])
  })

  it('finds conditions that shut each other out', () => {
    expect(kinds([lane('a', { kind: 'all', of: [country('DE'), country('NL')] })])).toEqual(['impossible a'])
    expect(
      kinds([lane('a', { kind: 'window', from: '2026-12-02T00:00', upTo: '2026-12-01T00:00', zone: 'UTC' })]),
    ).toEqual(['impossible a'])
  })

  it('finds circles that overlap, and says who gets both', () => {
    const both = found([
      lane('bremen', near('Bremen', 53.08, 8.8, 40)),
      lane('oldenburg', near('Oldenburg', 53.14, 8.21, 20)),
    ])
    expect(both).toMatchObject([
      {
        kind: 'circles',
        lane: 'oldenburg',
        sentence:
          'The circles about Bremen and Oldenburg overlap: scans in both take the lane “bremen”, which comes first.',
      },
    ])
    expect(
      kinds([
        lane('bremen', near('Bremen', 53.08, 8.8, 10)),
        lane('oldenburg', near('Oldenburg', 53.14, 8.21, 10)),
      ]),
    ).toEqual([])
  })

  it('finds times that are over, and gaps in a schedule', () => {
    expect(
      kinds([lane('a', { kind: 'window', from: '', upTo: '2026-11-25T12:59', zone: 'Europe/Berlin' })]),
    ).toEqual(['window-over a'])
    const gap = found([
      lane('day', hours([1, 2, 3, 4, 5, 6, 7], '08:00', '20:00')),
      lane('night', hours([1, 2, 3, 4, 5, 7], '20:00', '08:00')),
    ])
    expect(gap.map(({ sentence }) => sentence)).toEqual([
      'The schedule leaves gaps: Saturday 20:00 to Sunday 08:00. Scans then go where everything else leads.',
    ])
    expect(
      kinds([
        lane('day', hours([1, 2, 3, 4, 5, 6, 7], '08:00', '20:00')),
        lane('night', hours([1, 2, 3, 4, 5, 6, 7], '20:00', '08:00')),
      ]),
    ).toEqual([])
    expect(
      kinds([], {
        rules: { ...NO_RULES, life: { ...openLife('Europe/Berlin'), endsAt: '2026-11-01T00:00' } },
      }),
    ).toEqual(['life-over'])
  })

  it('finds destinations equal to otherwise, unless they shield a scan from a later lane', () => {
    const same = { kind: 'address', address: 'https://Saltmarsh.example/else' } as const
    expect(kinds([lane('a', country('DE'), same)])).toEqual(['as-otherwise a'])
    expect(kinds([lane('a', country('DE'), same), lane('b', EVERY_SCAN)])).toEqual([])
  })

  it('finds systems told apart with nothing for the rest', () => {
    const system = (is: string): Condition => ({ kind: 'system', is, from: '', upTo: '' })
    expect(
      kinds([
        lane('ios', system('iOS'), to('store-a')),
        lane('android', system('Android'), { kind: 'address', address: 'https://saltmarsh.example/else' }),
      ]),
    ).toContain('systems android')
    expect(kinds([lane('ios', system('iOS')), lane('android', system('Android'))])).toEqual([])
  })

  it('finds lanes that nobody took in practice, once that tells anything', () => {
    const lanes = [lane('a', country('DE')), lane('b', country('FO'))]
    expect(
      kinds(lanes, {
        taken: new Map([
          ['a', 60],
          ['otherwise', 60],
        ]),
      }),
    ).toEqual(['never-taken b'])
    expect(kinds(lanes, { taken: new Map([['a', 20]]) })).toEqual([])
  })
})

describe('in words', () => {
  const nameOf = { ...NO_NAMES, route: (id: number) => `R${String(id)}` }
  const live = (more: Partial<Rules>, destination = 'https://saltmarsh.example/a') => ({
    destination,
    rules: { ...NO_RULES, ...more },
  })

  it('a lane is a sentence', () => {
    expect(laneInWords(lane('a', country('DE'), { kind: 'route', routeId: 4 }), nameOf)).toBe(
      'Scans in Germany → the route “R4”',
    )
    expect(
      laneInWords(
        lane('a', EVERY_SCAN, {
          kind: 'split',
          variants: [
            { id: 'a', name: 'A', weight: 3, ended: false, leads: to('x') },
            { id: 'b', name: 'B', weight: 1, ended: false, leads: { kind: 'message', title: 'M', text: '' } },
            { id: 'c', name: 'C', weight: 9, ended: true, leads: to('y') },
          ],
        }),
        nameOf,
      ),
    ).toBe('Every scan → 75 % A: saltmarsh.example/x, 25 % B: the message “M”')
  })

  it('a life is what bounds it', () => {
    expect(
      lifeInWords({
        ...openLife('Europe/Berlin'),
        endsAt: '2026-09-01T00:00',
        limit: 5000,
        full: to('list'),
      }),
    ).toEqual([
      'Ends 1 Sep 2026, 00:00; after it, a page says so.',
      'Lets 5,000 scans through; then saltmarsh.example/list.',
    ])
  })

  it('what changes is told, lane by lane, and nothing where nothing does', () => {
    const a = lane('a', country('DE'))
    const b = lane('b', country('NL'))
    expect(changesInWords(live({ lanes: [a, b] }), live({ lanes: [a, b] }), nameOf)).toEqual([])
    expect(
      laneInWords(lane('a', EVERY_SCAN, { kind: 'page', pageId: 3 }), { ...nameOf, page: () => 'Tides' }),
    ).toBe('Every scan → the page “Tides”')
    expect(changesInWords(live({ lanes: [a, b] }), live({ lanes: [b, a] }), nameOf)).toEqual([
      'the lanes stand in another order',
    ])
    expect(
      changesInWords(
        live({ lanes: [a, b] }),
        live(
          { lanes: [{ ...a, condition: country('AT'), resting: true }, lane('c', EVERY_SCAN)] },
          'https://saltmarsh.example/b',
        ),
        nameOf,
      ),
    ).toEqual([
      'the lane “a” now takes: Scans in Austria',
      'the lane “a” is turned off',
      'a new lane: Every scan → saltmarsh.example/c',
      'the lane “b” is gone',
      'everything else leads to https://saltmarsh.example/b instead of https://saltmarsh.example/a',
    ])
  })
})

describe('the forecast of a limit', () => {
  it('is the rest at the mean pace, with the interval of that pace', () => {
    // Mean 10 a day, of Poisson scatter at least: ± 1.96 √(10 ⁄ 10) = 1.96.
    const found10 = forecastLimit([10, 10, 10, 10, 10, 10, 10, 10, 10, 10], 100)
    expect(found10?.expected).toBe(10)
    expect(found10?.earliest).toBeCloseTo(100 / 11.96, 2)
    expect(found10?.latest).toBeCloseTo(100 / 8.04, 2)
  })
  it('is wider where days differ, and without an end where the pace may be none', () => {
    expect(forecastLimit([0, 20, 0, 20, 0, 20, 0, 20], 100)?.latest ?? 0).toBeGreaterThan(20)
    expect(forecastLimit([0, 0, 1], 100)?.latest).toBe(Infinity)
  })
  it('is not made from nothing', () => {
    expect([forecastLimit([5, 5], 9), forecastLimit([0, 0, 0, 0], 9)]).toEqual([null, null])
  })
})
