import { describe, expect, it } from 'vitest'
import { boundNotices, openLife, type Life } from './index.ts'

const now = Date.parse('2026-11-25T12:00:00Z')
const days = (n: number) => now + n * 86_400_000
const kinds = (
  life: Partial<Life>,
  total = 0,
  today = 0,
  forecast: Parameters<typeof boundNotices>[0]['forecast'] = null,
) =>
  boundNotices({
    life: { ...openLife('Europe/Berlin'), ...life },
    taken: { total, today },
    forecast,
    now,
  }).map(({ kind }) => kind)

describe('what a route’s bounds need somebody for', () => {
  it.each<[string, Partial<Life>, number, number, string[]]>([
    ['nothing far from any bound', { endsAt: '2026-12-24T00:00', limit: 500, daily: 50 }, 499, 49, []],
    ['a limit that is reached', { limit: 500 }, 500, 3, ['full']],
    ['a day that is full', { daily: 20 }, 300, 20, ['full-today']],
    ['an end within a week', { endsAt: '2026-12-02T12:59' }, 0, 0, ['ends-soon']],
    ['an end a minute more than a week away', { endsAt: '2026-12-02T13:01' }, 0, 0, []],
    [
      'an end that has just passed, and nothing else then',
      { endsAt: '2026-11-25T13:00', limit: 5 },
      5,
      5,
      ['over'],
    ],
    ['an end that passed long ago', { endsAt: '2026-10-01T00:00' }, 0, 0, []],
  ])('%s', (_what, life, total, today, expected) => {
    expect(kinds(life, total, today)).toEqual(expected)
  })

  it('a limit that may be reached within a week, as early as the forecast allows', () => {
    expect(kinds({ limit: 500 }, 400, 0, { expected: days(9), earliest: days(6), latest: days(20) })).toEqual(
      ['full-soon'],
    )
    expect(kinds({ limit: 500 }, 400, 0, { expected: days(9), earliest: days(8), latest: null })).toEqual([])
  })
})
