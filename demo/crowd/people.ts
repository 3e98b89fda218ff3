import type { Faker } from '@faker-js/faker'
import {
  addressIn,
  STANDIN_DEVICES,
  STANDIN_LANGUAGES,
  STANDIN_PLACES,
  type StandInPlace,
} from '@flimbo/server/standins'

/** Somebody with a phone, somewhere. */
export interface Passer {
  readonly address: string
  readonly userAgent: string
  readonly acceptLanguage: string
}

/** Where the sample company's guests come from, in parts: the near coast first. */
const NEAR = new Set([
  'Bremen',
  'Bremerhaven',
  'Hamburg',
  'Oldenburg',
  'Emden',
  'Wilhelmshaven',
  'Cuxhaven',
  'Norden',
  'Aurich',
  'Leer',
  'Groningen',
  'Leeuwarden',
  'Esbjerg',
])
const COUNTRIES: Readonly<Record<string, number>> = { DE: 12, NL: 4, DK: 3, GB: 1.5 }

const places = STANDIN_PLACES.map((value) => ({
  value,
  weight: (COUNTRIES[value.country] ?? 1) * (NEAR.has(value.city) ? 5 : 1),
}))
const devices = STANDIN_DEVICES.filter(({ weight }) => weight > 0).map((value) => ({
  value,
  weight: value.weight,
}))

/** What programs send that look at links without being anybody. */
const PROGRAMS = [
  'Mozilla/5.0 (compatible; ChatLinkPreviewBot/1.0)',
  'Mozilla/5.0 (compatible; ExampleCrawler/2.1; +https://crawler.example/bot)',
  'curl/8.5.0',
] as const

const OWN: Readonly<Record<string, string>> = { DE: 'de', NL: 'nl', DK: 'da', GB: 'en' }

function languageOf(faker: Faker, { country }: StandInPlace): string {
  const id =
    faker.number.float() < 0.88 ? (OWN[country] ?? 'en') : faker.helpers.arrayElement(STANDIN_LANGUAGES).id
  return STANDIN_LANGUAGES.find((each) => each.id === id)?.header ?? ''
}

/** Somebody out of the crowd, by chance but always the same for the same seed. */
export function randomPasser(faker: Faker): Passer {
  const place = faker.helpers.weightedArrayElement(places)
  return {
    address: addressIn(place, faker.number.int(1000), faker.number.int(1000)),
    userAgent: faker.helpers.weightedArrayElement(devices).userAgent,
    acceptLanguage: languageOf(faker, place),
  }
}

/** A program that follows links; about one request in thirty is one. */
export function program(faker: Faker): Passer {
  return { ...randomPasser(faker), userAgent: faker.helpers.arrayElement(PROGRAMS), acceptLanguage: '' }
}
/** One that goes through pages, by its own account. */
export function crawler(faker: Faker): Passer {
  return { ...program(faker), userAgent: PROGRAMS[1] }
}
export const PROGRAM_SHARE = 0.033
