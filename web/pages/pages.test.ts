import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyContent, newPart, partTitle, type PageContent, type Part } from '@flimbo/core/pages'
import { richText, type RichText } from '@flimbo/core/fields'
import { withCopy, withMoved, withoutPart, withPart } from './editParts.ts'
import { readSlots } from './HoursField.tsx'
import { partLines, stayLines } from './partResults.ts'
import { fromDocument, toDocument, type EditorNode } from '../richText/index.ts'

const run = fc.record(
  {
    text: fc.string({ minLength: 1, maxLength: 8 }).map((text) => text.replace(/[\p{Cc}]/gu, 'x')),
    bold: fc.constant(true),
    italic: fc.constant(true),
    link: fc.constant('https://saltmarsh.example/'),
  },
  { requiredKeys: ['text'] },
)
const runs = fc.array(run, { minLength: 1, maxLength: 3 })
const blocks: fc.Arbitrary<RichText> = fc
  .array(
    fc.oneof(
      fc.record({ kind: fc.constant('paragraph' as const), runs }),
      fc.record({
        kind: fc.constant('list' as const),
        isNumbered: fc.boolean(),
        items: fc.array(runs, { minLength: 1, maxLength: 3 }),
      }),
    ),
    { maxLength: 4 },
  )
  .map((given) => richText.parse(given))

describe('a text in the editor', () => {
  it('comes out as it went in', () => {
    fc.assert(
      fc.property(blocks, (given) => {
        expect(richText.parse(fromDocument(toDocument(given)))).toEqual(given)
      }),
    )
  })

  it('has lists of one level, and nothing that a page has not', () => {
    const paragraph = (text: string): EditorNode => ({ type: 'paragraph', content: [{ type: 'text', text }] })
    const inner: EditorNode = {
      type: 'orderedList',
      content: [{ type: 'listItem', content: [paragraph('b')] }],
    }
    const outer: EditorNode = {
      type: 'bulletList',
      content: [{ type: 'listItem', content: [paragraph('a'), inner] }],
    }
    expect(fromDocument({ type: 'doc', content: [outer, { type: 'codeBlock' }] })).toEqual([
      { kind: 'list', isNumbered: false, items: [[{ text: 'a' }], [{ text: 'b' }]] },
    ])
  })
})

const page = (...ids: string[]): PageContent => ({
  ...emptyContent('en', 'UTC'),
  parts: ids.map((id): Part => ({ ...newPart('heading', id), text: { en: id.toUpperCase() } })),
})
const order = ({ parts }: PageContent) => parts.map(({ id }) => id).join('')

describe('parts of a page', () => {
  it('are added after the one that is edited, copied after themselves, and removed', () => {
    const added = withPart(page('a', 'b'), 'divider', 'a')
    expect([order(added.content), added.id]).toEqual(['ap3b', 'p3'])
    const copied = withCopy(page('a', 'b'), 'a')
    expect([order(copied.content), copied.content.parts[1]]).toEqual([
      'ap3b',
      { ...page('a').parts[0], id: 'p3' },
    ])
    expect(order(withoutPart(page('a', 'b'), 'a'))).toBe('b')
  })

  it('are moved to any place, and none is lost', () => {
    fc.assert(
      fc.property(fc.constantFrom('a', 'b', 'c'), fc.integer({ min: -2, max: 5 }), (id, to) => {
        const moved = withMoved(page('a', 'b', 'c'), id, to)
        expect([...order(moved)].sort().join('')).toBe('abc')
        expect(order(moved).indexOf(id)).toBe(Math.max(0, Math.min(2, to)))
      }),
    )
  })

  it('are called by their kind and the first words in them', () => {
    const [heading] = page('a').parts
    if (!heading) throw new Error('none')
    expect(partTitle(heading, 'de', ['de', 'en'])).toEqual({ kind: 'Heading', words: 'A' })
    expect(partTitle({ ...newPart('contact', 'c'), given: 'Anna' }, 'en', ['en']).words).toBe('Anna')
  })
})

describe('the results of a page', () => {
  const at = (kind: 'link' | 'played', part: string, item: string, scans: number) => ({
    kind,
    part,
    item,
    scans,
  })

  it('stand in the order of its parts, what is gone last, and what was played in the order of its marks', () => {
    const lines = partLines(page('a', 'b'), [
      at('link', 'gone', 'l', 9),
      at('played', 'b', '100', 3),
      at('played', 'b', '0', 8),
      at('link', 'a', 'tel0', 2),
    ])
    expect(lines.map(({ part, what, tally }) => [part, what, tally.scans])).toEqual([
      ['Heading: A', 'Link followed: telephone', 2],
      ['Heading: B', 'Begun to play', 8],
      ['Heading: B', 'Played to 100 %', 3],
      ['A part that was removed', 'Link followed', 9],
    ])
  })

  it('tell for how long it was seen', () => {
    const stayed = (item: string) => ({ kind: 'stayed', part: '', item, scans: 4 }) as const
    expect(stayLines([stayed('120'), stayed('15')]).map(({ what }) => what)).toEqual([
      'Seen for 15 s or longer',
      'Seen for 2 min or longer',
    ])
  })
})

describe('hours as people write them', () => {
  it.each([
    ['9-12:30, 14–18', ['09:00-12:30', '14:00-18:00']],
    ['9.15 to 17', ['09:15-17:00']],
    ['18:00–24:00', ['18:00-00:00']],
    ['closed', []],
    ['', []],
  ])('%s', (text, spans) => {
    expect(readSlots(text)?.map(({ from, upTo }) => `${from}-${upTo}`)).toEqual(spans)
  })
  it.each(['9', '9-25', 'noon', '9-10,10-11,11-12,12-13,13-14'])('not %s', (text) => {
    expect(readSlots(text)).toBeNull()
  })
})
