import { PLAIN_LOOK } from '@flimbo/core/symbol'
import { describe, expect, it } from 'vitest'
import { DEFAULT_PIECE, type Code } from '@flimbo/core/codes'
import { readBlock, readCell, readText, textOfBlock } from './cells.ts'
import { gridColumns, USUAL_COLUMNS, type GridColumn } from './columns.tsx'

const COLUMNS = gridColumns(
  [{ name: 'region', label: 'Region', required: false }],
  'Europe/Berlin',
  'EUR',
  () => PLAIN_LOOK,
)
const column = (id: string): GridColumn => {
  const found = COLUMNS.find((each) => each.id === id)
  if (!found) throw new Error(`No column ${id}`)
  return found
}
const NAMED = {
  routes: new Map([
    ['timetable', 3],
    ['winter page', 4],
  ]),
  styles: [{ id: 8, name: 'Saltmarsh navy' }],
}
const PIECE: Code = {
  ...DEFAULT_PIECE,
  id: 1,
  campaignId: 1,
  routeId: 3,
  routeName: 'Timetable',
  styleName: '',
  placement: null,
  print: { state: 'draft', grade: null, sentence: '', release: null },
  routeVersion: 1,
  routeState: 'live',
  routeCodes: 2,
  name: 'Poster',
  domainId: 1,
  origin: 'https://go.saltmarsh.example',
  slug: 'POSTER',
  shortLink: 'https://go.saltmarsh.example/POSTER',
  oldLinks: [],
  destination: 'https://saltmarsh.example/a',
  finalAddress: 'https://saltmarsh.example/a?utm_source=s',
  clashes: [],
  medium: 'print',
  source: 's',
  campaign: 'summer-26',
  extra: { region: 'north' },
  state: 'live',
  archivedAt: null,
  version: 1,
  createdAt: 0,
  scans: { scans: 0, uniques: 0, lastAt: null },
  findings: [],
  channel: 'Offline print',
  check: null,
}
const read = (id: string, text: string) => readCell(PIECE, column(id), text, NAMED)

describe('what is typed into a cell', () => {
  it.each([
    ['source', 'pier-poster', { source: 'pier-poster' }],
    ['sizeMm', '6 cm', { sizeMm: 60 }],
    ['cost', '1.234,50 €', { cost: 1234.5 }],
    ['liveOn', '1.7.2026', { liveOn: '2026-07-01' }],
    ['coordinates', '53.7, 7.15', { latitude: 53.7, longitude: 7.15 }],
    ['coordinates', '', null],
    ['route', 'winter PAGE', { routeId: 4 }],
    ['slug', 'https://go.saltmarsh.example/new-one', { slug: 'NEW-ONE' }],
    ['style', 'saltmarsh NAVY', { styleId: 8 }],
    ['style', 'Plain', { styleId: null }],
    ['state', 'Paused', { state: 'paused' }],
    ['destination', 'https://saltmarsh.example/b', { destination: 'https://saltmarsh.example/b' }],
    ['extra.region', 'south', { extra: { region: 'south' } }],
  ])('%s: %j sets %j', (id, text, set) => {
    expect(read(id, text)).toEqual({ ok: true, set })
  })

  it('that stands there already changes nothing', () => {
    for (const each of COLUMNS) {
      if (each.plan)
        expect([each.id, readCell(PIECE, each, each.text(PIECE), NAMED)]).toEqual([
          each.id,
          { ok: true, set: null },
        ])
    }
  })

  it.each([
    ['name', '  ', 'Piece cannot be empty.'],
    ['medium', '', 'Medium cannot be empty.'],
    ['sizeMm', 'large', '“large” is no size.'],
    ['sizeMm', '1', 'Make the symbol at least 5 mm wide.'],
    ['route', 'Nowhere', 'There is no route “Nowhere” in this campaign. Make it on Routes first.'],
    ['state', 'deleted', 'Write live or paused.'],
    [
      'slug',
      'a b',
      'Use only the letters A to Z, digits and dashes, with no dash at either end: capitals and small letters are the same.',
    ],
    ['scans', '7', 'Scans is only shown and cannot be written.'],
    ['liveOn', '1/7/2026', 'In “1/7/2026” day and month cannot be told apart. Write the day as 3 Jul 2026.'],
  ])('%s: %j is answered with a sentence', (id, text, sentence) => {
    expect(read(id, text)).toEqual({ ok: false, sentence })
  })

  it('means the same for every piece where it is set for many', () => {
    expect(readText(column('place'), 'Pier', NAMED)).toEqual({ ok: true, set: { place: 'Pier' } })
    expect(readText(column('place'), '', NAMED)).toEqual({ ok: true, set: { place: '' } })
  })
})

describe('a block of cells', () => {
  const columns = ['name', 'content', 'extra.region'].map(column)
  const rows = [PIECE, { ...PIECE, id: 2, name: 'Leaflet' }]

  it('is one change a piece, and only where something differs', () => {
    const texts = [
      ['Poster', 'x', 'south'],
      ['Leaflet', '', 'north'],
    ]
    const { changes, unread } = readBlock(rows, columns, NAMED, (i, j) => texts[i]?.[j] ?? null)
    expect([changes, unread]).toEqual([[{ id: 1, set: { content: 'x', extra: { region: 'south' } } }], []])
  })

  it('says which cells could not be read, and reads the others', () => {
    const { changes, unread } = readBlock(rows, columns, NAMED, (_i, j) => ['', 'same', null][j] ?? null)
    expect(changes.map(({ set }) => set)).toEqual([{ content: 'same' }, { content: 'same' }])
    expect(unread).toEqual([
      'Poster, Piece: Piece cannot be empty.',
      'Leaflet, Piece: Piece cannot be empty.',
    ])
  })

  it('is copied as text', () => {
    expect(textOfBlock(rows, columns)).toBe('Poster\t\tnorth\r\nLeaflet\t\tnorth')
  })
})

describe('the columns of the grid', () => {
  it('hold everything a media plan says of a piece, each once', () => {
    const ids = COLUMNS.map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
    expect(ids).toEqual(
      expect.arrayContaining([
        'symbol',
        'name',
        'route',
        'medium',
        'source',
        'content',
        'term',
        'sizeMm',
        'viewingM',
        'place',
        'coordinates',
        'printRun',
        'cost',
        'liveOn',
        'downOn',
        'reference',
        'slug',
        'scans',
        'lastScan',
        'state',
      ]),
    )
  })

  it('that are usual are there and fit beside each other', () => {
    const usual = COLUMNS.filter(({ id }) => USUAL_COLUMNS.includes(id))
    expect(usual).toHaveLength(USUAL_COLUMNS.length)
    expect(usual.reduce((sum, { width }) => sum + width, 36)).toBeLessThanOrEqual(1246)
  })

  it('name the currency, and say what a piece lacks', () => {
    expect(column('cost').title).toBe('Cost EUR')
    expect([
      column('channel').text({ ...PIECE, channel: '' }),
      column('tags').text(PIECE),
      column('check').text(PIECE),
    ]).toEqual(['unassigned', 'nothing found', 'not checked yet'])
    expect(column('modules').text(PIECE)).toBe('29 / 29 / 25')
  })
})
