import { describe, expect, it } from 'vitest'
import { openLife, type Life } from '@flimbo/core/routing'
import { limits } from './index.ts'

const life = (more: Partial<Life>): Life => ({ ...openLife('Europe/Berlin'), countedFrom: 1, ...more })
const at = (iso: string) => Date.parse(iso)
const none = { countOf: () => null, isMarked: () => false }

describe('the counter of a limited route', () => {
  it('begins with what is stored and learns what commits have counted, its own door’s and others’', () => {
    const all = limits({ ...none, countOf: () => ({ total: 5, day: '2026-03-28', today: 2 }) })
    const counter = all.counterOf(7, life({ limit: 10, daily: 5 }))
    expect(counter?.taken(at('2026-03-28T12:00:00Z'))).toEqual({ total: 5, today: 2 })
    all.learn(7, { total: 10, day: '2026-03-28', today: 4 })
    const taken = counter?.taken(at('2026-03-28T12:00:00Z')) ?? { total: 0, today: 0 }
    expect([taken, counter?.isUsedUp(taken)]).toEqual([{ total: 10, today: 4 }, true])
  })

  it('begins each day anew at midnight of its zone, the short one of the change of clock too', () => {
    const all = limits(none)
    const counter = all.counterOf(7, life({ daily: 5 }))
    all.learn(7, { total: 1, day: '2026-03-28', today: 1 })
    expect(counter?.taken(at('2026-03-28T22:59:59Z')).today).toBe(1)
    expect(counter?.taken(at('2026-03-28T23:00:00Z')).today).toBe(0)
    all.learn(7, { total: 2, day: '2026-03-29', today: 1 })
    // 29 March 2026 has 23 hours in Berlin.
    expect(counter?.taken(at('2026-03-29T21:59:59Z')).today).toBe(1)
    expect(counter?.taken(at('2026-03-29T22:00:00Z'))).toEqual({ total: 2, today: 0 })
    // Another door's clock is ahead: what it counted is of the day that has begun.
    expect(counter?.taken(at('2026-03-28T22:59:59Z')).today).toBe(1)
  })

  it('is not kept where nothing is limited, and learns nothing of routes it does not know', () => {
    const all = limits(none)
    expect([all.counterOf(7, null), all.counterOf(7, life({}))]).toEqual([null, null])
    all.learn(8, { total: 9, day: '2026-03-29', today: 9 })
    expect(all.counterOf(8, life({ limit: 10 }))?.taken(0)).toEqual({ total: 0, today: 0 })
  })
})
