import { describe, expect, it } from 'vitest'
import { copyRules, NO_RULES, openLife, type Lane, type Rules } from './index.ts'

const lane = (
  id: string,
  outcome: Lane['outcome'],
  condition: Lane['condition'] = { kind: 'all', of: [] },
): Lane => ({ id, name: '', condition, outcome, resting: false })
const renumbered = {
  routes: new Map([
    [1, 11],
    [2, 12],
  ]),
  pages: new Map([[5, 55]]),
}
const nextYear = (day: string) => `${String(Number(day.slice(0, 4)) + 1)}${day.slice(4)}`
const rules: Rules = {
  ...NO_RULES,
  lanes: [
    lane(
      'a',
      { kind: 'route', routeId: 1 },
      {
        kind: 'not',
        of: { kind: 'all', of: [{ kind: 'window', from: '2026-05-01T00:00', upTo: '', zone: 'UTC' }] },
      },
    ),
    lane('b', { kind: 'route', routeId: 9 }),
    lane('c', {
      kind: 'split',
      variants: [
        { id: 'x', name: 'X', ended: false, weight: 1, leads: { kind: 'page', pageId: 5 } },
        { id: 'y', name: 'Y', ended: false, weight: 1, leads: { kind: 'page', pageId: 6 } },
      ],
    }),
  ],
  life: {
    ...openLife('Europe/Berlin'),
    startsAt: '2026-05-01T09:00',
    endsAt: '2026-09-30T18:00',
    limit: 500,
    countedFrom: 7,
    full: { kind: 'page', pageId: 5 },
  },
}

describe('the rules of a route that is copied with its campaign', () => {
  it('lead to the copies, of what was copied too, and have their dates a year later', () => {
    const copy = copyRules(rules, renumbered, nextYear, 1000)
    expect(copy.lanes.map(({ outcome }) => outcome)).toMatchObject([
      { routeId: 11 },
      { routeId: 9 },
      { variants: [{ leads: { pageId: 55 } }, { leads: { pageId: 6 } }] },
    ])
    expect(copy.lanes[0]?.condition).toEqual({
      kind: 'not',
      of: { kind: 'all', of: [{ kind: 'window', from: '2027-05-01T00:00', upTo: '', zone: 'UTC' }] },
    })
    expect(copy.life).toMatchObject({
      startsAt: '2027-05-01T09:00',
      endsAt: '2027-09-30T18:00',
      countedFrom: 1000,
      full: { pageId: 55 },
    })
  })

  it('lose the dates of their life where those are cleared; a window without dates would hold for ever, so it keeps them', () => {
    const copy = copyRules(rules, renumbered, () => null, 1000)
    expect(copy.life).toMatchObject({ startsAt: '', endsAt: '' })
    expect(copy.lanes[0]?.condition).toEqual(rules.lanes[0]?.condition)
  })
})
