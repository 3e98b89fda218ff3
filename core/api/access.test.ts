import { describe, expect, test } from 'vitest'
import { idsAt } from './index.ts'

describe('the ids at a place', () => {
  test.each([
    [{ params: { id: 7 } }, 'params.id', [7]],
    [{ body: { ids: [3, 4] } }, 'body.ids', [3, 4]],
    [
      {
        body: {
          changes: [
            { id: 1, set: { routeId: 9 } },
            { id: 2, set: {} },
          ],
        },
      },
      'body.changes.id',
      [1, 2],
    ],
    [
      {
        body: {
          changes: [
            { id: 1, set: { routeId: 9 } },
            { id: 2, set: {} },
          ],
        },
      },
      'body.changes.set.routeId',
      [9],
    ],
    [{ query: {} }, 'query.campaignId', []],
    [{ body: null }, 'body.matching.campaignId', []],
    [{ body: { ids: ['3', null] } }, 'body.ids', []],
    [undefined, 'body.id', []],
  ])('of %j at %s are %j', (input, place, ids) => {
    expect(idsAt(input, place, 'number')).toEqual(ids)
  })
})
