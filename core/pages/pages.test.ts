import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { escapeMarkup, newPage, pageBody, pageContent, publicDocument } from './index.ts'

const PAGE = {
  title: 'Tides',
  text: 'First.\n\nSecond, <b>bold</b>\nand on.',
  links: [{ label: 'Table & more', address: 'https://saltmarsh.example/tides?a=1&b="2"' }],
}
const wrong = (change: object) =>
  newPage
    .safeParse({ ...PAGE, campaignId: 1, name: 'Tides', ...change })
    .error?.issues.map(({ message }) => message)
    .join(' ') ?? ''

describe('what a page shows', () => {
  it('is taken as it is, line breaks as one kind', () => {
    expect(pageContent.parse({ ...PAGE, title: ' Tides ', text: '\r\nFirst.\r\n\r\nSecond.\r' })).toEqual({
      ...PAGE,
      text: 'First.\n\nSecond.',
    })
  })

  it.each([
    [{ name: ' ' }, 'Give a name.'],
    [{ title: '' }, 'Give a heading.'],
    [{ text: 'x'.repeat(2001) }, 'no longer than 2000 characters'],
    [{ text: 'a\u0007b' }, 'control characters'],
    [{ links: [{ label: '', address: 'https://saltmarsh.example/' }] }, 'Give what the link says.'],
    [{ links: [{ label: 'x', address: 'javascript:alert(1)' }] }, 'begin the address with https://'],
    [{ links: Array.from({ length: 31 }, () => PAGE.links[0]) }, 'at most 30 links'],
  ])('%j is refused with a sentence', (change, sentence) => {
    expect(wrong(change)).toContain(sentence)
  })

  it('is paragraphs and a list of links, all of it text', () => {
    expect(pageBody(PAGE)).toBe(
      '<p>First.</p><p>Second, &lt;b&gt;bold&lt;/b&gt;\nand on.</p><ul class="links"><li><a href="https://saltmarsh.example/tides?a=1&amp;b=&quot;2&quot;">Table &amp; more</a></li></ul>',
    )
    expect(pageBody({ text: '', links: [] })).toBe('')
  })

  it('opens no tag that is not the page’s own, whatever is typed', () => {
    const tags = (html: string) => html.match(/<[^>]*/g)?.map((tag) => tag.split(/[\s"]/, 1)[0])
    const own = tags(publicDocument('x', pageBody({ text: 'x', links: [{ label: 'x', address: 'x' }] })))
    const typed = fc
      .string({ unit: fc.constantFrom('<', '>', '"', "'", '&', '/', 'a', ';', ' ', '#'), minLength: 1 })
      .map((text) => `x${text}`)
    fc.assert(
      fc.property(typed, typed, typed, typed, (title, text, label, address) => {
        expect(tags(publicDocument(title, pageBody({ text, links: [{ label, address }] })))).toEqual(own)
      }),
    )
  })

  it('comes out of its references as it went in', () => {
    const read = (html: string) =>
      html.replace(
        /&(amp|lt|gt|quot|#39);/g,
        (_all, name: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" })[name] ?? '',
      )
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(read(escapeMarkup(text))).toBe(text)
      }),
    )
  })
})
