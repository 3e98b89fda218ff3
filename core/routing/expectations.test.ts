import { describe, expect, it } from 'vitest'
import { EVERY_SCAN } from '../conditions/index.ts'
import {
  allLanes,
  arrivalOf,
  brokenExpectations,
  compile,
  decide,
  expectation,
  isSameRoute,
  lanesOfSet,
  leadsWhere,
  NO_RULES,
  openLife,
  plainArrival,
  rules,
  withoutQuery,
  type Expectation,
  type Lane,
  type Rehearsal,
  type RouteSettings,
  type Rules,
} from './index.ts'

const given: Rehearsal = {
  place: { country: 'DE', region: 'Bremen', city: 'Bremen', latitude: 53.0793, longitude: 8.8017 },
  device: { type: 'phone', system: 'iOS', systemVersion: '18.5', browser: 'Safari' },
  languages: ['de-DE', 'de'],
  at: '2026-07-15T02:00',
  zone: 'Europe/Berlin',
  repeat: false,
  query: '',
}
const lane = (id: string, more: Partial<Lane> = {}): Lane => ({
  id,
  name: '',
  condition: EVERY_SCAN,
  outcome: { kind: 'address', address: `https://saltmarsh.example/${id}` },
  resting: false,
  ...more,
})
const compiled = (changes: Partial<Rules> = {}, more: Partial<RouteSettings> = {}) =>
  compile({
    code: { state: 'live', utm: { source: 's', medium: 'print', campaign: 'c', term: '', content: '' } },
    route: {
      state: 'live',
      destination: 'https://saltmarsh.example/a?x=1',
      rules: { ...NO_RULES, ...changes },
      ...more,
    },
  })
const kept = (leads: string): Expectation => ({ id: 'e', name: 'Bremen at night', rehearsal: given, leads })

describe('a rehearsal', () => {
  it('stands at its moment on its zone’s clock, or now', () => {
    expect(new Date(arrivalOf(given, 0).at).toISOString()).toBe('2026-07-15T00:00:00.000Z')
    expect(arrivalOf({ ...given, at: '' }, 77).at).toBe(77)
  })
  it('goes past a password and a question for the place, and is never counted', () => {
    expect(
      decide(compiled({ askLocation: { why: 'x' } }, { locked: true }), arrivalOf(given, 0)),
    ).toMatchObject({ kind: 'redirect' })
  })
  it('is refused where it could not have been made', () => {
    for (const wrong of [
      { ...given, at: 'noon' },
      { ...given, zone: 'Mars' },
      { ...given, place: { ...given.place, latitude: 91 } },
    ])
      expect(expectation.safeParse({ ...kept('x'), rehearsal: wrong }).success).toBe(false)
    expect(expectation.safeParse(kept('x')).success).toBe(true)
  })
})

describe('where a decision leads, in a line', () => {
  it.each<[Partial<Rules>, Partial<RouteSettings>, string]>([
    [{}, {}, 'https://saltmarsh.example/a?x=1&utm_source=s&utm_medium=print&utm_campaign=c'],
    [
      { lanes: [lane('m', { outcome: { kind: 'message', title: 'Storm', text: '' } })] },
      {},
      'the message “Storm”',
    ],
    [{}, { state: 'paused' }, 'a page that says the code is paused'],
    [{ life: { ...openLife('UTC'), endsAt: '1969-01-01T00:00' } }, {}, 'a page that says it is over'],
    [{}, { locked: true }, 'a page that asks for the password'],
  ])('%#', (changes, more, line) => {
    expect(leadsWhere(decide(compiled(changes, more), plainArrival(0)))).toBe(line)
  })
})

describe('an expectation', () => {
  it('is met whatever the tags, and broken by another page', () => {
    const { code, route } = compiled()
    expect(
      brokenExpectations([kept('https://saltmarsh.example/a?utm_source=older')], code, route, 0),
    ).toEqual([])
    expect(brokenExpectations([kept('https://saltmarsh.example/b')], code, route, 0)).toEqual([
      {
        name: 'Bremen at night',
        expected: 'https://saltmarsh.example/b',
        would: 'https://saltmarsh.example/a',
      },
    ])
    expect(withoutQuery('https://saltmarsh.example/a#b?c')).toBe('https://saltmarsh.example/a')
  })
})

describe('rules', () => {
  it('are asked with the lanes of their set before or after, under keys of their own', () => {
    const ofSet = lanesOfSet(3, [lane('x'), lane('y')])
    const order = (place: 'first' | 'last') =>
      allLanes({ lanes: [lane('x')], shared: { setId: 3, place } }, ofSet).map(({ id }) => id)
    expect([order('first'), order('last')]).toEqual([
      ['s3-x', 's3-y', 'x'],
      ['x', 's3-x', 's3-y'],
    ])
    expect(allLanes({ lanes: [lane('x')], shared: null }, ofSet)).toHaveLength(1)
    expect(
      decide(
        compiled({ lanes: [lane('x')], shared: { setId: 3, place: 'first' } }, { sharedLanes: ofSet }),
        plainArrival(0),
      ).exit,
    ).toBe('s3-x')
  })
  it('are the same however they are written, and take what was kept before there were sets', () => {
    const { shared: _shared, tags: _tags, ...older } = NO_RULES
    expect(rules.parse(older)).toEqual(NO_RULES)
    const turned = { tags: [], askLocation: null, shared: null, life: null, language: '', lanes: [] }
    expect(isSameRoute({ destination: 'a', rules: NO_RULES }, { destination: 'a', rules: turned })).toBe(true)
    expect(
      isSameRoute(
        { destination: 'a', rules: NO_RULES },
        { destination: 'a', rules: { ...turned, language: 'de' } },
      ),
    ).toBe(false)
  })
})
