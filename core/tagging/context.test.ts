import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tagContext, tagCounts, tagsKey } from './index.ts'

const PIECE = { medium: 'print', source: 'poster', campaign: 'summer-26', content: '', term: '', extra: {} }

describe('what analytics can tell two pieces by', () => {
  it('is every tag, and no order of parameters', () => {
    expect(tagsKey({ ...PIECE, extra: { a: '1', b: '2' } })).toBe(
      tagsKey({ ...PIECE, extra: { b: '2', a: '1', none: '' } }),
    )
    for (const field of ['medium', 'source', 'campaign', 'content', 'term'] as const) {
      expect(tagsKey({ ...PIECE, [field]: 'other' })).not.toBe(tagsKey(PIECE))
    }
  })

  it('does not run together what stands in two fields', () => {
    expect(tagsKey({ ...PIECE, content: 'a', term: '' })).not.toBe(
      tagsKey({ ...PIECE, content: '', term: 'a' }),
    )
    expect(tagsKey({ ...PIECE, medium: 'a","b', source: 'c' })).not.toBe(
      tagsKey({ ...PIECE, medium: 'a', source: 'b","c' }),
    )
  })
})

describe('counts', () => {
  const pieces = fc.array(
    fc.record({
      medium: fc.constantFrom('print', 'screen'),
      source: fc.constantFrom('a', 'b', ''),
      campaign: fc.constant('c'),
      content: fc.constantFrom('x', ''),
      term: fc.constant(''),
      extra: fc.constant({}),
    }),
    { maxLength: 10 },
  )

  it('are empty again once everything that was counted in was counted out', () => {
    fc.assert(
      fc.property(pieces, (all) => {
        const counts = tagCounts()
        for (const piece of all) counts.count(piece)
        for (const piece of [...all].reverse()) counts.count(piece, -1)
        expect([counts.tags.size, ...Object.values(counts.values).map(({ size }) => size)]).toEqual([
          0, 0, 0, 0, 0, 0,
        ])
      }),
    )
  })

  it('do not change what they were begun with', () => {
    const begun = tagCounts()
    begun.count(PIECE)
    const more = tagCounts(begun.values, begun.tags)
    more.count(PIECE)
    expect([begun.tags.get(tagsKey(PIECE)), more.tags.get(tagsKey(PIECE))]).toEqual([1, 2])
  })

  it('tell how many others carry the same tags, whether the piece itself is counted or not', () => {
    const counts = tagCounts()
    counts.count(PIECE)
    counts.count(PIECE)
    const piece = {
      ...PIECE,
      name: '',
      place: '',
      size: 1,
      reference: '',
      key: '',
      route: '',
      link: '',
      destination: '',
    }
    expect(tagContext({ campaign: 'c', counts, counted: true }).alike(piece)).toBe(1)
    expect(tagContext({ campaign: 'c', counts, counted: false }).alike(piece)).toBe(2)
    expect(tagContext({ campaign: 'c', counts: tagCounts(), counted: true }).alike(piece)).toBe(0)
  })
})
