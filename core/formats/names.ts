import { countryName, languageName } from '../conditions/index.ts'

/** A country by its code (ISO 3166-1), for people. */
export const country = (code: string): string => (code === '' ? 'Not known' : countryName(code))
/** Where somebody was, for people: the city with its country. */
export const cityAndCountry = (place: { readonly city: string; readonly country: string }): string =>
  [place.city, country(place.country)].filter(Boolean).join(', ')
/** A language by its tag (BCP 47), for people. */
export const language = (tag: string): string => (tag === '' ? 'Not named' : languageName(tag))
/** A text, or that it is not known. */
export const orUnknown = (text: string): string => (text === '' ? 'Not known' : text)
