import { describe, expect, it } from 'vitest'
import { fieldFaults } from '../api/index.ts'
import { codeChange, codeFilter, codesApi, newCode, symbolFileName, DEFAULT_PIECE } from './index.ts'

const PIECE = {
  campaignId: 1,
  name: 'Poster',
  medium: 'print',
  source: 'poster',
  destination: 'https://saltmarsh.example/a',
}
const faultsOf = (more: object) => {
  const read = newCode.safeParse({ ...PIECE, ...more })
  return read.success ? [] : fieldFaults(read.error).map(({ path, message }) => `${path}: ${message}`)
}

describe('a new piece', () => {
  it('needs a name, a medium, a source and a way, and gets the rest', () => {
    expect(newCode.parse(PIECE)).toEqual({ ...PIECE, ...DEFAULT_PIECE })
    expect(faultsOf({ name: ' ', medium: '', source: '' })).toEqual([
      'name: Give a name.',
      'medium: Give a medium, such as print.',
      'source: Give a source, such as pier-poster.',
    ])
  })

  it('leads by its own address or by a route, never by both or none', () => {
    expect(faultsOf({ routeId: 3 })).toEqual([
      expect.stringContaining('destination: Give either the address'),
    ])
    expect(faultsOf({ destination: undefined })).toEqual([
      expect.stringContaining('destination: Give either the address'),
    ])
    expect(faultsOf({ destination: undefined, routeId: 3 })).toEqual([])
  })

  it.each([
    [{ sizeMm: 4 }, 'sizeMm: Make the symbol at least 5 mm wide.'],
    [{ sizeMm: 5001 }, 'sizeMm: Make the symbol no wider than 5 m.'],
    [{ viewingM: 0 }, 'viewingM: Give a distance above 0 m.'],
    [{ latitude: 91, longitude: 0 }, 'latitude: A latitude lies between −90 and 90 degrees.'],
    [{ latitude: 53 }, 'longitude: Give latitude and longitude together, or neither.'],
    [{ longitude: 7 }, 'latitude: Give latitude and longitude together, or neither.'],
    [{ printRun: 1.5 }, 'printRun: Give the print run as a whole number.'],
    [{ printRun: -1 }, 'printRun: A print run cannot be below 0.'],
    [{ cost: -0.01 }, 'cost: A cost cannot be below 0.'],
    [{ liveOn: '2026-02-30' }, 'liveOn: Write the day as 2026-07-01.'],
    [
      { liveOn: '2026-07-02', downOn: '2026-07-01' },
      'downOn: The piece would be taken down before it goes live.',
    ],
    [{ level: 'X' }, 'level: Choose one of the levels L, M, Q and H.'],
    [{ slug: 'api' }, 'slug: This short link is kept for Flimbo itself. Choose another.'],
    [{ content: 'two\nlines' }, 'content: Take line breaks and control characters out of the content.'],
  ])('refuses %j with a sentence', (more, sentence) => {
    expect(faultsOf(more)).toEqual([sentence])
  })

  it.each([
    { liveOn: '2026-07-01', downOn: '2026-07-01' },
    { latitude: 0, longitude: 0 },
    { printRun: 0, cost: 0 },
    { sizeMm: 5 },
    { sizeMm: 5000 },
  ])('takes %j', (more) => {
    expect(faultsOf(more)).toEqual([])
  })
})

describe('a change of a piece', () => {
  it('names a version and what is different, and nothing nobody knows', () => {
    expect(codeChange.parse({ version: 3, source: ' x ' })).toEqual({ version: 3, source: 'x' })
    expect(codeChange.safeParse({ source: 'x' }).success).toBe(false)
    expect(codeChange.safeParse({ version: 1, colour: 'red' }).success).toBe(false)
  })

  it('may not empty what a piece must have', () => {
    expect(codeChange.safeParse({ version: 1, medium: '' }).success).toBe(false)
    expect(codeChange.safeParse({ version: 1, content: '' }).success).toBe(true)
  })

  it('may come many at once, or for all that match', () => {
    const { body } = codesApi.changeMany
    expect(body?.safeParse({ changes: [{ id: 1, set: { place: 'Pier' } }] }).success).toBe(true)
    expect(body?.safeParse({ changes: [] }).success).toBe(false)
    expect(body?.safeParse({ matching: { campaignId: 1 }, set: { archived: true } }).success).toBe(true)
    expect(
      body?.safeParse({ matching: { campaignId: 1 }, fix: { kind: 'spaces', field: 'source' } }).success,
    ).toBe(true)
    expect(
      body?.safeParse({ matching: { campaignId: 1 }, fix: { kind: 'colour', field: 'source' } }).success,
    ).toBe(false)
  })
})

describe('which pieces are meant', () => {
  it('are those in the plan, where nothing else is said', () => {
    expect(codeFilter.parse({ campaignId: '7' })).toEqual({ campaignId: 7, shown: 'current' })
  })

  it.each([
    { shown: 'hidden' },
    { campaignId: 0 },
    { finding: 'colour' },
    { state: 'gone' },
    { search: 'x'.repeat(201) },
  ])('refuses %j', (filter) => {
    expect(codeFilter.safeParse(filter).success).toBe(false)
  })
})

describe('the name of a symbol’s file', () => {
  it.each([
    ['Pier poster, west gate', 'PIER', 'pier-poster-west-gate-PIER.svg'],
    ['Größe «42»', 'G42', 'gro-e-42-G42.svg'],
    ['漢字', 'KANJI', 'KANJI.svg'],
    ['../../etc', 'X-1', 'etc-X-1.svg'],
  ])('of %s', (name, slug, file) => {
    expect(symbolFileName({ name, slug }, 'svg')).toBe(file)
  })
})
