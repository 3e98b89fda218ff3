import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainText, richText, textFromPlain, textMarkup, type Block } from './index.ts'

const asIs = (address: string) => address
const signs = fc.string({
  unit: fc.constantFrom('<', '>', '"', "'", '&', '/', 'b', ';', ' ', '#', '\n', 'ä', '="'),
  minLength: 1,
  maxLength: 12,
})
const run = fc.record(
  {
    text: signs,
    bold: fc.boolean(),
    italic: fc.boolean(),
    link: fc.constantFrom('https://saltmarsh.example/?a="1"&b=<2>', 'https://tern-sands.example/'),
  },
  { requiredKeys: ['text'] },
)
const runs = fc.array(run, { maxLength: 4 })
const blocks: fc.Arbitrary<Block[]> = fc.array(
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

const TAG = /<[^>]*>/g
const OWN = /^<(\/?(p|ul|ol|li|strong|em|a)|br|a href="[^"<>]*")>$/
const read = (markup: string) =>
  markup
    .replaceAll('<br>', '\n')
    .replace(TAG, '')
    .replace(
      /&(amp|lt|gt|quot|#39);/g,
      (_all, name: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" })[name] ?? '',
    )

describe('a text with looks', () => {
  it('comes out with no tag or attribute but its own, each closed, and says what was typed', () => {
    fc.assert(
      fc.property(blocks, (typed) => {
        const text = richText.parse(typed)
        const markup = textMarkup(text, asIs)
        const open: string[] = []
        for (const tag of markup.match(TAG) ?? []) {
          expect(tag).toMatch(OWN)
          const [, closes, name] = /^<(\/?)(\w+)/.exec(tag) ?? []
          if (name === 'br') continue
          if (closes) expect(open.pop()).toBe(name)
          else open.push(name ?? '')
        }
        expect(open).toEqual([])
        expect(read(markup)).toBe(
          text
            .flatMap((each) => (each.kind === 'paragraph' ? [each.runs] : each.items))
            .flat()
            .map((each) => each.text)
            .join(''),
        )
      }),
    )
  })

  it('is the same when it is read again, and has no two runs of one look side by side', () => {
    fc.assert(
      fc.property(blocks, (typed) => {
        const text = richText.parse(typed)
        expect(richText.parse(JSON.parse(JSON.stringify(text)))).toEqual(text)
        for (const each of text)
          for (const all of each.kind === 'paragraph' ? [each.runs] : each.items)
            for (const [i, { text: _words, ...look }] of all.entries()) {
              const { text: _next, ...next } = all[i + 1] ?? { text: '', bold: !look.bold }
              expect(next).not.toEqual(look)
            }
      }),
    )
  })

  it('is paragraphs, lists, emphasis and links', () => {
    const text = richText.parse([
      {
        kind: 'paragraph',
        runs: [{ text: 'Mind the ' }, { text: 'tide', bold: true, italic: true }, { text: '.\nAlways.' }],
      },
      {
        kind: 'list',
        isNumbered: true,
        items: [
          [{ text: 'Boat' }],
          [{ text: ' ' }],
          [{ text: 'Map', link: 'https://saltmarsh.example/map' }],
        ],
      },
      { kind: 'paragraph', runs: [] },
    ])
    expect(textMarkup(text, (address) => `${address}?utm_source=pier`)).toBe(
      '<p>Mind the <strong><em>tide</em></strong>.<br>Always.</p><ol><li>Boat</li><li><a href="https://saltmarsh.example/map?utm_source=pier">Map</a></li></ol>',
    )
    expect(plainText(text)).toBe('Mind the tide.\nAlways.\n\nBoat\nMap')
  })

  it('is made of a text without looks', () => {
    const plain = 'First.\n\nSecond, <b>bold</b>\nand on.'
    expect(plainText(textFromPlain(` \n\n${plain}\n\n\n`))).toBe(plain)
    expect(richText.parse(textFromPlain(plain))).toEqual(textFromPlain(plain))
  })

  it.each([
    [
      [{ kind: 'paragraph', runs: [{ text: 'x', link: 'javascript:alert(1)' }] }],
      'begin the address with https://',
    ],
    [[{ kind: 'paragraph', runs: [{ text: 'a\u0007b' }] }], 'control characters'],
    [
      [
        { kind: 'paragraph', runs: [{ text: 'x'.repeat(6000) }] },
        { kind: 'paragraph', runs: [{ text: 'x'.repeat(6000) }] },
      ],
      '10,000 characters',
    ],
    [[{ kind: 'paragraph', runs: [{ text: 'x', onclick: 'y' }] }], ''],
    [[{ kind: 'script', runs: [] }], ''],
  ])('is refused: %j', (typed, sentence) => {
    const { error } = richText.safeParse(typed)
    expect(error?.issues.map(({ message }) => message).join(' ')).toContain(sentence)
  })
})
