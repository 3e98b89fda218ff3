import { describe, expect, it } from 'vitest'
import { endpointOf, everyEndpoint } from './index.ts'

describe('the contract as a whole', () => {
  it('has no two operations at the same place, and finds each by it', () => {
    const places = everyEndpoint.map(({ method, path }) => `${method} ${path}`)
    expect(new Set(places).size).toBe(places.length)
    for (const each of everyEndpoint) expect(endpointOf(each.method, each.path)).toBe(each)
    expect(endpointOf('GET', '/nowhere')).toBeUndefined()
  })
})
