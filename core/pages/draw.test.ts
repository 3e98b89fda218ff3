import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { pageSurroundings, SHOWN_FILE } from '../tests/pageSurroundings.ts'
import {
  drawPage,
  emptyContent,
  newPart,
  PART_KINDS,
  PLAIN_STYLE,
  type Part,
  type PartKind,
  type PartOf,
  type ShownFile,
  type Surroundings,
} from './index.ts'
import { textFromPlain } from '../fields/index.ts'

interface Tag {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
}

/** What a document is made of: its tags, and what it says. */
function read(markup: string): { tags: Tag[]; text: string } {
  const tags: Tag[] = []
  let text = ''
  let isSilent = false
  const parser = new Parser({
    onopentag(name, attributes) {
      tags.push({ name, attributes })
      isSilent = name === 'style' || name === 'script' || name === 'title'
    },
    ontext(piece) {
      if (!isSilent) text += piece
    },
    onclosetag() {
      isSilent = false
      text += ' '
    },
  })
  parser.end(markup)
  return { tags, text: text.replace(/\s+/g, ' ').trim() }
}

const en = (text: string) => ({ en: text })
function drawn<K extends PartKind>(kind: K, says: Partial<PartOf<K>>, more: Partial<Surroundings> = {}) {
  const part = { ...newPart(kind, 'p'), ...says } as Part
  const content = { ...emptyContent('en', 'Europe/Berlin'), title: en('Page'), parts: [part] }
  const { tags, text } = read(drawPage(content, pageSurroundings('en', more)))
  return {
    text,
    find: (name: string) => tags.filter((tag) => tag.name === name).map(({ attributes }) => attributes),
  }
}
const file = (change: Partial<ShownFile>) => ({ file: () => ({ ...SHOWN_FILE, ...change }) })
const KEY = en('AAAAAAAAAAAAAAAAAAAAA')

describe('a picture', () => {
  const says = { picture: KEY, alt: en('Dunes in May'), caption: en('Tern Sands') }

  it('is offered as AVIF and WebP in both widths, and as JPEG to phones that know neither', () => {
    const { find, text } = drawn('picture', says)
    expect(find('source').map(({ type, srcset = '' }) => [type, srcset.split(', ').length])).toEqual([
      ['image/avif', 2],
      ['image/webp', 2],
    ])
    const [image] = find('img')
    expect(image?.src).toMatch(/1080\.jpg$/)
    expect(text).toContain('Tern Sands')
  })

  it('has its place kept, so that nothing moves when it comes, and the first is asked for at once', () => {
    const [image] = drawn('picture', says).find('img')
    expect(image).toMatchObject({ width: '1200', height: '800', alt: 'Dunes in May', fetchpriority: 'high' })
    expect(image?.loading).toBeUndefined()
  })

  it('that is only decoration is nothing to who does not see it', () => {
    expect(drawn('picture', { ...says, isDecoration: true }).find('img')[0]?.alt).toBe('')
  })

  it('of which there are no sizes is sent as it is', () => {
    const { find } = drawn('picture', says, file({ widths: [], type: 'image/svg+xml' }))
    expect([find('source'), find('img')[0]?.src]).toEqual([[], '/~f/AAAAAAAAAAAAAAAAAAAAA/file'])
  })

  it('that is gone leaves no gap and no broken one', () => {
    const { find } = drawn('picture', says, { file: () => undefined })
    expect([find('img'), find('figure')]).toEqual([[], []])
  })

  it('in a row can be reached by keys, and waits until it is near', () => {
    const { find } = drawn('pictures', {
      items: [1, 2].map((n) => ({ picture: KEY, alt: en(`Dune ${String(n)}`) })),
    })
    expect(find('ul')).toEqual([{ class: 'row', tabindex: '0' }])
    expect(find('img').map(({ loading, alt }) => [loading, alt])).toEqual([
      ['lazy', 'Dune 1'],
      ['lazy', 'Dune 2'],
    ])
  })
})

describe('what is played', () => {
  it('has its title as its name, and what is said in it to be read', () => {
    const { find, text } = drawn('audio', {
      file: KEY,
      label: en('Listen'),
      transcript: { en: textFromPlain('Hush.') },
    })
    expect(find('audio')[0]).toMatchObject({ controls: '', 'data-part': 'p', 'aria-labelledby': 'mp' })
    expect(find('figcaption')[0]).toEqual({ id: 'mp' })
    expect(text).toContain('Read as text Hush.')
  })

  it('has captions of every language to choose from, and on where they are read', () => {
    const { find } = drawn(
      'video',
      { file: KEY, label: en('Watch'), captions: { en: 'A'.repeat(21), de: 'A'.repeat(21) } },
      { languages: ['en', 'de'] },
    )
    expect(find('track').map(({ srclang, label, default: isOn }) => [srclang, label, isOn])).toEqual([
      ['en', 'English', ''],
      ['de', 'Deutsch', undefined],
    ])
  })

  it('loads nothing of a film before it is wanted, where a still stands for it', () => {
    const says = { file: KEY, label: en('Watch') }
    expect(drawn('video', { ...says, poster: KEY }).find('video')[0]).toMatchObject({ preload: 'none' })
    expect(drawn('video', says).find('video')[0]).toMatchObject({ preload: 'metadata' })
  })
})

describe('a file to take away', () => {
  it.each([
    ['application/pdf', 1_234_567, 'en', 'PDF, 1.2 MB'],
    ['application/pdf', 1_234_567, 'de', 'PDF, 1,2 MB'],
    ['audio/mpeg', 12_345, 'en', 'MP3, 12 kB'],
    ['text/vtt', 3, 'en', 'WebVTT, 1 kB'],
  ])('says that it is %s of %i bytes, in %s: %s', (type, bytes, language, expected) => {
    const part: Part = { ...newPart('file', 'p'), file: KEY, label: en('The list') }
    const content = {
      ...emptyContent('en', 'UTC'),
      languages: ['en', 'de'],
      title: en('Page'),
      parts: [part],
    }
    const around = pageSurroundings(language, { languages: ['en', 'de'], ...file({ type, bytes }) })
    expect(read(drawPage(content, around)).text.replace(/\u00a0/g, ' ')).toContain(expected)
  })
})

describe('a contact', () => {
  const says: Partial<PartOf<'contact'>> = {
    given: 'Jördis',
    family: 'Vantooft',
    organisation: 'Saltmarsh Line',
    phones: [{ kind: 'work', number: '+49 (0) 4931 555-0142' }],
    emails: [{ address: ' j@saltmarsh.example ' }],
    addresses: [{ street: 'Am Hafen 1', postcode: '26506', town: 'Nordend', country: '' }],
    sites: [
      { name: '', address: 'https://saltmarsh.example/' },
      { name: 'Left out', address: '' },
    ],
  }

  it('is dialled, written to and visited by its lines, each its own link', () => {
    const { find, text } = drawn('contact', says)
    expect(find('a').map(({ href, 'data-link': link }) => [href, link])).toEqual([
      ['tel:+4949315550142', 'p tel0'],
      ['mailto:j@saltmarsh.example', 'p mail0'],
      ['https://saltmarsh.example/', undefined],
      ['/x/~t/t/p', undefined],
    ])
    expect(text).toContain('Am Hafen 1 26506 Nordend')
    expect(text).not.toContain('Left out')
  })

  it('is shared only where the phone can, which its script finds out', () => {
    expect(drawn('contact', says).find('button')[0]).toMatchObject({
      hidden: '',
      'data-of': 'p',
      type: 'button',
    })
  })

  it('is a wallet pass where the workspace signs any', () => {
    const { find, text } = drawn('contact', says, { passHref: (id) => `/x/~t/t/${id}/pass` })
    expect(find('a').at(-1)?.href).toBe('/x/~t/t/p/pass')
    expect(text).toContain('Add to wallet')
    expect(drawn('contact', says).text).not.toContain('wallet')
  })

  it('of an organisation names it once', () => {
    const { text } = drawn('contact', { organisation: 'Saltmarsh Line' })
    expect(text.split('Saltmarsh Line')).toHaveLength(2)
  })
})

describe('a place', () => {
  const point = { latitude: 53.55, longitude: 7.2 }
  const says = { label: en('East pier'), address: en('Am Hafen 1\n26506 Nordend'), point }

  it('is opened in maps by what phones know (RFC 5870), and on the web', () => {
    const [geo, web] = drawn('place', says).find('a')
    expect(geo).toMatchObject({ href: 'geo:53.55,7.2', 'data-link': 'p geo' })
    expect(web?.href).toMatch(/^https:.*53\.55/)
  })

  it('is looked for by its words where nobody said where it is', () => {
    const links = drawn('place', { ...says, point: null }).find('a')
    expect(links).toHaveLength(1)
    expect(decodeURIComponent(links[0]?.href ?? '')).toContain('East pier, Am Hafen 1, 26506 Nordend')
  })

  it('has a map where one is wanted', () => {
    const mapOf = () => '<svg viewBox="0 0 1 1"></svg>'
    expect(drawn('place', says, { mapOf }).find('svg')).toHaveLength(1)
    expect(drawn('place', { ...says, isMapped: false }, { mapOf }).find('svg')).toHaveLength(0)
  })
})

describe('an event', () => {
  const says = {
    label: en('Seals'),
    from: '2026-10-24T22:00',
    upTo: '2026-10-25T04:00',
    place: en('East pier'),
  }

  it('is written as its reader writes days and times, by the clock of the page', () => {
    const { text, find } = drawn('event', says)
    expect(text.replace(/[\u2009\u202f]/g, ' ')).toMatch(
      /October 24, 2026.*10:00 PM.*October 25, 2026.*4:00 AM/,
    )
    expect(find('a')[0]?.href).toBe('/x/~t/t/p')
  })

  it('of whole days has no times', () => {
    expect(drawn('event', { ...says, isWholeDay: true }).text).not.toMatch(/PM|AM/)
  })

  it('without its moments is not there', () => {
    expect(drawn('event', { ...says, upTo: '' }).text).not.toContain('Seals')
  })
})

describe('lists of words', () => {
  it('of prices stand in sections; a line without a name is left out', () => {
    const item = (name: string, price: string) => ({ name: en(name), note: {}, price })
    const { text, find } = drawn('prices', {
      sections: [{ title: en('Tickets'), items: [item('Adults', '18.00'), item('', '9.00')] }],
    })
    expect(text).toContain('Tickets Adults 18.00')
    expect([find('dt').length, text.includes('9.00')]).toEqual([1, false])
  })

  it('of questions open without script, and lead on from their answers', () => {
    const link = { text: 'Here', link: 'https://saltmarsh.example/' }
    const { find } = drawn(
      'questions',
      {
        items: [1, 2].map((n) => ({
          question: en(`Question ${String(n)}`),
          answer: { en: [{ kind: 'paragraph' as const, runs: [link] }] },
        })),
      },
      { linkHref: (part, item) => `/l/${part}/${item}` },
    )
    expect(find('details')).toHaveLength(2)
    expect(find('a').map(({ href }) => href)).toEqual(['/l/p/0t0', '/l/p/1t0'])
  })
})

describe('the look of a page', () => {
  const css = (style: Partial<typeof PLAIN_STYLE>, more: Partial<Surroundings> = {}) => {
    const content = { ...emptyContent('en', 'UTC'), title: en('Page') }
    const markup = drawPage(content, pageSurroundings('en', { style: { ...PLAIN_STYLE, ...style }, ...more }))
    return /<style[^>]*>(.*?)<\/style>/s.exec(markup)?.[1] ?? ''
  }

  it('follows the phone where it has both palettes, or is of one alone', () => {
    expect(css({})).toContain('@media(prefers-color-scheme:dark)')
    expect(css({ scheme: 'dark' })).not.toContain('@media(prefers-color-scheme')
    expect(css({ scheme: 'dark' })).toContain('color-scheme:dark')
    expect(css({}, { scheme: 'dark' })).toContain(`--i:${PLAIN_STYLE.dark.ink}`)
  })

  it('has its picture as the ground, and a sheet under the words', () => {
    const ground = { kind: 'picture', file: 'A'.repeat(21), sheet: '#FFFFFF' } as const
    const light = { ...PLAIN_STYLE.light, ground }
    expect(css({ scheme: 'light', light })).toContain('url("/~f/AAAAAAAAAAAAAAAAAAAAA/1080.webp")')
    expect(css({ scheme: 'light', light })).toContain('main{background:var(--s')
    expect(css({ scheme: 'light', light }, { file: () => undefined })).toContain('--g:#FFFFFF')
  })
})

describe('a part with nothing entered', () => {
  it.each(PART_KINDS.filter((kind) => kind !== 'divider' && kind !== 'hours'))('is nothing: %s', (kind) => {
    expect(drawn(kind, {}).text).toBe('Page')
  })
})
