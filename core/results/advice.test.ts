import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  countInterval,
  missingVisits,
  NO_FIGURES,
  whatNext,
  type AnswerRow,
  type MissingFacts,
} from './index.ts'

const piece = (key: string, more: Partial<AnswerRow>): AnswerRow => ({
  ...{ ...NO_FIGURES, keys: [key], before: null },
  ...more,
})
const judged = (rows: readonly AnswerRow[]) =>
  whatNext(rows)?.pieces.map(({ key, earning }) => `${key} ${earning}`)

describe('a count', () => {
  it('lies about itself, wider the larger it is', () => {
    // By hand: √100.375 = 10.0187; (10.0187 ∓ 0.98)² − 3/8.
    const { low, high } = countInterval(100)
    expect([low.toFixed(1), high.toFixed(1)]).toEqual(['81.3', '120.6'])
    expect(countInterval(0).low).toBe(0)
    fc.assert(
      fc.property(fc.nat(1e6), (count) => {
        const found = countInterval(count)
        expect(found.low).toBeLessThanOrEqual(count)
        expect(found.high).toBeGreaterThan(count)
        expect(countInterval(count + 1).low).toBeGreaterThanOrEqual(found.low)
      }),
    )
  })
})

describe('what next', () => {
  it('is to keep what brought in more than it cost, even at the lower end, and to drop what cannot have', () => {
    const rows = [
      piece('poster', { cost: 100, goals: 100, value: 400 }),
      piece('card', { cost: 100, goals: 5, value: 120 }),
      piece('banner', { cost: 900, goals: 20, value: 80 }),
      piece('gift', { cost: null, goals: 50, value: 500 }),
      piece('free', { cost: 0, goals: 50, value: 500 }),
      piece('silent', { cost: 500 }),
    ]
    expect(judged(rows)).toEqual(['poster earns', 'card open', 'banner loses', 'silent loses'])
    expect(whatNext(rows)).toMatchObject({ by: 'value', measure: 1 })
  })
  it('goes by goals, leads or scans for the cost, where nothing has a value', () => {
    const rows = [
      piece('poster', { cost: 100, scans: 900, leads: 90 }),
      piece('card', { cost: 100, scans: 900, leads: 10 }),
      piece('sign', { cost: 100, scans: 900, leads: 47 }),
    ]
    expect(whatNext(rows)).toMatchObject({ by: 'leads', measure: 147 / 300 })
    expect(judged(rows)).toEqual(['poster earns', 'sign open', 'card loses'])
    expect(whatNext(rows.map((row) => ({ ...row, leads: 0 })))?.by).toBe('scans')
  })
  it('is nothing where nothing has a cost, or nothing came of anything', () => {
    expect(whatNext([piece('a', { scans: 9 })])).toBeNull()
    expect(whatNext([piece('a', { cost: 9 })])).toBeNull()
    expect(whatNext([])).toBeNull()
  })
})

describe('where visits are', () => {
  const HOUR = 3_600_000
  const facts = (more: Partial<MissingFacts> = {}): MissingFacts => ({
    ...{ scans: 200, redirected: 200, uniques: 180, tests: 0, lastAt: 0, now: 100 * HOUR },
    ...{ medium: 'print', channel: 'Offline print' },
    check: { isReached: true, lost: [], lostAt: null, sentence: '' },
    ...more,
  })
  const holding = (more: Partial<MissingFacts>) =>
    missingVisits(facts(more)).flatMap(({ reason, holds }) =>
      holds === 'no' ? [] : [`${reason} ${String(holds)}`],
    )
  const lost = { isReached: true, lost: ['utm_source'], lostAt: 'https://a.example/old', sentence: '' }
  const nothing = { scans: 0, redirected: 0, uniques: 0, lastAt: null }
  it.each<[Partial<MissingFacts>, string[]]>([
    [{}, []],
    [{ ...nothing }, ['nobody yes']],
    [{ ...nothing, tests: 3, lastAt: 90 * HOUR }, ['tests yes', 'early maybe']],
    [{ redirected: 0 }, ['elsewhere yes']],
    [{ redirected: 150 }, ['elsewhere maybe']],
    [{ check: { ...lost, isReached: false } }, ['failing yes', 'tags null']],
    [{ check: lost }, ['tags yes']],
    [{ check: null }, ['failing null', 'tags null']],
    [{ lastAt: 60 * HOUR }, ['early maybe']],
    [{ channel: '' }, ['channel maybe']],
    [{ uniques: 12 }, ['few maybe']],
  ])('with %j it is %j', (more, expected) => {
    expect(holding(more)).toEqual(expected)
  })
  it('names the redirect that drops the tags, and says what to do', () => {
    const tags = missingVisits(facts({ check: lost })).find(({ reason }) => reason === 'tags')
    expect(tags?.sentence).toBe(
      'A redirect at https://a.example/old drops utm_source. Lead straight to the final page, or have the site keep the query.',
    )
  })
})
