import { describe, expect, it } from 'vitest'
import { seriesNumbers, seriesOf, slugsLike, type NewCode } from './index.ts'

const PIECE: NewCode = {
  campaignId: 1,
  name: 'Table card {n}',
  medium: 'print',
  source: 'table-card',
  destination: 'https://saltmarsh.example/menu',
}

describe('a numbered series', () => {
  it('writes its numbers wherever they are asked for, with leading zeros', () => {
    const pieces = seriesOf(
      { ...PIECE, content: 'card-{n}', slug: 'CARD-{n}', key: 'k{n}' },
      { from: 1, to: 120, digits: 3 },
    )
    expect([pieces.length, pieces[0]?.name, pieces[119]?.name, pieces[9]?.slug, pieces[9]?.content]).toEqual([
      120,
      'Table card 001',
      'Table card 120',
      'CARD-010',
      'card-010',
    ])
    expect(new Set(pieces.map(({ key }) => key)).size).toBe(120)
  })
  it('puts the number behind a name that has no place for it, and makes no doubles', () => {
    expect(
      seriesOf({ ...PIECE, name: 'Card', slug: 'SAME', key: 'same' }, { from: 9, to: 10, digits: 1 }).map(
        ({ name, slug, key }) => [name, slug, key],
      ),
    ).toEqual([
      ['Card 9', undefined, ''],
      ['Card 10', undefined, ''],
    ])
  })
  it('says which number makes a text no piece can have', () => {
    expect(() =>
      seriesOf({ ...PIECE, name: `${'x'.repeat(198)}{n}` }, { from: 99, to: 100, digits: 1 }),
    ).toThrow(/^Number 100: Make a name no longer than 200/)
  })
  it.each([
    [{ from: 5, to: 1, digits: 1 }, 'lies before'],
    [{ from: 1, to: 5001, digits: 1 }, 'at most 5000'],
    [{ from: 1.5, to: 2, digits: 1 }, 'whole number'],
  ])('refuses %j', (numbers, sentence) => {
    expect(seriesNumbers.safeParse(numbers).error?.issues[0]?.message).toContain(sentence)
  })
})

describe('slugs like a taken one', () => {
  it.each([
    ['pier', ['PIER-2', 'PIER-26', 'PIER-3']],
    ['bus-7', ['BUS-8', 'BUS-9', 'BUS-10']],
    ['x'.repeat(40), [`${'X'.repeat(38)}-2`]],
  ])('%s', (slug, like) => {
    expect(slugsLike(slug, 2026).slice(0, like.length)).toEqual(like)
  })
})
