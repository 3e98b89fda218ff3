import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { channelOf, DEFAULT_CHANNELS, channelSentence, type ChannelRule } from './channels.ts'
import { fillPattern, patternFault } from './contentPattern.ts'
import { tagContext, tagCounts } from './context.ts'
import { houseRules, DEFAULT_RULES, type HouseRules } from './houseRules.ts'
import { applyFixes, fixesOf, lint, type FindingKind, type TaggedPiece } from './lint.ts'
import { isLookAlike, valuesInUse } from './lookAlike.ts'
import { personalPart } from './personal.ts'
import { plainName } from './plainName.ts'
import { tidyValue } from './tidy.ts'

const PIECE: TaggedPiece = {
  name: 'Pier poster',
  place: 'West gate',
  size: 60,
  medium: 'print',
  source: 'pier-poster',
  content: 'west',
  term: '',
  reference: '',
  key: '',
  route: 'Timetable',
  campaign: 'summer-26',
  link: 'PIER',
  extra: {},
  destination: 'https://saltmarsh.example/timetable',
}
const contextOf = (
  rules: Partial<HouseRules> = {},
  others: readonly Partial<TaggedPiece>[] = [],
  campaign = 'summer-26',
) => {
  const counts = tagCounts()
  for (const other of others) counts.count({ ...PIECE, ...other })
  return tagContext({ rules: { ...DEFAULT_RULES, ...rules }, campaign, counts, counted: false })
}
const kinds = (piece: Partial<TaggedPiece>, context = contextOf()) =>
  lint({ ...PIECE, ...piece }, context).map(({ kind, field }) => `${kind} ${field}`)

describe('the linter', () => {
  it('finds nothing in a piece as the house writes it', () => {
    expect(kinds({})).toEqual([])
  })

  it.each<[FindingKind, string, Partial<TaggedPiece>, string | null]>([
    ['letter-case', 'source', { source: 'PierPoster' }, 'pierposter'],
    ['spaces', 'source', { source: 'local paper' }, 'local-paper'],
    ['separator', 'source', { source: 'local_paper' }, 'local-paper'],
    ['escaping', 'content', { content: 'größe&mehr' }, 'grosse-mehr'],
    [
      'length',
      'content',
      { content: 'x-'.repeat(60) + 'y' },
      expect.stringMatching(/^[x-]{1,100}$/) as never,
    ],
    ['personal-data', 'content', { content: 'mail-anna@saltmarsh.example' }, 'pier-poster'],
    ['personal-data', 'term', { term: '+49 4931 555 0142' }, 'pier-poster'],
    ['campaign-differs', 'campaign', { campaign: 'summer-25' }, 'summer-26'],
    ['missing', 'medium', { medium: '' }, null],
    [
      'in-destination',
      'destination',
      { destination: 'https://saltmarsh.example/?a=1&utm_source=web&utm_id=7#x' },
      'https://saltmarsh.example/?a=1#x',
    ],
  ])('finds %s in %s, and knows a fix', (kind, field, piece, fix) => {
    expect(lint({ ...PIECE, ...piece }, contextOf())).toContainEqual(
      expect.objectContaining({ kind, field, fix }),
    )
  })

  it('finds the spelling that fewer pieces carry, and gives way to the one that more do', () => {
    const context = contextOf({}, [
      { source: 'pier-poster', content: 'a' },
      { source: 'pier-poster', content: 'b' },
      { source: 'pierposter', content: 'c' },
      { source: 'Pier_Poster', content: 'd' },
    ])
    for (const source of ['pierposter', 'Pier_Poster', 'pier-postre'])
      expect(lint({ ...PIECE, source }, context).find(({ kind }) => kind === 'look-alike')?.fix).toBe(
        'pier-poster',
      )
    expect(kinds({ source: 'pier-poster', content: 'e' }, context)).toEqual([])
  })

  it('finds tags that another piece carries, whatever order they were met in', () => {
    expect(kinds({}, contextOf({}, [{}]))).toEqual(['same-tags content'])
    expect(kinds({}, contextOf({}, [{ term: 'x' }]))).toEqual([])
    expect(kinds({}, contextOf({}, [{ extra: { region: 'north' } }]))).toEqual([])
  })

  it('keeps to the house’s list: warns, or refuses and knows the nearest', () => {
    const rules = { media: ['print', 'screen'] }
    expect(
      lint({ ...PIECE, medium: 'Print' }, contextOf(rules)).find(({ kind }) => kind === 'off-list'),
    ).toMatchObject({ fix: 'print', refused: false })
    expect(
      lint({ ...PIECE, medium: 'bus' }, contextOf({ ...rules, offList: 'refuse' })).find(
        ({ kind }) => kind === 'off-list',
      ),
    ).toMatchObject({ fix: null, refused: true })
  })

  it('wants the pattern’s content, and what the house requires', () => {
    const rules: Partial<HouseRules> = {
      contentPattern: '{place}-{size}',
      required: ['content'],
      parameters: [{ name: 'region', label: 'Region', required: true }],
    }
    expect(fixesOf(lint({ ...PIECE, content: '', extra: {} }, contextOf(rules)))).toEqual({
      content: 'west-gate-60',
    })
    expect(kinds({ content: 'west' }, contextOf(rules))).toEqual(['missing region', 'pattern content'])
  })

  // Every text a person might type, separators and signs of all kinds among them.
  const typed = fc.oneof(
    fc.string({ maxLength: 40 }),
    fc.string({
      unit: fc.constantFrom('a', 'B', '_', '-', ' ', 'é', 'ß', '&', '@', '.', '7', '+', '漢'),
      maxLength: 40,
    }),
  )
  const pieces = fc
    .record({ name: typed, place: typed, medium: typed, source: typed, content: typed, term: typed })
    .map((part): TaggedPiece => ({ ...PIECE, ...part }))
  const rules = fc.record({
    letterCase: fc.constantFrom('lower' as const, 'any' as const),
    separator: fc.constantFrom('-' as const, '_' as const, 'any' as const),
    contentPattern: fc.constantFrom('', '{place}-{size}'),
  })

  it('is pure: the same piece is found the same twice, however often it is fixed in between', () => {
    fc.assert(
      fc.property(pieces, rules, (piece, rule) => {
        const context = contextOf(rule)
        const first = lint(piece, context)
        applyFixes(piece, fixesOf(first))
        expect(lint(piece, context)).toEqual(first)
      }),
    )
  })

  it('finds the same whatever it was asked before under the same rules', () => {
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 6 }), rules, (all, rule) => {
        const context = contextOf(rule, all)
        // Names differ and values are the same: what is said of a value may hang on the piece it stands on.
        const asked = all.flatMap((piece) => [piece, { ...piece, name: `${piece.name} two` }])
        for (const piece of asked) lint(piece, context)
        expect(asked.map((piece) => lint(piece, { ...context, campaign: 'autumn' }))).toEqual(
          asked.map((piece) => lint(piece, { ...contextOf(rule, all), campaign: 'autumn' })),
        )
      }),
    )
  })

  it('is done after a few rounds of fixes: what is left has none', () => {
    fc.assert(
      fc.property(pieces, rules, (piece, rule) => {
        const context = contextOf(rule)
        let fixed = piece
        for (let i = 0; i < 4; i++) fixed = applyFixes(fixed, fixesOf(lint(fixed, context)))
        expect(lint(fixed, context).filter(({ fix }) => fix !== null)).toEqual([])
      }),
      { numRuns: 300 },
    )
  })

  it('takes no notice of the order in which other pieces were counted', () => {
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 8 }), pieces, (others, piece) => {
        expect(lint(piece, contextOf({}, others))).toEqual(lint(piece, contextOf({}, [...others].reverse())))
      }),
    )
  })

  it('tidying twice is tidying once, and leaves only signs no address escapes', () => {
    fc.assert(
      fc.property(typed, rules, (text, rule) => {
        const once = tidyValue(text, rule)
        expect(tidyValue(once, rule)).toBe(once)
        // RFC 3986, section 2.3: ALPHA / DIGIT / "-" / "." / "_" / "~"
        expect(once).toMatch(/^[A-Za-z0-9._~-]*$/)
      }),
    )
  })
})

describe('look-alikes', () => {
  it.each([
    ['pier-poster', 'pierposter', true],
    ['pier-poster', 'Pier_Poster', true],
    ['pier-poster', 'pier-postre', true],
    ['newsletter', 'newsleter', true],
    ['café', 'cafe', true],
    ['line-2', 'line-7', false],
    ['coaster', 'poster', false],
    ['line-a', 'line-b', false],
    ['north', 'south', false],
    ['print', 'print', false],
    ['', 'a', false],
    ['holders-25', 'holders-26', false],
    ['de', 'dk', false],
  ])('%s and %s: %s', (a, b, are) => {
    expect([isLookAlike(a, b), isLookAlike(b, a)]).toEqual([are, are])
  })
  it('never send two spellings to each other', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'A', '-', '_', 'c'), maxLength: 8 })
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(word, fc.integer({ min: 1, max: 3 })), {
          selector: ([value]) => value,
          maxLength: 8,
        }),
        (counts) => {
          const values = valuesInUse(counts, (value) => value === tidyValue(value, DEFAULT_RULES))
          for (const [value] of counts) {
            const better = values.better(value)
            if (better !== null) expect(values.better(better)).not.toBe(value)
          }
        },
      ),
    )
  })
})

describe('personal data', () => {
  it.each([
    'anna@saltmarsh.example',
    'x anna.p+y@mail.saltmarsh.example y',
    'anna%40saltmarsh.example',
    '+49 4931 5550142',
    '0049-4931-555-0142',
    '004949315550142',
    '(04931) 555 0142',
  ])('is seen in %j', (text) => {
    expect(personalPart(text)).not.toBeNull()
  })
  it.each(['summer-26', '2026-07-01', '20260701', 'line-2', 'poster-60x90', 'a@b', 'SL-1101', '1-2-3', ''])(
    'is not seen in %j',
    (text) => {
      expect(personalPart(text)).toBeNull()
    },
  )
})

describe('a pattern for content', () => {
  const fields = { ...PIECE, size: 42.5 }
  it.each([
    ['{place}-{size}', 'West gate-42.5'],
    ['{term}-{place}', 'West gate'],
    ['{place}--{term}_{size}', 'West gate-42.5'],
    ['plain', 'plain'],
  ])('%s is %s', (pattern, text) => {
    expect(fillPattern(pattern, fields)).toBe(text)
  })
  it('says what is wrong with one', () => {
    expect([patternFault('{colour}'), patternFault('{place'), patternFault('{place}')]).toEqual([
      expect.stringContaining('{colour} is no field'),
      expect.stringContaining('no partner'),
      null,
    ])
  })
})

describe('channels', () => {
  const tags = { medium: 'print', source: 'pier-poster', campaign: 'summer-26' }
  it('are told by the first line that holds, in any case', () => {
    const rules: ChannelRule[] = [
      {
        channel: 'Pier',
        when: [
          { field: 'medium', test: 'is', values: ['print'] },
          { field: 'source', test: 'begins', values: ['PIER'] },
        ],
      },
      { channel: 'Print', when: [{ field: 'medium', test: 'is', values: ['print', 'poster'] }] },
    ]
    expect([
      channelOf(tags, rules),
      channelOf({ ...tags, source: 'bus' }, rules),
      channelOf({ ...tags, medium: 'sky' }, rules),
    ]).toEqual(['Pier', 'Print', ''])
    expect(rules.map(channelSentence)).toEqual([
      'medium is print, and source begins with PIER',
      'medium is print or poster',
    ])
  })
  it.each([
    ['print', 'Offline print'],
    ['screen', 'Offline screen'],
    ['packaging', 'Packaging'],
    ['event', 'Event'],
    ['email', 'Email'],
    ['cpc', 'Search ads'],
    ['sky-writing', ''],
  ])('the usual table puts %s into %j', (medium, channel) => {
    expect(channelOf({ ...tags, medium }, DEFAULT_CHANNELS)).toBe(channel)
  })
})

describe('a plain name', () => {
  it('has nothing but small letters, digits and single hyphens within it, and stays what it is', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 1, max: 60 }), (name, longest) => {
        const plain = plainName(name, longest)
        expect(plain).toMatch(/^$|^[a-z0-9]+(-[a-z0-9]+)*$/)
        expect(plain.length).toBeLessThanOrEqual(longest)
        expect(plainName(plain, longest)).toBe(plain)
      }),
    )
    expect(plainName('Überfahrt & Zurück')).toBe('uberfahrt-zuruck')
  })
})

describe('house rules', () => {
  it.each([
    [{ parameters: [{ name: 'utm_source', label: 'x', required: false }] }, 'one of the five'],
    [
      {
        parameters: [
          { name: 'a', label: 'x', required: false },
          { name: 'a', label: 'y', required: false },
        ],
      },
      'same name',
    ],
    [{ contentPattern: '{x}' }, 'no field'],
    [{ media: [' '] }, 'empty line'],
  ])('refuse %j', (part, sentence) => {
    expect(houseRules.safeParse({ ...DEFAULT_RULES, ...part }).error?.issues[0]?.message).toContain(sentence)
  })
})
