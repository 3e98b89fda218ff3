import { dayForward } from '../time/index.ts'
import { describe, expect, it } from 'vitest'
import { nextYear, yearForward } from './index.ts'

describe('carrying a campaign into the next year', () => {
  it.each([
    ['summer-26', 'summer-27'],
    ['Summer 2026', 'Summer 2027'],
    ['winter 2026/27', 'winter 2027/28'],
    ['x99-26', 'x99-27'],
    ['route-66', null],
    ['always', null],
    ['1-26-1226', '1-27-1226'],
  ])('%s becomes %j', (text, next) => {
    expect(yearForward(text, 2026)).toBe(next)
  })
  it('turns the century', () => {
    expect(yearForward('fair-99', 2099)).toBe('fair-00')
  })
  it.each([
    ['2026-07-01', '2027-07-01'],
    ['2028-02-29', '2029-02-28'],
    ['2027-02-28', '2028-02-28'],
  ])('%s is %s', (day, next) => {
    expect(dayForward(day)).toBe(next)
  })
  it('adds a year where there is none, counted from its first day', () => {
    expect(
      nextYear({ name: 'Seals', utmCampaign: 'seals', startsOn: '2025-05-15', endsOn: null }, 2026),
    ).toEqual({ name: 'Seals 2026', utmCampaign: 'seals-26', startsOn: '2026-05-15', endsOn: null })
    expect(
      nextYear({ name: 'Seals 2026', utmCampaign: 'seals-26', startsOn: null, endsOn: null }, 2026),
    ).toMatchObject({ name: 'Seals 2027', utmCampaign: 'seals-27' })
  })
})
