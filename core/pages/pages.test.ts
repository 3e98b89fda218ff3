import fc from 'fast-check'
import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { anyPage, anyPart, nastyText, PAGE_LANGUAGES } from '../tests/pageArbitrary.ts'
import { pageSurroundings } from '../tests/pageSurroundings.ts'
import {
  contactName,
  drawPage,
  emptyContent,
  faultInWords,
  filesOfPage,
  pagesOfPage,
  withPages,
  missingTexts,
  newPart,
  pageChanges,
  pageContent,
  pageFaults,
  part,
  PART_KINDS,
  publicDocument,
  readTold,
  startContent,
  STARTS,
  type PageContent,
  type Part,
} from './index.ts'
import { escapeMarkup, textFromPlain } from '../fields/index.ts'

/** The tags and names of attributes of a document, in their order. */
function structureOf(markup: string): string[] {
  const found: string[] = []
  const parser = new Parser({
    onopentag: (tag, attributes) => found.push([tag, ...Object.keys(attributes)].join(' ')),
    onclosetag: (tag) => found.push(`/${tag}`),
  })
  parser.end(markup)
  return found
}

/** The same content with every sign of what was typed made harmless. */
function harmless<T>(value: T): T {
  const plain = (text: string, sign: string) => text.replace(/[^\s]/gu, sign)
  const walk = (given: unknown, key: string): unknown => {
    if (Array.isArray(given)) return given.map((each) => walk(each, key))
    if (typeof given === 'object' && given !== null) {
      const walked = Object.fromEntries(Object.entries(given).map(([name, each]) => [name, walk(each, name)]))
      // An organisation that is called as the person is stays so: it is drawn once.
      return isCalledAlike(given) ? { ...walked, organisation: contactName(walked as never) } : walked
    }
    if (typeof given !== 'string') return given
    if (given.startsWith('https://saltmarsh.example/')) return 'https://saltmarsh.example/'
    return KEPT.has(key) || /^(tel:|A{21}$|\d{4}-)/.test(given)
      ? given
      : plain(given, key === 'organisation' ? 'y' : 'x')
  }
  return walk(value, '') as T
}
const isCalledAlike = (given: object) =>
  'organisation' in given &&
  typeof given.organisation === 'string' &&
  given.organisation.trim() === contactName(given as never)
const FORM_KEPT = ['steps', 'after', 'keptThen', 'takes', 'key']
const KEPT = new Set([
  'kind',
  'id',
  'size',
  'look',
  'version',
  'system',
  'zone',
  'languages',
  'from',
  'upTo',
  ...FORM_KEPT,
])

describe('pages that a page leads to', () => {
  it('are named once each, and those of a copy are the copies', () => {
    const form = (id: string, thanksPage: number | null, after: 'page' | 'words' = 'page'): Part => ({
      ...newPart('form', id),
      after,
      thanksPage,
    })
    const content = page([form('a', 7), form('b', 7), form('c', 9), form('d', 5, 'words'), form('e', null)])
    // What is not asked does not lead anywhere.
    expect(pagesOfPage(content)).toEqual([7, 9])
    expect(pagesOfPage(withPages(content, new Map([[7, 70]])))).toEqual([70, 9])
  })
})

describe('a page, whatever is typed on it', () => {
  it('has no tag and no attribute but those of its parts', () => {
    fc.assert(
      fc.property(anyPage, fc.constantFrom(...PAGE_LANGUAGES), (content, language) => {
        const around = pageSurroundings(language, { languages: PAGE_LANGUAGES })
        expect(structureOf(drawPage(content, around))).toEqual(
          structureOf(drawPage(harmless(content), around)),
        )
      }),
      {
        numRuns: 400,
        // A number of which nothing can be dialled.
        examples: [
          [
            page([
              { ...newPart('contact', 'c'), organisation: '!', phones: [{ kind: 'work', number: '(' }] },
            ]),
            'de',
          ],
        ],
      },
    )
  })

  it('names an organisation once that is called as its person is, and beside them otherwise', () => {
    const paragraphs = (organisation: string) => {
      const content = page([{ ...newPart('contact', 'c'), family: 'Harbour office', organisation }])
      const drawn = [content, harmless(content)].map((each) =>
        structureOf(drawPage(each, pageSurroundings('en'))),
      )
      expect(drawn[0]).toEqual(drawn[1])
      return drawn[0]?.filter((tag) => tag === 'p').length
    }
    expect([paragraphs(' Harbour office '), paragraphs('Ferry line')]).toEqual([0, 1])
  })

  it('reads as it was typed', () => {
    fc.assert(
      fc.property(nastyText, (typed) => {
        fc.pre(typed.trim() !== '')
        const given = page([heading({ en: typed })])
        let text = ''
        const parser = new Parser({ ontext: (piece) => (text += piece) })
        parser.end(/<h1[^>]*>(.*?)<\/h1>/s.exec(drawPage(given, pageSurroundings('en')))?.[1] ?? '')
        expect(text).toBe(typed.trim())
      }),
    )
  })

  it('is kept in every language as it was given, part by part', () => {
    fc.assert(
      fc.property(anyPart, (given) => {
        const kept = part.parse(JSON.parse(JSON.stringify(given)))
        expect(part.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept)
        expect([kept.id, kept.kind]).toEqual([given.id, given.kind])
      }),
    )
  })
})

const heading = (text: Record<string, string>, id = 'h'): Part => ({ ...newPart('heading', id), text })
const page = (parts: readonly Part[], more: Partial<PageContent> = {}): PageContent => ({
  ...emptyContent('en', 'Europe/Berlin'),
  title: { en: 'Tides' },
  ...more,
  parts: [...parts],
})
const drawn = (parts: readonly Part[], more = {}) => drawPage(page(parts), pageSurroundings('en', more))

describe('a page of parts', () => {
  it('weighs less than 30 kB with fifty of them', () => {
    const link = (i: number): Part => ({
      ...newPart('link', `l${String(i)}`),
      label: { en: 'Guided walks to Tern Sands' },
      note: { en: 'Every day, two hours before low water' },
      address: 'https://saltmarsh.example/walks?day=today',
    })
    const many = Array.from({ length: 50 }, (_each, i) => link(i))
    expect(Buffer.byteLength(drawn(many))).toBeLessThan(30_000)
    expect(pageContent.safeParse(page(many)).success).toBe(true)
  })

  it('has one title for who cannot see it, whether a heading is one or not', () => {
    expect(structureOf(drawn([heading({ en: 'Tides' })])).filter((tag) => tag.startsWith('h1'))).toHaveLength(
      1,
    )
    expect(drawn([newPart('divider', 'd')])).toMatch(/<h1 class="only"\s*>Tides<\/h1>/)
  })

  it('says in which language a text is that the page has not in its own (WCAG 2.2, 3.1.2)', () => {
    const around = pageSurroundings('de', { languages: ['de', 'ar'] })
    expect(drawPage(page([heading({ ar: 'المد' })]), around)).toContain(
      '<span lang="ar" dir="rtl">المد</span>',
    )
  })

  it('offers a phone the address for its system, and all others the rest', () => {
    const given: Part = {
      ...newPart('appSwitch', 's'),
      label: { en: 'Get it' },
      systems: [{ system: 'iOS', address: 'https://one.example/' }],
      otherwise: 'https://all.example/',
    }
    expect(drawn([given])).toContain('https://one.example/')
    expect(drawn([given], { system: 'Android' })).toContain('https://all.example/')
  })

  it('counts down in the two largest units, and then says what is over', () => {
    const given: Part = {
      ...newPart('countdown', 'c'),
      label: { en: 'First boat in' },
      moment: '2026-07-05T10:05',
      over: { en: 'We are off' },
    }
    expect(drawn([given])).toMatch(/<time[^>]*>2 days 20 hours<\/time\s*>/)
    expect(drawn([given], { now: Date.parse('2026-07-06T00:00Z') })).toContain('We are off')
  })

  it('tells of opening hours by the clock of its zone, in its language', () => {
    const day = [{ from: '09:00', upTo: '18:00' }]
    const given: Part = {
      ...newPart('hours', 'o'),
      hours: { week: [day, day, day, day, day, [], []], except: [] },
    }
    expect(drawn([given])).toMatch(/Open now · until 6:00\sPM/)
    const german = drawPage(page([given]), pageSurroundings('de', { now: Date.parse('2026-07-03T20:00Z') }))
    expect(german).toContain('Jetzt geschlossen · öffnet Mo., 09:00')
  })

  it('is previewed by its title, picture and description (Open Graph)', () => {
    const head = drawPage(
      page([], { description: { en: 'When boats leave' }, picture: { en: 'AAAAAAAAAAAAAAAAAAAAA' } }),
      pageSurroundings('en'),
    )
    for (const said of ['og:title" content="Tides"', 'og:description" content="When boats leave"'])
      expect(head.replace(/\s+/g, ' ')).toContain(said)
    expect(head.replace(/\s+/g, ' ')).toContain('og:image" content="https://go.saltmarsh.example/~f/')
  })
})

describe('what keeps a page from being published', () => {
  it.each([
    [heading({}), 'Heading, part 1: Write the heading.'],
    [{ ...newPart('link', 'l'), label: { en: 'A' }, address: 'saltmarsh' }, 'not a whole web address'],
    [{ ...newPart('link', 'l'), label: { en: 'A' }, address: 'javascript:alert(1)' }, 'https://'],
    [{ ...newPart('picture', 'p'), picture: { en: 'AAAAAAAAAAAAAAAAAAAAA' } }, 'Say what the picture shows'],
    [newPart('contact', 'c'), 'Give a name'],
    [newPart('hours', 'o'), 'Give the hours of a day'],
    [
      {
        ...newPart('event', 'e'),
        label: { en: 'Walk' },
        from: '2026-07-03T09:00',
        upTo: '2026-07-03T09:00',
      },
      'end is not after',
    ],
  ])('is said: %j', (given, sentence) => {
    const content = page([given])
    const faults = pageFaults(content)
    expect(faults.map((fault) => faultInWords(content, fault)).join(' ')).toContain(sentence)
    expect(pageFaults(page([{ ...given, isHidden: true }]))).toEqual([])
  })

  it('is nothing where another language says it, which is listed', () => {
    const content = page([heading({ de: 'Gezeiten' })], { languages: ['en', 'de'], title: { en: 'Tides' } })
    expect(pageFaults(content)).toEqual([])
    expect(missingTexts(content)).toEqual([
      { partId: 'h', path: 'text', label: 'Heading', language: 'en', instead: 'de' },
      { partId: '', path: 'title', label: 'Title', language: 'de', instead: 'en' },
    ])
  })

  it('names the files it needs once each', () => {
    const key = 'AAAAAAAAAAAAAAAAAAAAA'
    const given: Part = {
      ...newPart('video', 'v'),
      file: { en: key, de: key },
      captions: { en: 'B'.repeat(21) },
    }
    expect(filesOfPage(page([given]))).toEqual([key, 'B'.repeat(21)])
  })
})

describe('starting pages', () => {
  it.each(STARTS.map(({ key, name }) => [name, key]))('%s can be kept and drawn', (_name, key) => {
    const content = startContent(key, 'de', 'Europe/Berlin')
    expect(pageContent.parse(content)).toEqual(content)
    expect(drawPage(content, pageSurroundings('de'))).toContain('<html lang="de"')
  })
  it('use every kind of part that has something to begin with', () => {
    const used = new Set(
      STARTS.flatMap(({ key }) => startContent(key, 'en', 'UTC').parts.map(({ kind }) => kind)),
    )
    expect(PART_KINDS.filter((kind) => !used.has(kind))).toEqual(['pictures', 'video', 'appSwitch'])
  })
})

describe('what changed on a page', () => {
  it('is said in sentences', () => {
    const before = page([heading({ en: 'Tides' }), newPart('divider', 'd'), newPart('hours', 'o')])
    const after = page(
      [
        { ...newPart('divider', 'd'), isHidden: true },
        heading({ en: 'High water' }),
        { ...newPart('text', 't'), text: { en: textFromPlain('Mud.') } },
      ],
      { languages: ['en', 'de'] },
    )
    expect(pageChanges(before, after)).toEqual([
      'changed the languages from en to en, de',
      'removed the opening hours',
      'hid the divider',
      'changed the heading “High water”',
      'added the text',
      'moved parts',
    ])
    expect(pageChanges(before, before)).toEqual([])
  })
})

describe('what a page’s script tells', () => {
  it('is read line by line, and nothing that it could not have told', () => {
    const told =
      'played a 25\nplayed a 26\nlink c tel0\nlink c <b>\nstayed - 30\nstayed x 30\nopened - -\nshared c'
    expect(readTold(told)).toEqual([
      { kind: 'played', part: 'a', item: '25' },
      { kind: 'link', part: 'c', item: 'tel0' },
      { kind: 'stayed', part: '', item: '30' },
      { kind: 'shared', part: 'c', item: '' },
    ])
    expect(readTold('stayed - 5\n'.repeat(1000))).toHaveLength(20)
  })
})

describe('a whole document', () => {
  it('has the text it was given, and its own tags alone', () => {
    fc.assert(
      fc.property(nastyText, (title) => {
        expect(structureOf(publicDocument(title, `<p>${escapeMarkup(title)}</p>`, { css: '' }))).toEqual(
          structureOf(publicDocument('x', '<p>x</p>', { css: '' })),
        )
      }),
    )
  })
})
