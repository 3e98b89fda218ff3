import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tag, UTM_FIELDS, utmName, type UtmValues } from './index.ts'

const NONE: UtmValues = { source: '', medium: '', campaign: '', term: '', content: '' }
const poster: UtmValues = { ...NONE, source: 'pier-poster', medium: 'print', campaign: 'summer-26' }
const POSTER_TAGS = 'utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26'

const addressOf = (destination: string, utm = poster) => tag(new URL(destination), utm).address

describe('tagging a destination', () => {
  it.each([
    ['a bare site', 'https://saltmarsh.example', `https://saltmarsh.example/?${POSTER_TAGS}`],
    [
      'a query and a fragment',
      'https://saltmarsh.example/timetable?lang=de#today',
      `https://saltmarsh.example/timetable?lang=de&${POSTER_TAGS}#today`,
    ],
    ['an empty query', 'https://saltmarsh.example/a?', `https://saltmarsh.example/a?${POSTER_TAGS}`],
    ['an empty fragment', 'https://saltmarsh.example/a#', `https://saltmarsh.example/a?${POSTER_TAGS}#`],
    [
      'a question mark in the fragment',
      'https://saltmarsh.example/#/page?x=1',
      `https://saltmarsh.example/?${POSTER_TAGS}#/page?x=1`,
    ],
    [
      'a name without a value',
      'https://saltmarsh.example/?flag&b=',
      `https://saltmarsh.example/?flag&b=&${POSTER_TAGS}`,
    ],
    [
      'the same name twice',
      'https://saltmarsh.example/?a=1&a=2',
      `https://saltmarsh.example/?a=1&a=2&${POSTER_TAGS}`,
    ],
    [
      'escapes, which stay as they were written',
      'https://saltmarsh.example/?q=a%20b+c%2fd',
      `https://saltmarsh.example/?q=a%20b+c%2fd&${POSTER_TAGS}`,
    ],
    [
      'a port and credentials',
      'https://me:pw@saltmarsh.example:8443/x',
      `https://me:pw@saltmarsh.example:8443/x?${POSTER_TAGS}`,
    ],
    // WHATWG URL Standard: the default port is dropped and the host lower-cased, international names become ASCII.
    [
      'a host in capitals and the default port',
      'HTTPS://SALTMARSH.EXAMPLE:443/X',
      `https://saltmarsh.example/X?${POSTER_TAGS}`,
    ],
    [
      'an international host',
      'https://müller.example/ä?ü=ö#ß',
      `https://xn--mller-kva.example/%C3%A4?%C3%BC=%C3%B6&${POSTER_TAGS}#%C3%9F`,
    ],
  ])('keeps %s', (_name, destination, expected) => {
    expect(addressOf(destination)).toBe(expected)
  })

  it('leaves an address without UTM values as it is', () => {
    expect(addressOf('https://saltmarsh.example/a?b=c#d', NONE)).toBe('https://saltmarsh.example/a?b=c#d')
  })

  it('lets the code’s values win over the destination’s and says which', () => {
    const tagged = tag(
      new URL('https://saltmarsh.example/?utm_source=web&x=1&utm_medium=print&utm%5Fcampaign=old'),
      poster,
    )
    expect(tagged.address).toBe(`https://saltmarsh.example/?x=1&${POSTER_TAGS}`)
    expect(tagged.clashes).toEqual([
      { name: 'utm_source', replaced: 'web', by: 'pier-poster' },
      { name: 'utm_campaign', replaced: 'old', by: 'summer-26' },
    ])
  })

  it('keeps a UTM value of the destination that the code does not set', () => {
    expect(addressOf('https://saltmarsh.example/?utm_term=boat')).toBe(
      `https://saltmarsh.example/?utm_term=boat&${POSTER_TAGS}`,
    )
  })

  it('takes names by their case, as addresses do', () => {
    expect(addressOf('https://saltmarsh.example/?UTM_SOURCE=x')).toBe(
      `https://saltmarsh.example/?UTM_SOURCE=x&${POSTER_TAGS}`,
    )
  })
})

describe('carrying over what a scan came with', () => {
  const carry = (destination: string, query: string) => tag(new URL(destination), poster).carrying(query)

  it('puts it between the destination’s own and the UTM values', () => {
    expect(carry('https://saltmarsh.example/?lang=de#x', 'table=7&seat=b')).toBe(
      `https://saltmarsh.example/?lang=de&table=7&seat=b&${POSTER_TAGS}#x`,
    )
  })

  it('lets a visitor change neither the destination’s values nor the code’s', () => {
    expect(carry('https://saltmarsh.example/?price=10', 'price=0&utm_source=forged&ok=1')).toBe(
      `https://saltmarsh.example/?price=10&ok=1&${POSTER_TAGS}`,
    )
  })

  it.each([
    ['a line break', 'a=%0d%0aSet-Cookie:x', 'a=%0d%0aSet-Cookie:x'],
    ['quotes and angle brackets', 'a="<b>', 'a=%22%3Cb%3E'],
    ['a hash sign', 'a=1#b', 'a=1%23b'],
    ['letters beyond ASCII', 'a=ü', 'a=%C3%BC'],
  ])('makes %s harmless, as the WHATWG URL parser writes a query', (_name, query, written) => {
    expect(carry('https://saltmarsh.example/', query)).toBe(
      `https://saltmarsh.example/?${written}&${POSTER_TAGS}`,
    )
  })
})

describe('for every destination, tag and query', () => {
  const pair = fc.tuple(
    fc.string({ unit: 'grapheme', minLength: 1, maxLength: 8 }),
    fc.string({ unit: 'grapheme', maxLength: 12 }),
  )
  const pairs = fc.array(pair, { maxLength: 5 })
  const utm = fc.record({
    source: fc.string(),
    medium: fc.string(),
    campaign: fc.string(),
    term: fc.string(),
    content: fc.string(),
  })
  const destination = fc
    .tuple(fc.webPath(), pairs, fc.option(fc.webFragments()))
    .map(([path, query, fragment]) => {
      const url = new URL(`https://saltmarsh.example${path}`)
      for (const [name, value] of query) url.searchParams.append(name, value)
      if (fragment) url.hash = fragment
      return url
    })

  it('a browser reads the UTM values exactly as they were entered, lone surrogates aside', () => {
    fc.assert(
      fc.property(destination, utm, (url, values) => {
        const read = new URL(tag(url, values).address).searchParams
        for (const field of UTM_FIELDS) {
          if (values[field] !== '')
            expect(read.getAll(utmName(field))).toEqual([
              new TextDecoder().decode(new TextEncoder().encode(values[field])),
            ])
        }
      }),
    )
  })

  it('path, fragment and foreign values survive', () => {
    fc.assert(
      fc.property(destination, utm, (url, values) => {
        const read = new URL(tag(url, values).address)
        const foreign = (from: URL) => [...from.searchParams].filter(([name]) => !name.startsWith('utm_'))
        expect([read.host, read.pathname, read.hash]).toEqual([url.host, url.pathname, url.hash])
        expect(foreign(read)).toEqual(foreign(url))
      }),
    )
  })

  it('tagging twice is tagging once', () => {
    fc.assert(
      fc.property(destination, utm, (url, values) => {
        const once = tag(url, values).address
        expect(tag(new URL(once), values).address).toBe(once)
      }),
    )
  })

  it('a carried query never changes what was there, and is an address a header can hold', () => {
    fc.assert(
      fc.property(destination, utm, fc.string({ unit: 'binary', maxLength: 40 }), (url, values, query) => {
        const tagged = tag(url, values)
        const address = tagged.carrying(query)
        expect(address).toMatch(/^[\x21-\x7e]*$/)
        const [plain, carried] = [new URL(tagged.address).searchParams, new URL(address).searchParams]
        for (const name of plain.keys()) expect(carried.getAll(name)).toEqual(plain.getAll(name))
      }),
    )
  })
})
