import { dayIn } from '@flimbo/core/time'
import { en, Faker } from '@faker-js/faker'
import { describe, expect, it } from 'vitest'
import { newCampaign } from '@flimbo/core/campaigns'
import { newCode } from '@flimbo/core/codes'
import { deviceOf, preferredLanguage, programKind } from '@flimbo/core/scans'
import { randomPasser, program } from '../crowd/people.ts'
import { CAMPAIGNS } from '../scenario/pieces.ts'
import { plannedScans, shiftToToday, ZONE } from './calendar.ts'

const NOW = Date.parse('2026-07-20T12:00:00Z')
const people = (seed: number) => new Faker({ locale: en, seed })
const pieces = CAMPAIGNS.flatMap(({ routes }) => routes.flatMap((route) => route.pieces))

describe('the sample scenario', () => {
  it('has at least 4 campaigns and 30 codes that the contract takes, each short link once', () => {
    expect(CAMPAIGNS.length).toBeGreaterThanOrEqual(4)
    expect(pieces.length).toBeGreaterThanOrEqual(30)
    expect(new Set(pieces.map(({ slug }) => slug)).size).toBe(pieces.length)
    for (const { name, utmCampaign, startsOn, endsOn } of CAMPAIGNS)
      expect(newCampaign.safeParse({ name, utmCampaign, startsOn, endsOn, zone: ZONE }).success).toBe(true)
    for (const { weekly: _weekly, state: _state, ...piece } of pieces)
      expect(newCode.safeParse({ campaignId: 1, routeId: 1, ...piece }).error).toBeUndefined()
  })
  it('leads to invented sites only (RFC 2606)', () => {
    for (const { routes } of CAMPAIGNS)
      for (const { leads } of routes)
        for (const { to } of leads) expect(new URL(to).hostname).toMatch(/\.example$/)
  })
})

describe('the planned scans', () => {
  const scans = plannedScans(people(1), NOW, 0.3)
  const shareIn = (from: string, to: string) =>
    scans.filter(({ at }) => dayIn(ZONE, at) >= from && dayIn(ZONE, at) <= to).length / scans.length
  it('cover fourteen months, in order, and none lies ahead', () => {
    expect(scans.every(({ at }, i) => at < NOW && at >= (scans[i - 1]?.at ?? 0))).toBe(true)
    expect(NOW - (scans[0]?.at ?? NOW)).toBeGreaterThan(400 * 86_400_000)
  })
  it('follow the season, the week and the hour', () => {
    // The summer's pieces bring most; today they are in full season.
    expect(shareIn('2026-06-20', '2026-07-20')).toBeGreaterThan(3 * shareIn('2026-01-01', '2026-01-31'))
    const perDay = [0, 0, 0, 0, 0, 0, 0]
    const perHour = Array.from({ length: 24 }, () => 0)
    for (const { at } of scans) {
      const local = new Date(at + 3_600_000)
      perDay[local.getUTCDay()] = (perDay[local.getUTCDay()] ?? 0) + 1
      perHour[local.getUTCHours()] = (perHour[local.getUTCHours()] ?? 0) + 1
    }
    expect(perDay[6]).toBeGreaterThan((perDay[2] ?? 0) * 1.4)
    expect(perHour[11]).toBeGreaterThan((perHour[3] ?? 0) * 5)
  })
  it('are the same for the same seed', () => {
    expect(plannedScans(people(7), NOW, 0.05)).toEqual(plannedScans(people(7), NOW, 0.05))
  })
  it('move with the calendar by whole weeks, so that weekdays stay', () => {
    expect(shiftToToday('2026-08-22', '2026-07-20', NOW)).toBe('2026-08-22')
    expect(shiftToToday('2026-08-22', '2026-07-20', NOW + 10 * 86_400_000)).toBe('2026-08-29')
  })
  it('find a campaign in full season, one that ends this week, one that has just begun, and one that is over', () => {
    const inDays = (utm: string, edge: 'startsOn' | 'endsOn') => {
      const campaign = CAMPAIGNS.find(({ utmCampaign }) => utmCampaign === utm)
      if (!campaign) throw new Error(`No campaign ${utm}`)
      return (
        (Date.parse(shiftToToday(campaign[edge], campaign.today, NOW)) - Date.parse(dayIn(ZONE, NOW))) /
        86_400_000
      )
    }
    expect([inDays('summer-26', 'startsOn'), inDays('summer-26', 'endsOn')].map(Math.sign)).toEqual([-1, 1])
    expect(inDays('seals-26', 'endsOn')).toBeGreaterThanOrEqual(0)
    expect(inDays('seals-26', 'endsOn')).toBeLessThanOrEqual(7)
    expect(Math.abs(inDays('winter-26', 'startsOn'))).toBeLessThanOrEqual(7)
    expect(inDays('festival-26', 'endsOn')).toBeLessThan(0)
  })
})

describe('the crowd', () => {
  it('is made of people the parser knows, in the sample’s languages', () => {
    const faker = people(3)
    const crowd = Array.from({ length: 400 }, () => randomPasser(faker))
    expect(
      crowd.every(({ userAgent }) => programKind(userAgent) === null && deviceOf(userAgent).system !== ''),
    ).toBe(true)
    expect([...new Set(crowd.map(({ acceptLanguage }) => preferredLanguage(acceptLanguage)))].sort()).toEqual(
      ['da-DK', 'de-DE', 'en-GB', 'nl-NL'],
    )
    expect(new Set(crowd.map(({ address }) => address)).size).toBeGreaterThan(300)
  })
  it('and of programs that are told apart', () => {
    const faker = people(4)
    for (let i = 0; i < 20; i++) expect(programKind(program(faker).userAgent)).not.toBeNull()
  })
})
