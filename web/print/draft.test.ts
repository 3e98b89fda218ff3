import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { NEUTRAL_LOOKS, PLAIN_LOOK } from '@flimbo/core/symbol'
import { changed, changesOf, newDrafts, redone, undone, type Draft, type Drafts } from './draft.ts'

const START: Draft = {
  styleId: null,
  sizeMm: 30,
  viewingM: null,
  level: 'M',
  look: PLAIN_LOOK,
  placement: null,
}
const DOTS = NEUTRAL_LOOKS.find(({ name }) => name === 'Dots')?.look ?? PLAIN_LOOK
const lookOf = (id: number | null) => (id === 4 ? DOTS : PLAIN_LOOK)

describe('drafts of a print', () => {
  it('go back and forth, whatever was changed', () => {
    const sizes = fc.array(fc.integer({ min: 5, max: 5000 }), { minLength: 1, maxLength: 30 })
    fc.assert(
      fc.property(sizes, (wanted) => {
        const states: Drafts[] = [newDrafts(START)]
        wanted.forEach((sizeMm, i) =>
          states.push(changed(states.at(-1) ?? newDrafts(START), { sizeMm }, 'size', i * 10_000)),
        )
        let drafts = states.at(-1) ?? newDrafts(START)
        const last = drafts.now
        while (drafts.past.length > 0) drafts = undone(drafts)
        expect(drafts.now).toEqual(START)
        while (drafts.future.length > 0) drafts = redone(drafts)
        expect(drafts.now).toEqual(last)
      }),
    )
  })

  it('take a slider that is dragged for one change, and what comes later for another', () => {
    let drafts = newDrafts(START)
    for (const [i, sizeMm] of [31, 32, 33].entries()) drafts = changed(drafts, { sizeMm }, 'size', i * 100)
    drafts = changed(drafts, { sizeMm: 40 }, 'size', 5000)
    drafts = changed(drafts, { level: 'H' }, 'level', 5001)
    expect(drafts.past.map(({ sizeMm }) => sizeMm)).toEqual([30, 33, 40])
  })

  it('that change nothing are no step', () => {
    const drafts = newDrafts(START)
    expect(changed(drafts, { look: { ...PLAIN_LOOK } }, 'look', 0)).toBe(drafts)
  })

  it('drop what was undone once something else is changed', () => {
    const once = undone(changed(newDrafts(START), { sizeMm: 50 }, 'size', 0))
    expect(changed(once, { sizeMm: 60 }, 'size', 0).future).toEqual([])
  })
})

describe('what is not stored', () => {
  it('is of the piece, or of the look of the house style that is chosen', () => {
    expect(changesOf(START, START, lookOf)).toEqual({ look: false, piece: false })
    expect(changesOf({ ...START, styleId: 4, look: DOTS }, START, lookOf)).toEqual({
      look: false,
      piece: true,
    })
    expect(changesOf({ ...START, look: DOTS }, START, lookOf)).toEqual({ look: true, piece: false })
  })
})
