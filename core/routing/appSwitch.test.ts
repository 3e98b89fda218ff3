import { describe, expect, it } from 'vitest'
import { appSwitchIn, compile, decide, NO_RULES, plainArrival, withAppSwitch, type Lane } from './index.ts'

const evening: Lane = {
  id: 'evening',
  name: 'Evenings',
  condition: { kind: 'hours', days: [1], from: '18:00', upTo: '22:00', zone: 'UTC' },
  outcome: { kind: 'address', address: 'https://saltmarsh.example/evening' },
  resting: false,
}
const before = { destination: 'https://saltmarsh.example/', rules: { ...NO_RULES, lanes: [evening] } }
const APPS = {
  addresses: { iOS: 'https://one.example/app', Android: 'https://two.example/app' },
  otherwise: 'https://saltmarsh.example/app',
}
const reached = (route: typeof before, system: string) => {
  const utm = { source: '', medium: '', campaign: '', term: '', content: '' }
  const compiled = compile({ code: { state: 'live', utm }, route: { state: 'live', ...route } })
  const device = { type: 'phone', system, systemVersion: '18.5', browser: '' } as const
  const decision = decide(compiled, plainArrival(Date.parse('2026-07-03T09:00Z'), { device }))
  return decision.kind === 'redirect' ? new URL(decision.address).host : decision.kind
}

describe('an app switch', () => {
  it('makes lanes that lead each system to its address, and leaves the others', () => {
    const route = withAppSwitch(before, APPS)
    expect(route.rules.lanes[0]).toEqual(evening)
    expect(['iOS', 'iPadOS', 'Android', 'Windows'].map((system) => reached(route, system))).toEqual([
      'one.example',
      'one.example',
      'two.example',
      'saltmarsh.example',
    ])
  })

  it('is read back from the lanes, and set twice is set once', () => {
    const route = withAppSwitch(before, APPS)
    expect(appSwitchIn(route)).toEqual(APPS)
    expect(withAppSwitch(route, APPS)).toEqual(route)
  })

  it('changes the address of a lane that somebody named and moved, in its place', () => {
    const made = withAppSwitch(before, APPS)
    const [first, ios, android] = made.rules.lanes as [Lane, Lane, Lane]
    const moved = { ...made, rules: { ...made.rules, lanes: [{ ...android, name: 'Robots' }, first, ios] } }
    const changed = withAppSwitch(moved, { ...APPS, addresses: { Android: 'https://three.example/' } })
    expect(changed.rules.lanes.map(({ id, name }) => [id, name])).toEqual([
      ['appandroid', 'Robots'],
      ['evening', 'Evenings'],
    ])
    expect(reached(changed, 'Android')).toBe('three.example')
  })

  it('takes no lane for its own that asks more of a scan', () => {
    const old: Lane = {
      ...evening,
      id: 'old',
      condition: { kind: 'system', is: 'iOS', from: '', upTo: '15' },
    }
    const given = { ...before, rules: { ...NO_RULES, lanes: [old] } }
    expect(appSwitchIn(given).addresses).toEqual({})
    expect(withAppSwitch(given, APPS).rules.lanes.map(({ id }) => id)).toEqual([
      'old',
      'appios',
      'appandroid',
    ])
  })
})
