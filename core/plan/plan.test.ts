import { readDay } from '../time/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULT_PIECE } from '../codes/index.ts'
import { tagCounts, DEFAULT_RULES } from '../tagging/index.ts'
import {
  decodeBytes,
  detectDelimiter,
  detectEncoding,
  detectMapping,
  dryRun,
  fileColumns,
  fileNameFault,
  fileNamer,
  escapeFormula,
  looksLikeHeadings,
  readMeasure,
  readMoney,
  readNumber,
  readPoint,
  readTable,
  unescapeFormula,
  UnreadableTable,
  writeTable,
  type KnownPiece,
  type PlanLine,
  type PlanWorld,
} from './index.ts'

describe('reading tables', () => {
  // The rules of RFC 4180, section 2, with the examples that stand there.
  it.each([
    [
      'rule 1: lines end with CRLF',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      'rule 2: the last line may have no end',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['rule 4: spaces belong to the field', 'aaa, bbb ,ccc', [['aaa', ' bbb ', 'ccc']]],
    [
      'rule 5: fields may be quoted',
      '"aaa","bbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      'rule 6: breaks, quotes and commas within quotes',
      '"aaa","b\r\nbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'b\r\nbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['rule 7: a quote within quotes is doubled', '"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
    ['a byte order mark', '\ufeffaaa,bbb', [['aaa', 'bbb']]],
    [
      'old line ends',
      'a,b\rc,d\r',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      'empty lines',
      'a,b\n\n , \nc,d',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
  ])('%s', (_rule, text, rows) => {
    expect(readTable(text, ',').rows).toEqual(rows)
  })

  it('says where a quotation mark is never closed', () => {
    expect(() => readTable('a,b\n"c,d\ne,f', ',')).toThrow(UnreadableTable)
  })
  it('takes a cell of a megabyte', () => {
    expect(readTable(`a,"${'x'.repeat(1 << 20)}"`, ',').rows[0]?.[1]).toHaveLength(1 << 20)
  })
  it.each([
    ['a,b\nc,d', ','],
    ['a;b\nc;d,5', ';'],
    ['a\tb\nc\td', '\t'],
    ['a|b\nc|d', '|'],
    ['alone\nlines', ','],
    ['"a;b";"c"\n"d,e";f', ';'],
    ['', ','],
  ])('finds what parts %j', (text, delimiter) => {
    expect(detectDelimiter(text)).toBe(delimiter)
  })

  const cells = fc.array(
    fc.array(
      fc.string({
        unit: fc.constantFrom('a', '"', ',', ';', '\n', '\r\n', ' ', 'ß', '=', "'"),
        maxLength: 8,
      }),
      { minLength: 2, maxLength: 4 },
    ),
    { minLength: 1, maxLength: 6 },
  )
  it('reads what it writes, whatever stands in the cells', () => {
    fc.assert(
      fc.property(cells, fc.constantFrom(',', ';', '\t'), (rows, delimiter) => {
        const square = rows.map((row) => [...row, 'end'])
        expect(readTable(writeTable(square, delimiter), delimiter).rows).toEqual(square)
      }),
    )
  })
  it('guards formulas, and only those, and takes the guard away again', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.string({ unit: fc.constantFrom("'", '=', '+', '-', '@', '\t', 'a') })),
        (text) => {
          expect(unescapeFormula(escapeFormula(text))).toBe(text)
          // What begins a formula in spreadsheets: common practice, no published source.
          expect(escapeFormula(text)).not.toMatch(/^[=+\-@\t\r]/)
        },
      ),
    )
    expect([escapeFormula('plain'), escapeFormula("o'clock"), escapeFormula('=1+1')]).toEqual([
      'plain',
      "o'clock",
      "'=1+1",
    ])
  })
})

describe('encodings', () => {
  const bytes = (text: string, ...before: number[]) =>
    new Uint8Array([...before, ...new TextEncoder().encode(text)])
  const wide = (text: string, little: boolean) =>
    new Uint8Array(
      [...text].flatMap((sign) => {
        const n = sign.charCodeAt(0)
        return little ? [n & 255, n >> 8] : [n >> 8, n & 255]
      }),
    )
  it.each([
    ['a UTF-8 mark', bytes('ö', 0xef, 0xbb, 0xbf), 'utf-8', 'ö'],
    ['UTF-8 without one', bytes('größe'), 'utf-8', 'größe'],
    ['ASCII', bytes('a,b'), 'utf-8', 'a,b'],
    ['UTF-16 marks', new Uint8Array([0xff, 0xfe, ...wide('é;b', true)]), 'utf-16le', 'é;b'],
    ['big-endian ones', new Uint8Array([0xfe, 0xff, ...wide('é;b', false)]), 'utf-16be', 'é;b'],
    ['UTF-16 without a mark', wide('name;medium', true), 'utf-16le', 'name;medium'],
    ['windows-1252', new Uint8Array([0x47, 0xf6, 0x80]), 'windows-1252', 'Gö€'],
  ] as const)('%s', (_name, file, encoding, text) => {
    expect(detectEncoding(file)).toBe(encoding)
    expect(decodeBytes(file, encoding)).toBe(text)
  })
})

describe('reading cells', () => {
  it.each([
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1 234,5', 1234.5],
    ["1'234.50", 1234.5],
    ['12,5', 12.5],
    ['1,234', 1234],
    ['1.234', 1.234],
    ['−3', -3],
    ['.5', 0.5],
    ['1.234.567', 1234567],
  ])('%s is the number %d', (text, value) => {
    expect(readNumber(text)).toEqual({ ok: true, value })
  })
  it.each(['', 'x', '1.2.3', '1,2,3', '--1', '1e5', '٣'])('%j is no number', (text) => {
    expect(readNumber(text).ok).toBe(false)
  })
  it.each([
    ['€ 1.500', 1500],
    ['1,500.00 EUR', 1500],
    ['DKK 12,50', 12.5],
    ['99', 99],
  ])('%s is that much money', (text, value) => {
    expect(readMoney(text)).toEqual({ ok: true, value })
  })
  it('knows sizes with their units', () => {
    const units = { mm: 1, cm: 10, in: 25.4 }
    expect([readMeasure('2.54 cm', units), readMeasure('1in', units), readMeasure('60', units)]).toEqual(
      [25.4, 25.4, 60].map((value) => ({ ok: true, value })),
    )
    expect(readMeasure('6 pt', units).ok).toBe(false)
  })
  it.each([
    ['2026-07-01', '2026-07-01'],
    ['1.7.2026', '2026-07-01'],
    ['1 Jul 2026', '2026-07-01'],
    ['31/7/2026', '2026-07-31'],
    ['7/31/2026', '2026-07-31'],
    ['2026-07-01T00:00:00', '2026-07-01'],
    ['29.02.2028', '2028-02-29'],
  ])('%s is a day', (text, value) => {
    expect(readDay(text)).toEqual({ ok: true, value })
  })
  it.each(['2026-02-30', '1/7/2026', '29.02.2026', 'tomorrow', '1.13.2026'])(
    '%s is none, or could be two',
    (text) => {
      expect(readDay(text).ok).toBe(false)
    },
  )
  // RFC 5870, section 6, writes points so; the other spellings are common practice.
  it.each([
    ['geo:13.4125,103.8667', 13.4125, 103.8667],
    ['53.7, 7.15', 53.7, 7.15],
    ['53,7; 7,15', 53.7, 7.15],
    ['53.7 N 7.15 W', 53.7, -7.15],
    ['-90,180', -90, 180],
  ])('%s is a point', (text, latitude, longitude) => {
    expect(readPoint(text)).toEqual({ ok: true, value: { latitude, longitude } })
  })
  it.each(['91,0', '0,181', '5', 'here'])('%s is none', (text) => {
    expect(readPoint(text).ok).toBe(false)
  })

  it('every column reads what it writes', () => {
    const days = fc
      .integer({ min: 0, max: 20_000 })
      .map((n) => new Date(n * 86_400_000).toISOString().slice(0, 10))
    const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null })
    const row = fc.record({
      sizeMm: fc.double({ min: 5, max: 5000, noNaN: true }).map((n) => Math.round(n * 1000) / 1000),
      viewingM: maybe(fc.double({ min: 0.01, max: 999, noNaN: true }).map((n) => Math.round(n * 100) / 100)),
      latitude: fc.double({ min: -90, max: 90, noNaN: true }).map((n) => Math.round(n * 1e5) / 1e5 || 0),
      longitude: fc.double({ min: -180, max: 180, noNaN: true }).map((n) => Math.round(n * 1e5) / 1e5 || 0),
      printRun: maybe(fc.integer({ min: 0, max: 1e6 })),
      cost: maybe(fc.integer({ min: 0, max: 1e7 }).map((n) => n / 100)),
      liveOn: maybe(days),
      downOn: maybe(days),
      place: fc
        .string({ unit: fc.constantFrom('a', ' ', 'ö', ',', '"'), maxLength: 20 })
        .map((text) => text.trim()),
    })
    fc.assert(
      fc.property(row, (part) => {
        const whole = { ...KNOWN, ...part }
        for (const column of fileColumns()) {
          const text = column.write(whole)
          if (column.id === 'campaign' || (text === '' && !column.optional)) continue
          const read = column.read(text)
          if (!read.ok) throw new Error(`${column.title} ${JSON.stringify(text)}: ${read.sentence}`)
          if (column.id !== 'route' && column.id !== 'destination')
            expect(column.write({ ...whole, ...(read.value as object) })).toBe(text)
        }
      }),
    )
  })
})

describe('headings', () => {
  const columns = fileColumns([{ name: 'region', label: 'Region', required: false }])
  it('are found by title, name and other names, each column once, and as they were decided before', () => {
    expect(
      detectMapping(
        ['UTM_Medium', 'utm source', 'Landing page', 'Name', 'Title', 'region', 'Colour'],
        columns,
      ),
    ).toEqual(['medium', 'source', 'destination', 'name', null, 'extra.region', null])
    expect(detectMapping(['Colour', 'Name'], columns, { colour: 'content', name: null })).toEqual([
      'content',
      null,
    ])
    expect(detectMapping(['__proto__', 'constructor'], columns)).toEqual([null, null])
  })
  it('are told from a first line of pieces', () => {
    expect(looksLikeHeadings(['Name', 'Medium', 'URL'], columns)).toBe(true)
    expect(looksLikeHeadings(['Poster', 'print', 'https://saltmarsh.example'], columns)).toBe(false)
    expect(looksLikeHeadings(['Poster', 'print'], columns)).toBe(false)
  })
})

const KNOWN: KnownPiece = {
  ...DEFAULT_PIECE,
  id: 7,
  domainId: 1,
  routeId: 3,
  routeCodes: 1,
  archived: false,
  key: 'A-1',
  name: 'Poster',
  medium: 'print',
  source: 'poster',
  campaign: 'summer-26',
  extra: {},
  state: 'live',
  slug: 'POSTER',
  routeName: 'Timetable',
  destination: 'https://saltmarsh.example/a',
  styleName: '',
}
const worldOf = (pieces: readonly KnownPiece[] = [KNOWN], more: Partial<PlanWorld> = {}): PlanWorld => ({
  domainId: 1,
  columns: fileColumns(),
  rules: DEFAULT_RULES,
  campaign: 'summer-26',
  pieces,
  routes: [{ id: 3, name: 'Timetable', destination: 'https://saltmarsh.example/a' }],
  styles: [{ id: 8, name: 'Saltmarsh navy' }],
  taken: new Set(['TAKEN']),
  counts: tagCounts(),
  destinationFault: () => null,
  ...more,
})
const run = (
  mapping: (string | null)[],
  rows: string[][],
  world = worldOf(),
  empty: 'leave' | 'clear' = 'leave',
): PlanLine[] => [...dryRun(rows, mapping, world, { empty, guarded: true })]
const NEW = ['name', 'medium', 'source', 'destination', 'route', 'slug', 'key']

describe('the dry run', () => {
  it('finds pieces by key, or else by short link in any spelling', () => {
    const lines = run(
      ['key', 'slug', 'content'],
      [
        ['A-1', '', 'x'],
        ['', 'http://go.saltmarsh.example/poster', 'y'],
      ],
    )
    expect(lines.map(({ verdict, why }) => [verdict, why])).toEqual([
      ['change', []],
      ['refuse', ['An earlier line is about the same piece.']],
    ])
    expect(lines[0]?.action).toEqual({
      kind: 'change',
      id: 7,
      set: { key: 'A-1', content: 'x' },
      route: null,
    })
  })
  it('prints pieces in the house style that is named, the plain one too, and refuses what there is none of', () => {
    const lines = run(
      ['key', 'style'],
      [
        ['A-1', 'saltmarsh Navy'],
        ['A-2', 'Plain'],
        ['A-3', 'Nautical'],
      ],
      worldOf([
        KNOWN,
        { ...KNOWN, id: 8, key: 'A-2', slug: 'TWO', styleId: 8, styleName: 'Saltmarsh navy' },
        { ...KNOWN, id: 9, key: 'A-3', slug: 'THREE' },
      ]),
    )
    expect(lines.map(({ changes, why }) => [changes, why])).toEqual([
      [[{ column: 'House style', was: '', is: 'Saltmarsh navy' }], []],
      [[{ column: 'House style', was: 'Saltmarsh navy', is: '' }], []],
      [[], [expect.stringContaining('There is no house style “Nautical”')]],
    ])
    expect(lines[0]?.action).toMatchObject({ kind: 'change', set: { styleId: 8 } })
  })
  it('does not take another domain’s piece of the same slug for it', () => {
    const [line] = run(
      ['slug', 'content', 'name', 'medium', 'source', 'destination'],
      [['POSTER', 'y', 'New', 'print', 'poster', 'https://saltmarsh.example/b']],
      worldOf([{ ...KNOWN, domainId: 2 }]),
    )
    expect([line?.verdict, line?.action.kind]).toEqual(['create', 'create'])
  })
  it('leaves what a cell is empty for, or takes it away where that is wanted', () => {
    const world = worldOf([{ ...KNOWN, content: 'old', place: 'Pier' }])
    expect(run(['key', 'content', 'medium'], [['A-1', '', '']], world)[0]?.verdict).toBe('same')
    expect(run(['key', 'content', 'medium'], [['A-1', '', '']], world, 'clear')[0]?.changes).toEqual([
      { column: 'Content', was: 'old', is: '' },
    ])
  })
  it.each([
    [
      'a short link somebody has',
      ['P', 'print', 's', 'https://saltmarsh.example/', '', 'taken', ''],
      'TAKEN is taken',
    ],
    ['one of another piece', ['P', 'print', 's', 'https://saltmarsh.example/', '', 'x', 'A-9'], null],
    ['no destination and no route', ['P', 'print', 's', '', '', '', ''], 'Destination: give the address'],
    [
      'a route nobody knows',
      ['P', 'print', 's', '', 'Nowhere', '', ''],
      'There is no route “Nowhere”'.replace('There', 'there'),
    ],
    [
      'a route that leads elsewhere',
      ['P', 'print', 's', 'https://saltmarsh.example/b', 'timetable', '', ''],
      'leads to https://saltmarsh.example/a',
    ],
    ['no name', ['', 'print', 's', 'https://saltmarsh.example/', '', '', ''], 'Piece: Give a name.'],
    ['a destination that is none', ['P', 'print', 's', 'nowhere', '', '', ''], 'not a whole web address'],
  ])('judges %s', (_name, row, sentence) => {
    const [line] = run(NEW, [row])
    if (sentence === null)
      expect(line?.why).toEqual(['Short link: Give the short link at least 3 characters.'])
    else expect(line?.why.join(' ')).toContain(sentence)
  })
  it('lets lines share a route that is there, or one that an earlier line makes', () => {
    const lines = run(NEW, [
      ['A', 'print', 'a', '', 'TIMETABLE', '', ''],
      ['B', 'print', 'b', 'https://saltmarsh.example/n', 'New', '', ''],
      ['C', 'print', 'c', '', 'new', '', ''],
    ])
    expect(lines.map(({ action }) => (action.kind === 'create' ? action.route : null))).toEqual([
      { kind: 'known', id: 3 },
      { kind: 'new', name: 'New', destination: 'https://saltmarsh.example/n', shared: true },
      { kind: 'new', name: 'New', destination: 'https://saltmarsh.example/n', shared: true },
    ])
  })
  it('refuses to move a route that other pieces share', () => {
    expect(
      run(
        ['key', 'destination'],
        [['A-1', 'https://saltmarsh.example/z']],
        worldOf([{ ...KNOWN, routeCodes: 4 }]),
      )[0]?.why[0],
    ).toContain('4 pieces share the route “Timetable”')
  })
  it('compares the lines of a file with each other, and refuses what comes twice', () => {
    const lines = run(NEW, [
      ['A', 'print', 'a', 'https://saltmarsh.example/', '', 'one', 'k'],
      ['B', 'print', 'a', 'https://saltmarsh.example/', '', 'one', 'k'],
      ['C', 'print', 'a', 'https://saltmarsh.example/', '', '', ''],
    ])
    expect(lines[1]?.why).toEqual([
      expect.stringContaining('“k” stands in an earlier line'),
      expect.stringContaining('ONE stands in an earlier line'),
    ])
    expect(lines[2]?.findings.map(({ kind }) => kind)).toContain('same-tags')
  })
  it('refuses another campaign’s lines, and media the house refuses', () => {
    expect(run(['key', 'campaign'], [['A-1', 'winter-26']])[0]?.why[0]).toContain(
      'this plan’s value is “summer-26”',
    )
    const rules = { ...DEFAULT_RULES, media: ['print'], offList: 'refuse' as const }
    expect(
      run(NEW, [['A', 'sky', 'a', 'https://saltmarsh.example/', '', '', '']], worldOf([], { rules }))[0]
        ?.why[0],
    ).toContain('not among the media')
  })
  it('makes the linter’s fixes on the way in, where that is wanted', () => {
    const row = ['A', 'Print', 'Local Paper', 'https://saltmarsh.example/?a=1&utm_source=web', '', '', '']
    const lines = [...dryRun([row], NEW, worldOf([]), { empty: 'leave', guarded: true, fix: true })]
    expect(lines[0]).toMatchObject({
      verdict: 'create',
      findings: [],
      action: {
        piece: { medium: 'print', source: 'local-paper' },
        route: { destination: 'https://saltmarsh.example/?a=1' },
      },
    })
    expect(run(NEW, [row])[0]?.findings).toHaveLength(4)
  })
  it('what was exported changes nothing', () => {
    const text = fc
      .string({ unit: fc.constantFrom('a', 'Z', '=', "'", ',', '"', 'ü', ' '), maxLength: 12 })
      .map((each) => each.trim())
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.record({
            name: text.filter((each) => each !== ''),
            source: text.filter((each) => each !== ''),
            content: text,
            place: text,
            key: fc.uuid(),
          }),
          { selector: ({ key }) => key, maxLength: 6 },
        ),
        (parts) => {
          const pieces = parts.map((part, i): KnownPiece => ({
            ...KNOWN,
            ...part,
            id: i + 1,
            slug: `LINK-${String(i)}`,
          }))
          const columns = fileColumns().filter(({ id }) => id !== 'coordinates')
          const file = writeTable(
            pieces.map((piece) =>
              columns.map((column) =>
                column.numeric ? column.write(piece) : escapeFormula(column.write(piece)),
              ),
            ),
          )
          const lines = run(
            columns.map(({ id }) => id),
            readTable(file, ',').rows.map((row) => [...row]),
            worldOf(pieces),
          )
          expect(lines.map(({ verdict, why }) => [verdict, why])).toEqual(pieces.map(() => ['same', []]))
        },
      ),
    )
  })
})

describe('names of files', () => {
  const fields = {
    name: 'Pier / west',
    place: '',
    size: 60,
    medium: 'print',
    source: 's',
    term: '',
    reference: '',
    key: '',
    route: '',
    campaign: '',
    link: 'PIER',
    n: '007',
  }
  it('keep to what every system takes, and stand once each', () => {
    const name = fileNamer('{n} {name}', 'svg')
    expect([name(fields), name(fields), name({ ...fields, name: 'PIER - WEST' })]).toEqual([
      '007 Pier - west.svg',
      '007 Pier - west-2.svg',
      '007 PIER - WEST-3.svg',
    ])
    expect(fileNamer('{name}', 'svg')({ ...fields, name: '../..' })).toBe('symbol.svg')
    expect(fileNamer('{name}', 'svg')({ ...fields, name: 'nul' })).toBe('nul-.svg')
  })
  it('say what is wrong with a pattern', () => {
    expect(
      [fileNameFault('{x}'), fileNameFault(''), fileNameFault('{n}'), fileNameFault('{n')].map(
        (fault) => fault === null,
      ),
    ).toEqual([false, false, true, false])
  })
})
