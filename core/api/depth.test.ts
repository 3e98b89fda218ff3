import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isShallow } from './index.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
const depthOf = (value: unknown): number =>
  typeof value !== 'object' || value === null ? 0 : 1 + Math.max(0, ...Object.values(value).map(depthOf))

describe('how deep JSON is nested', () => {
  it('is told for all JSON, whatever stands in its texts', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
        const depth = depthOf(value)
        expect(isShallow(bytes(JSON.stringify(value)), depth)).toBe(true)
        if (depth > 0) expect(isShallow(bytes(JSON.stringify(value)), depth - 1)).toBe(false)
      }),
    )
  })
  it.each(['"[[[["', '"\\"[[["', '"\\\\"', '{"a":"}"}'])('brackets in a text do not count: %s', (text) => {
    expect(isShallow(bytes(text), 1)).toBe(true)
  })
  it('is told of megabytes that are no JSON at all', () => {
    expect([
      isShallow(bytes('['.repeat(1_000_000))),
      isShallow(bytes('{"a":'.repeat(1_000_000))),
      isShallow(bytes(']'.repeat(1_000_000))),
    ]).toEqual([false, false, true])
  })
})
