import { describe, expect, it } from 'vitest'
import {
  compile,
  decide,
  isLetThrough,
  NO_RULES,
  openLife,
  plainArrival,
  type CodeSettings,
  type Lane,
  type RouteSettings,
} from './index.ts'

const always: Lane['condition'] = { kind: 'all', of: [] }
const leadingTo = (routeId: number): Lane => ({
  id: 'on',
  name: '',
  condition: always,
  outcome: { kind: 'route', routeId },
  resting: false,
})
const code: CodeSettings = {
  state: 'live',
  utm: { source: '', medium: '', campaign: '', term: '', content: '' },
}
const first: RouteSettings = {
  state: 'live',
  destination: 'https://a.example/first',
  rules: { ...NO_RULES, lanes: [leadingTo(2)] },
}
const decided = (target: Partial<RouteSettings>, piece: Partial<CodeSettings> = {}) =>
  decide(
    compile({ code: { ...code, ...piece }, route: first }, (id) =>
      id === 2 ? { state: 'live', destination: 'https://a.example/second', ...target } : null,
    ),
    plainArrival(Date.parse('2026-07-01T12:00:00Z')),
  )

describe('a lane that leads on to another route', () => {
  it('is left by the lane, where the other one lets the scan through', () => {
    expect(decided({})).toMatchObject({
      kind: 'redirect',
      address: 'https://a.example/second',
      reason: 'lane',
      exit: 'on',
    })
    expect(isLetThrough(decided({}))).toBe(true)
  })
  it('lets nobody through where the other one rests, or is over: the first one’s limit is not used up', () => {
    const paused = decided({ state: 'paused' })
    const over = decided({ rules: { ...NO_RULES, life: { ...openLife('UTC'), endsAt: '2026-01-01T00:00' } } })
    expect([isLetThrough(paused), paused, isLetThrough(over), over]).toMatchObject([
      false,
      { message: 'paused', exit: '' },
      false,
      { message: 'over', exit: 'after' },
    ])
  })
  it('is the other route’s own destination, not the piece’s, which is for the route the piece is on', () => {
    expect(decided({}, { otherwise: 'https://a.example/item' })).toMatchObject({
      address: 'https://a.example/second',
    })
    const plain = decide(
      compile({
        code: { ...code, otherwise: 'https://a.example/item' },
        route: { ...first, rules: NO_RULES },
      }),
      plainArrival(0),
    )
    expect(plain).toMatchObject({ address: 'https://a.example/item' })
  })
})

describe('a language written in capitals', () => {
  it('is the same language: a lane for it takes its readers', () => {
    const route: RouteSettings = {
      state: 'live',
      destination: 'https://a.example/en',
      rules: {
        ...NO_RULES,
        language: 'EN',
        lanes: [
          {
            id: 'en',
            name: '',
            condition: { kind: 'language', in: ['en'] },
            outcome: { kind: 'address', address: 'https://a.example/lane' },
            resting: false,
          },
        ],
      },
    }
    expect(decide(compile({ code, route }), plainArrival(0, { languages: ['en'] }))).toMatchObject({
      exit: 'en',
    })
  })
})

describe('a long query', () => {
  it('is carried on up to 2 kB, in whole pairs', () => {
    const query = Array.from({ length: 2000 }, (_, i) => `n${String(i)}=1`).join('&')
    const decision = decide(
      compile({ code, route: { state: 'live', destination: 'https://a.example/' } }),
      plainArrival(0, { query }),
    )
    const carried = decision.kind === 'redirect' ? new URL(decision.address).search.slice(1) : ''
    expect([carried.length <= 2048, carried.length > 2000, query.startsWith(`${carried}&`)]).toEqual([
      true,
      true,
      true,
    ])
  })
})
