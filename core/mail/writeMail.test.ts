import fc from 'fast-check'
import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { textFromPlain, type RichText } from '../fields/index.ts'
import { writeMail } from './index.ts'

const plain = { language: 'en', subject: 'Hello', blocks: [] as RichText, notes: [] }

/** The tags of a mail, and the texts in it, as a parser of its own finds them. */
function parsed(html: string): { tags: Set<string>; text: string; attributes: Set<string> } {
  const tags = new Set<string>()
  const attributes = new Set<string>()
  let text = ''
  const parser = new Parser({
    onopentag(name, given) {
      tags.add(name)
      for (const each of Object.keys(given)) attributes.add(each)
    },
    ontext(piece) {
      text += piece
    },
  })
  parser.end(html)
  return { tags, text, attributes }
}
const TAGS = ['html', 'head', 'meta', 'title', 'body', 'div', 'p', 'br', 'table', 'tr', 'th', 'td', 'a']
const ATTRIBUTES = ['lang', 'dir', 'charset', 'name', 'content', 'style', 'scope', 'href']

describe('a mail', () => {
  it('says the same as text and as HTML, and whatever is typed is text in it', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.string(), fc.string(), (said, name, value) => {
        const words = said.replace(/[\r\n]/g, '')
        const mail = writeMail({
          ...plain,
          subject: said,
          blocks: textFromPlain(words),
          rows: [[name, value]],
          notes: [said],
        })
        const { tags, attributes, text } = parsed(mail.html)
        for (const tag of tags) expect(TAGS).toContain(tag)
        for (const each of attributes) expect(ATTRIBUTES).toContain(each)
        // A header is one line (RFC 5322, section 2.2).
        expect(mail.subject).not.toMatch(/[\r\n]/)
        const squeezed = (whole: string) => whole.replace(/\s+/g, '')
        for (const each of [words, name, value]) {
          expect(squeezed(text)).toContain(squeezed(each))
          expect(squeezed(mail.text)).toContain(squeezed(each))
        }
      }),
      { numRuns: 200 },
    )
  })

  it('writes links out, numbers lists, and has its action in both', () => {
    const link = 'https://saltmarsh.example/timetable'
    const { text, html } = writeMail({
      ...plain,
      blocks: [
        { kind: 'list', isNumbered: true, items: [[{ text: 'One', bold: true }], [{ text: 'Two' }]] },
        { kind: 'list', isNumbered: false, items: [[{ text: link, link }], [{ text: 'Boats', link }]] },
      ],
      action: { label: 'Confirm', address: 'https://go.saltmarsh.example/~confirm/a.b' },
      notes: ['Because.'],
    })
    expect(text).toBe(
      `1. One\n2. Two\n\n- ${link}\n- Boats (${link})\n\nConfirm:\nhttps://go.saltmarsh.example/~confirm/a.b\n\n-- \nBecause.\n`,
    )
    expect(html).toContain('<ol><li><strong>One</strong></li><li>Two</li></ol>')
    expect(html).toContain('href="https://go.saltmarsh.example/~confirm/a.b"')
  })

  it.each([
    ['ar', 'rtl'],
    ['he-IL', 'rtl'],
    ['de', 'ltr'],
  ])('in %s runs %s', (language, direction) => {
    expect(writeMail({ ...plain, language }).html).toContain(`<html lang="${language}" dir="${direction}">`)
  })
})
