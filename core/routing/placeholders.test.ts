import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fillPlaceholders, hasPlaceholders, placeholdersIn, readDestination } from './index.ts'

const values = (content: string) => ({ country: 'DE', language: 'de-AT', code: 'PIER', content })

describe('placeholders of an address', () => {
  it('are known by name, once each, however the parser writes them', () => {
    expect(
      placeholdersIn(new URL('https://saltmarsh.example/{country}/{x}?a={content}&b={CONTENT}').href),
    ).toEqual(['country', 'content'])
    expect(hasPlaceholders('https://saltmarsh.example/{place}')).toBe(false)
  })

  it('may not choose the site', () => {
    for (const address of [
      'https://{country}.saltmarsh.example/',
      'https://saltmarsh.example:{code}/',
      'https://{content}/',
    ])
      expect(readDestination(address)).toMatchObject({ ok: false, fault: 'placeholder-host' })
    expect(readDestination('https://saltmarsh.example/{country}').ok).toBe(true)
  })

  // The values that have a meaning of their own in each part (RFC 3986, section 2.2; WHATWG URL Standard, section 5).
  it.each([
    ['https://x.example/{content}/end', 'a/b', 'https://x.example/a%2Fb/end'],
    ['https://x.example/{content}/end', '..', 'https://x.example//end'],
    ['https://x.example/{content}', '?q#f', 'https://x.example/%3Fq%23f'],
    ['https://x.example/?v={content}', 'a b&c=d#e', 'https://x.example/?v=a+b%26c%3Dd%23e'],
    ['https://x.example/#{content}', 'a b', 'https://x.example/#a%20b'],
    ['https://x.example/{content}', '', 'https://x.example/'],
    ['https://x.example/?v={content}', '{code}', 'https://x.example/?v=%7Bcode%7D'],
  ])('in %s, %j gives %s', (address, content, filled) => {
    expect(fillPlaceholders(new URL(address).href, values(content))).toBe(filled)
  })

  it('come out as they went in, and leave the rest of the address alone', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 40 }).filter((text) => !/^\.+$/.test(text)),
        (content) => {
          const filled = new URL(
            fillPlaceholders(
              new URL('https://saltmarsh.example/p/{content}/q?v={content}&w=1#{content}').href,
              values(content),
            ),
          )
          expect([
            filled.origin,
            filled.pathname.split('/').length,
            decodeURIComponent(filled.pathname.split('/')[2] ?? ''),
          ]).toEqual(['https://saltmarsh.example', 4, content])
          expect([
            filled.searchParams.get('v'),
            filled.searchParams.get('w'),
            decodeURIComponent(filled.hash.slice(1)),
          ]).toEqual([content, '1', content])
        },
      ),
    )
  })
})
