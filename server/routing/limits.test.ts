import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { openLife, type Life } from '@flimbo/core/routing'
import { limits } from './index.ts'

const life = (more: Partial<Life>): Life => ({ ...openLife('Europe/Berlin'), countedFrom: 1, ...more })

beforeEach(() => { vi.useFakeTimers({ now: Date.parse('2026-03-28T22:30:00Z') }) })
afterEach(() => { vi.useRealTimers() })

/** Limits over scans that are stored at these moments. */
function over(stored: readonly number[]) {
  const asked: string[] = []
  return {
    asked,
    limits: limits({
      settled: () => { asked.push('settled'); return Promise.resolve() },
      count: (routeId, from, before) => { asked.push(`route ${String(routeId)}`); return stored.filter((at) => at >= from && at < before).length },
    }),
  }
}

describe('the counter of a limited route', () => {
  it('begins with what is stored, once everything that waits is there, and counts on', async () => {
    const { limits: all, asked } = over([Date.parse('2026-03-27T12:00:00Z'), Date.parse('2026-03-28T12:00:00Z')])
    const counter = await all.counterOf(7, life({ limit: 10, daily: 5 }))
    expect(asked[0]).toBe('settled')
    const now = Date.now()
    expect(counter?.taken(now)).toEqual({ total: 2, today: 1 })
    counter?.take(now)
    counter?.take(now)
    counter?.giveBack(now)
    expect(counter?.taken(now)).toEqual({ total: 3, today: 2 })
  })

  it('begins each day anew at midnight of its zone, the short one of the change of clock too', async () => {
    const counter = await over([]).limits.counterOf(7, life({ daily: 5 }))
    const at = (iso: string) => Date.parse(iso)
    counter?.take(at('2026-03-28T22:59:59Z'))
    expect(counter?.taken(at('2026-03-28T22:59:59Z')).today).toBe(1)
    expect(counter?.taken(at('2026-03-28T23:00:00Z')).today).toBe(0)
    counter?.take(at('2026-03-28T23:00:00Z'))
    // 29 March 2026 has 23 hours in Berlin.
    expect(counter?.taken(at('2026-03-29T21:59:59Z')).today).toBe(1)
    expect(counter?.taken(at('2026-03-29T22:00:00Z'))).toEqual({ total: 2, today: 0 })
  })

  it('stays the same when the numbers change, and is another when counting begins anew', async () => {
    const { limits: all } = over([])
    const first = await all.counterOf(7, life({ limit: 10 }))
    expect(await all.counterOf(7, life({ limit: 20, daily: 2 }))).toBe(first)
    expect(await all.counterOf(7, life({ limit: 20, countedFrom: 5 }))).not.toBe(first)
    expect(await all.counterOf(8, life({ limit: 10 }))).not.toBe(first)
  })

  it('is not kept where nothing is limited', async () => {
    const { limits: all, asked } = over([])
    expect([await all.counterOf(7, null), await all.counterOf(7, life({}))]).toEqual([null, null])
    expect(asked).toEqual([])
  })
})
