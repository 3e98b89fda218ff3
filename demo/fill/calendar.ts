import { dayIn, shiftDay, startOfDay } from '@flimbo/core/time'
import type { Faker } from '@faker-js/faker'
import { CAMPAIGNS, type SampleCampaign, type SamplePiece, type SampleRoute } from '../scenario/pieces.ts'
import { UNUSUAL } from '../scenario/unusual.ts'
import { HOURS, seasonFactor, weekdayFactor } from '../scenario/season.ts'

export const ZONE = 'Europe/Berlin'
const MONTHS_DAYS = 426
const WEEK_DAYS = 7
const HOUR_MS = 3_600_000

/**
 * A day of a campaign's own calendar as it falls seen from today: whole weeks later, so that weekdays stay.
 *
 * @param today the day of that calendar that is today
 */
export function shiftToToday(day: string, today: string, now: number): string {
  const weeks = Math.round((Date.parse(dayIn(ZONE, now)) - Date.parse(today)) / (7 * 24 * HOUR_MS))
  return shiftDay(day, weeks * 7)
}

/** A scan that is to be: which piece, and when. */
export interface Planned {
  readonly at: number
  readonly slug: string
  /** Who scans it: somebody out of the crowd, unless it says otherwise. */
  readonly who: 'passers' | 'abroad' | 'program'
}

/** How good the weather of a day is for going out, from 0.65 to 1.3. */
function weather(faker: Faker): number {
  return faker.helpers.weightedArrayElement([
    { value: 0.65, weight: 2 },
    { value: 0.85, weight: 3 },
    { value: 1, weight: 5 },
    { value: 1.15, weight: 3 },
    { value: 1.3, weight: 1 },
  ])
}

/** What is scanned of a campaign's pieces before it begins, within it, and after it. */
function shareOutside(day: string, startsOn: string, endsOn: string): number {
  if (day > endsOn) return 0.12
  return day < startsOn ? 0.3 : 1
}

/** How many come when `mean` are expected (Poisson, by multiplying chances; Knuth). */
function comers(faker: Faker, mean: number): number {
  if (mean > 60)
    return Math.max(
      0,
      Math.round(
        mean +
          (faker.number.float() + faker.number.float() + faker.number.float() - 1.5) * 2 * Math.sqrt(mean),
      ),
    )
  const limit = Math.exp(-mean)
  let n = 0
  for (let chance = faker.number.float(); chance > limit; chance *= faker.number.float()) n++
  return n
}

const hours = HOURS.map((weight, value) => ({ value, weight }))

function expected(
  { season, startsOn, endsOn }: SampleCampaign,
  { leads }: SampleRoute,
  piece: SamplePiece,
  day: string,
): number {
  const out = day < (leads[0]?.since ?? day) ? 0 : 1
  const over = shareOutside(day, startsOn, endsOn)
  return (piece.weekly / 7) * seasonFactor(season, day) * weekdayFactor(day) * out * over
}

const daysAgo = (days: number, now: number) => startOfDay(ZONE, shiftDay(dayIn(ZONE, now), -days))
const isGone = (slug: string, at: number, now: number) =>
  slug === UNUSUAL.stopped.slug && at >= daysAgo(UNUSUAL.stopped.daysAgo, now)
const isGale = (utmCampaign: string, midnight: number, now: number) =>
  UNUSUAL.gale.utmCampaigns.some((each) => each === utmCampaign) &&
  midnight === daysAgo(UNUSUAL.gale.daysAgo, now)

/** Those that came beside all others in the last week. */
const crowds = (faker: Faker, now: number): Planned[] =>
  UNUSUAL.crowds.flatMap(({ slug, daysAgo: days, from, hours: length, scans, who }) =>
    Array.from({ length: scans }, () => ({
      ...{ slug, who },
      at: daysAgo(days, now) + from * HOUR_MS + faker.number.int(length * HOUR_MS - 1),
    })),
  )

/** Every scan of the last fourteen months, in order: seasons, weekdays, weather and hours. */
export function plannedScans(faker: Faker, now: number, scale: number): Planned[] {
  const scans: Planned[] = []
  // Whole weeks later, today may be some days after the calendar's own; nothing that is still to come is kept.
  for (let back = MONTHS_DAYS; back > -WEEK_DAYS; back--) {
    const outside = weather(faker)
    for (const campaign of CAMPAIGNS) {
      const written = shiftDay(campaign.today, -back)
      const midnight = startOfDay(ZONE, shiftToToday(written, campaign.today, now))
      for (const route of campaign.routes)
        for (const piece of route.pieces) {
          const gale = isGale(campaign.utmCampaign, midnight, now) ? UNUSUAL.gale.part : 1
          const n = comers(faker, expected(campaign, route, piece, written) * outside * gale * scale)
          for (let i = 0; i < n; i++) {
            const at =
              midnight + faker.helpers.weightedArrayElement(hours) * HOUR_MS + faker.number.int(HOUR_MS - 1)
            if (at < now && !isGone(piece.slug, at, now)) scans.push({ at, slug: piece.slug, who: 'passers' })
          }
        }
    }
  }
  return [...scans, ...crowds(faker, now)].sort((a, b) => a.at - b.at)
}
