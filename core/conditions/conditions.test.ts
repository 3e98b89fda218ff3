import { localMoment } from '../time/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { condition as anyCondition, visit as anyVisit } from '../tests/arbitrary.ts'
import {
  casesOf,
  compileCondition,
  condition,
  conditionInWords,
  DEPTH_MAX,
  EVERY_SCAN,
  implies,
  languageName,
  inVersions,
  isImpossible,
  languagesIn,
  lookUp,
  plainVisit,
  whoInWords,
  type Check,
  type Condition,
  type ScannedCode,
  type Visit,
} from './index.ts'

const code: ScannedCode = {
  medium: 'print',
  source: 'pier-poster',
  content: 'east',
  label: 'Pier poster',
  place: { latitude: 53.7, longitude: 7.15 },
}
const holds = (of: Condition, visit: Visit, speaks = languagesIn([of])) =>
  compileCondition(of, speaks).holds(visit, code)
const from = (
  country: string,
  city = '',
  latitude: number | null = null,
  longitude: number | null = null,
): Visit => ({ ...plainVisit(0), place: { country, region: '', city, latitude, longitude } })
const on = (systemVersion: string, system = 'iOS'): Visit => ({
  ...plainVisit(0),
  device: { type: 'phone', system, systemVersion, browser: 'Safari' },
})

describe('lookup of a language', () => {
  // RFC 4647, section 3.4: the example of "zh-Hant-CN-x-private1-private2" and its fallbacks, in order.
  it.each([
    [['zh-Hant-CN-x-private1-private2'], 'zh-Hant-CN-x-private1-private2'],
    [['zh-Hant-CN-x-private1'], 'zh-Hant-CN-x-private1'],
    [['zh-Hant-CN'], 'zh-Hant-CN'],
    [['zh-Hant'], 'zh-Hant'],
    [['zh'], 'zh'],
    // "x" alone is never tried: a single letter goes with what followed it.
    [['zh-Hant-CN-x'], null],
  ])('finds, with %j to be had, %j', (available, found) => {
    expect(lookUp(['zh-Hant-CN-x-private1-private2'], available)).toBe(found)
  })

  // RFC 4647, section 3.4, on "de-CH-1996", "de-CH", "de" and on priority lists ("fr-FR, en").
  it.each([
    [['de-CH-1996'], ['de', 'en'], 'de'],
    [['fr-FR', 'en'], ['en', 'de'], 'en'],
    [['fr-FR', 'en'], ['fr', 'en'], 'fr'],
    [['de'], ['de-AT'], null],
    [['DE-at'], ['de-AT'], 'de-AT'],
    [[], ['de'], null],
  ])('leads readers of %j, with %j to be had, to %j', (ranges, available, found) => {
    expect(lookUp(ranges, available)).toBe(found)
  })

  it('gives each reader one language, so that a lane does not take who would sooner read another', () => {
    const german: Condition = { kind: 'language', in: ['de'] }
    const reader: Visit = { ...plainVisit(0), languages: ['en-GB', 'de'] }
    expect([holds(german, reader, ['de']), holds(german, reader, ['en', 'de'])]).toEqual([true, false])
  })
})

describe('versions', () => {
  it.each([
    ['17.6', '17', '', true],
    ['16.9', '17', '', false],
    ['17.6', '', '17', true],
    ['18', '', '17', false],
    ['17.5.1', '17.5', '17.5', true],
    ['17.10', '17.9', '', true],
    ['', '17', '', false],
    ['', '', '', true],
    ['10', '9.5', '10.2', true],
  ])('%j from %j up to %j: %s', (version, low, high, inside) => {
    expect(inVersions(version, low, high)).toBe(inside)
  })
})

describe('a condition', () => {
  const at = (iso: string): Visit => ({ ...plainVisit(Date.parse(iso)) })
  it.each<[Condition, Visit, boolean]>([
    [{ kind: 'country', in: ['DE', 'AT'] }, from('AT'), true],
    [{ kind: 'country', in: ['DE'] }, from(''), false],
    [{ kind: 'city', in: [{ country: 'DE', city: 'Bremen' }] }, from('US', 'Bremen'), false],
    [
      { kind: 'near', name: '', latitude: 53.0793, longitude: 8.8017, km: 60 },
      from('DE', 'Bremerhaven', 53.5396, 8.5809),
      true,
    ],
    [
      { kind: 'near', name: '', latitude: 53.0793, longitude: 8.8017, km: 50 },
      from('DE', 'Bremerhaven', 53.5396, 8.5809),
      false,
    ],
    [{ kind: 'near', name: '', latitude: 0, longitude: 0, km: 20_000 }, from('DE'), false],
    [{ kind: 'not', of: { kind: 'near', name: '', latitude: 0, longitude: 0, km: 1 } }, from('DE'), true],
    [
      { kind: 'near', name: '', latitude: 53.7, longitude: 7.15, km: 1 },
      { ...from('DE', 'Bremen', 53.07, 8.8), precise: { latitude: 53.7, longitude: 7.151 } },
      true,
    ],
    [
      { kind: 'distance', km: 2, beyond: false },
      { ...plainVisit(0), precise: { latitude: 53.7, longitude: 7.16 } },
      true,
    ],
    [
      { kind: 'distance', km: 2, beyond: true },
      { ...plainVisit(0), precise: { latitude: 53.8, longitude: 7.16 } },
      true,
    ],
    [{ kind: 'distance', km: 2, beyond: true }, plainVisit(0), false],
    [{ kind: 'system', is: 'iOS', from: '17', upTo: '' }, on('18.1'), true],
    [{ kind: 'system', is: 'iOS', from: '17', upTo: '' }, on('18.1', 'Android'), false],
    [
      { kind: 'window', from: '2026-07-01T08:00', upTo: '2026-07-01T09:00', zone: 'Europe/Berlin' },
      at('2026-07-01T06:00:00Z'),
      true,
    ],
    [
      { kind: 'window', from: '2026-07-01T08:00', upTo: '2026-07-01T09:00', zone: 'Europe/Berlin' },
      at('2026-07-01T07:00:00Z'),
      false,
    ],
    // Both sides of the change of clock the shop opens at 9 by its own wall clock.
    [
      { kind: 'hours', days: [6, 7], from: '09:00', upTo: '17:00', zone: 'Europe/Berlin' },
      at('2026-03-28T08:00:00Z'),
      true,
    ],
    [
      { kind: 'hours', days: [6, 7], from: '09:00', upTo: '17:00', zone: 'Europe/Berlin' },
      at('2026-03-29T07:00:00Z'),
      true,
    ],
    [
      { kind: 'hours', days: [6, 7], from: '09:00', upTo: '17:00', zone: 'Europe/Berlin' },
      at('2026-03-28T07:59:59Z'),
      false,
    ],
    [{ kind: 'visit', is: 'repeat' }, { ...plainVisit(0), repeat: true }, true],
    [{ kind: 'code', field: 'label', in: ['Pier poster'] }, plainVisit(0), true],
    [{ kind: 'query', name: 'ref', in: ['a'] }, { ...plainVisit(0), query: 'x=1&ref=b&ref=a' }, true],
    [{ kind: 'query', name: 'ref', in: [] }, { ...plainVisit(0), query: 'reference=1' }, false],
    [EVERY_SCAN, plainVisit(0), true],
    [{ kind: 'any', of: [] }, plainVisit(0), false],
  ])('%j of %j: %s', (of, visit, expected) => {
    expect(holds(of, visit)).toBe(expected)
  })

  it('explains itself with the same answer, every part of it noted', () => {
    fc.assert(
      fc.property(anyCondition, anyVisit, (of, visit) => {
        const test = compileCondition(of, languagesIn([of]))
        const notes: Check[] = []
        expect(test.explain(visit, code, notes)).toBe(test.holds(visit, code))
        expect(notes[0]).toMatchObject({ depth: 0, held: test.holds(visit, code) })
      }),
    )
  })

  it('is read back as it was written, and told in words whatever it is', () => {
    fc.assert(
      fc.property(anyCondition, (of) => {
        expect(condition.parse(JSON.parse(JSON.stringify(of)))).toEqual(of)
        expect(whoInWords(of)).toMatch(/^[A-Z]/)
      }),
    )
  })

  it.each<[Condition, string]>([
    [
      {
        kind: 'all',
        of: [
          { kind: 'device', in: ['phone'] },
          { kind: 'country', in: ['DE', 'AT'] },
          { kind: 'hours', days: [1, 2, 3, 4, 5], from: '00:00', upTo: '00:00', zone: 'Europe/Berlin' },
        ],
      },
      'Phones in Germany or Austria, on weekdays (Berlin time)',
    ],
    [
      {
        kind: 'not',
        of: {
          kind: 'any',
          of: [
            { kind: 'language', in: ['nl'] },
            { kind: 'country', in: ['NL'] },
          ],
        },
      },
      'Scans not (reading Dutch, or in Netherlands)',
    ],
    [{ kind: 'system', is: 'iOS', from: '17', upTo: '' }, 'Scans with iOS 17 or newer'],
    [{ kind: 'near', name: 'Bremen', latitude: 53, longitude: 8, km: 25 }, 'Scans within 25 km of Bremen'],
    [
      { kind: 'window', from: '', upTo: '2026-09-01T00:00', zone: 'Europe/Berlin' },
      'Scans until 1 Sep 2026, 00:00 (Berlin time)',
    ],
    [EVERY_SCAN, 'Every scan'],
  ])('%j reads “%s”', (of, sentence) => {
    expect(whoInWords(of)).toBe(sentence)
  })

  it('is refused where it is nested too deep, has too many parts, or names no real day', () => {
    const deep = Array.from({ length: DEPTH_MAX }).reduce<Condition>(
      (inner) => ({ kind: 'not', of: inner }),
      EVERY_SCAN,
    )
    const many: Condition = {
      kind: 'any',
      of: Array.from({ length: 60 }, () => ({ kind: 'visit' as const, is: 'first' as const })),
    }
    for (const of of [
      deep,
      many,
      { kind: 'country', in: [] },
      { kind: 'near', name: '', latitude: 91, longitude: 0, km: 1 },
    ])
      expect(condition.safeParse(of).success).toBe(false)
    for (const text of ['2026-02-30T10:00', '', 'soon', '2026-13-01T00:00'])
      expect(localMoment.safeParse(text).success).toBe(false)
  })
})

describe('what is certain of conditions', () => {
  it('implication: whatever meets the one meets the other', () => {
    fc.assert(
      fc.property(anyCondition, anyCondition, anyVisit, (b, a, visit) => {
        const speaks = languagesIn([a, b])
        if (implies(b, a) && holds(b, visit, speaks)) expect(holds(a, visit, speaks)).toBe(true)
      }),
      { numRuns: 3000 },
    )
  })
  it('impossibility: nothing meets it', () => {
    fc.assert(
      fc.property(anyCondition, anyVisit, (of, visit) => {
        if (isImpossible(of)) expect(holds(of, visit)).toBe(false)
      }),
      { numRuns: 3000 },
    )
  })
  it('cases: together they are the condition', () => {
    fc.assert(
      fc.property(anyCondition, anyVisit, (of, visit) => {
        const speaks = languagesIn([of])
        expect(casesOf(of).some((each) => holds(each, visit, speaks))).toBe(holds(of, visit, speaks))
      }),
      { numRuns: 1000 },
    )
  })
  it.each<[Condition, Condition]>([
    [
      { kind: 'city', in: [{ country: 'DE', city: 'Bremen' }] },
      { kind: 'country', in: ['DE', 'NL'] },
    ],
    [
      { kind: 'near', name: '', latitude: 53, longitude: 8, km: 10 },
      { kind: 'near', name: '', latitude: 53.05, longitude: 8, km: 20 },
    ],
    [
      {
        kind: 'all',
        of: [
          { kind: 'visit', is: 'first' },
          { kind: 'country', in: ['DE'] },
        ],
      },
      { kind: 'country', in: ['DE'] },
    ],
    [
      { kind: 'system', is: 'iOS', from: '17.5', upTo: '17.9' },
      { kind: 'system', is: 'iOS', from: '17', upTo: '17' },
    ],
    [
      { kind: 'hours', days: [1], from: '23:00', upTo: '01:00', zone: 'UTC' },
      { kind: 'hours', days: [1, 2], from: '22:00', upTo: '06:00', zone: 'UTC' },
    ],
  ])('%j implies %j, and not the other way round', (b, a) => {
    expect([implies(b, a), implies(a, b)]).toEqual([true, false])
  })
  it('knows what its words are made of', () => {
    expect(conditionInWords({ kind: 'any', of: [] })).toBe('no scan')
  })
})

describe('the name of a language', () => {
  it('is English, and any text that is no tag is itself', () => {
    expect(['de', 'de-AT', 'nope-', 'EN_'].map(languageName)).toEqual([
      'German',
      'Austrian German',
      'nope-',
      'EN_',
    ])
    fc.assert(
      fc.property(fc.string(), (typed) => {
        expect(languageName(typed).length).toBeGreaterThanOrEqual(Math.min(1, typed.length))
      }),
    )
  })
})
