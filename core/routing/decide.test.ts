import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compile, decide, differences, STATES, type RouteSettings, type State } from './index.ts'

const utm = { source: 'pier-poster', medium: 'print', campaign: 'summer-26', term: '', content: '' }
const settings = (code: State, route: State, destination = 'https://saltmarsh.example/a'): RouteSettings => ({
  code: { state: code, utm }, route: { state: route, destination },
})
const decided = (given: RouteSettings, query = '') => decide(compile(given), { query })

describe('deciding a scan', () => {
  it('sends it on to the tagged destination', () => {
    expect(decided(settings('live', 'live'))).toMatchObject({
      kind: 'redirect', reason: 'otherwise', address: 'https://saltmarsh.example/a?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26',
    })
  })

  it.each<[State, State, string, string]>([
    ['paused', 'live', 'paused', 'code'],
    ['deleted', 'live', 'deleted', 'code'],
    ['live', 'paused', 'paused', 'route'],
    ['live', 'deleted', 'deleted', 'route'],
    ['paused', 'deleted', 'paused', 'code'],
  ])('answers a %s code of a %s route with the message "%s", because of the %s', (code, route, message, reason) => {
    expect(decided(settings(code, route))).toMatchObject({ kind: 'message', message, reason })
  })

  it('tells what it looked at, up to what settled it', () => {
    expect(decided(settings('live', 'paused')).trace).toEqual([
      { looked: 'code', saw: 'live', settled: false },
      { looked: 'route', saw: 'paused', settled: true },
    ])
  })

  it('answers every visit, and exactly one step settles it', () => {
    const state = fc.constantFrom(...STATES)
    fc.assert(fc.property(state, state, fc.string({ unit: 'binary' }), (code, route, query) => {
      const decision = decided(settings(code, route), query)
      expect(decision.kind === 'redirect').toBe(code === 'live' && route === 'live')
      expect(decision.trace.filter(({ settled }) => settled)).toHaveLength(1)
      expect(decision.trace.at(-1)?.settled).toBe(true)
    }))
  })

  it('refuses to compile a destination that could not have been stored', () => {
    expect(() => compile(settings('live', 'live', 'nowhere'))).toThrow(RangeError)
  })
})

describe('the differences of a revision', () => {
  it('are the fields that changed', () => {
    expect(differences({ before: { name: 'a', state: 'live' }, after: { name: 'b', state: 'live' } })).toEqual([{ field: 'name', was: 'a', is: 'b' }])
  })
  it('are all fields of the first one', () => {
    expect(differences({ before: null, after: { name: 'a' } })).toEqual([{ field: 'name', was: undefined, is: 'a' }])
  })
})
