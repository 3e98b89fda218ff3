import { describe, expect, it } from 'vitest'
import { differences } from './index.ts'

describe('the differences of a revision', () => {
  it('are the fields that changed', () => {
    expect(
      differences({
        before: { name: 'a', state: 'live', rules: { lanes: [] } },
        after: { name: 'b', state: 'live', rules: { lanes: [] } },
      }),
    ).toEqual([{ field: 'name', was: 'a', is: 'b' }])
  })
  it('are all fields of the first one', () => {
    expect(differences({ before: null, after: { name: 'a' } })).toEqual([
      { field: 'name', was: undefined, is: 'a' },
    ])
  })
})
