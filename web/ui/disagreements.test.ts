import { describe, expect, it } from 'vitest'
import { disagreements } from './disagreements.ts'

describe('where two versions differ', () => {
  it('only what differs is shown, by the names people know', () => {
    expect(
      disagreements(
        { name: 'A', note: 'x', id: 1 },
        { name: 'B', note: 'x', id: 2 },
        { name: 'Name', note: 'Note' },
      ),
    ).toEqual([{ name: 'Name', mine: 'A', theirs: 'B' }])
  })
})
