import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DIMENSION_NAMES } from '../dimensions/index.ts'
import {
  AGAINST,
  againstName,
  daysOf,
  DEFAULT_VIEW,
  isOfOther,
  MEASURE_NAMES,
  PRESETS,
  readView,
  viewAgainst,
  writeView,
  type Preset,
  type QuestionView,
} from './index.ts'

const presets = PRESETS.map(({ id }) => id)
const view: fc.Arbitrary<QuestionView> = fc
  .record({
    what: fc.constantFrom(...MEASURE_NAMES),
    by: fc.uniqueArray(fc.constantFrom(...DIMENSION_NAMES), { maxLength: 2 }),
    filters: fc.dictionary(
      fc.constantFrom(...DIMENSION_NAMES),
      fc.uniqueArray(fc.string({ unit: 'grapheme', maxLength: 12 }), {
        minLength: 1,
        maxLength: 4,
      }),
      { maxKeys: 3, noNullPrototype: true },
    ),
    period: fc.oneof(
      fc.record({ preset: fc.constantFrom(...presets) }),
      fc.constant({ from: '2026-07-01', to: '2026-07-31' }),
    ),
    against: fc.constantFrom(...AGAINST),
    otherCampaignId: fc.option(fc.integer({ min: 1, max: 99 })),
  })
  .map((asked) => ({ ...asked, otherCampaignId: isOfOther(asked.against) ? asked.otherCampaignId : null }))

describe('a question in an address', () => {
  it('is read as it was written, whatever it is, and leaves alone what else stands there', () => {
    fc.assert(
      fc.property(view, (asked) => {
        const address = writeView(new URLSearchParams('route=3&what=leads&in.city=old'), asked)
        const sent = new URLSearchParams(address.toString())
        expect(readView(sent)).toEqual(asked)
        expect(sent.get('route')).toBe('3')
      }),
    )
  })

  it('is the usual one where nothing is said, and what is said wrongly counts for nothing', () => {
    expect(readView(new URLSearchParams())).toEqual(DEFAULT_VIEW)
    expect(
      readView(
        new URLSearchParams(
          'what=shoes&by=day,day,shoe,city,medium&from=2026-07-02&to=2026-07-01&days=9&against=x&in.shoe=1',
        ),
      ),
    ).toEqual({ ...DEFAULT_VIEW, by: ['day', 'city'] })
    expect(writeView(new URLSearchParams(), DEFAULT_VIEW).toString()).toBe('')
  })
})

describe('a period', () => {
  const on = (preset: Preset, now: string) => {
    const { from, to } = daysOf({ preset }, 'Europe/Berlin', Date.parse(now))
    return `${from} ${to}`
  }
  it('goes with the day of the zone', () => {
    // Just after midnight in Berlin, on the day before in UTC.
    const now = '2026-02-28T23:30:00Z'
    expect(on('today', now)).toBe('2026-03-01 2026-03-01')
    expect(on('yesterday', now)).toBe('2026-02-28 2026-02-28')
    expect(on('7', now)).toBe('2026-02-23 2026-03-01')
    expect(on('month', now)).toBe('2026-03-01 2026-03-01')
    expect(on('last-month', now)).toBe('2026-02-01 2026-02-28')
    expect(on('last-month', '2028-03-31T12:00:00Z')).toBe('2028-02-01 2028-02-29')
    expect(on('year', now)).toBe('2026-01-01 2026-03-01')
    expect(on('last-year', now)).toBe('2025-01-01 2025-12-31')
  })
})

describe('what a question is held against', () => {
  const days = { from: '2026-07-01', to: '2026-07-31' }
  it('is called by the name of the campaign, or else by when it was', () => {
    expect(againstName('campaignFromStart', { ...days, campaign: 'Seal watching' })).toBe('Seal watching')
    expect(againstName('year', { ...days, campaign: null })).toBe('year before')
    expect(againstName('before', { ...days, campaign: null })).toBe('days before')
    expect(againstName('none', null)).toBeNull()
  })
  it('is nothing while the other campaign is not chosen, is the same one, or none can be', () => {
    const asked = { against: 'campaign', otherCampaignId: 2 } as const
    expect(viewAgainst(asked, 1)).toEqual(asked)
    for (const [view, campaignId] of [
      [asked, 2],
      [asked, undefined],
      [{ ...asked, otherCampaignId: null }, 1],
    ] as const)
      expect(viewAgainst(view, campaignId)).toEqual({ against: 'none' })
    expect(viewAgainst({ against: 'year', otherCampaignId: null }, undefined)).toEqual({ against: 'year' })
  })
})
