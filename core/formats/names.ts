import { countryName, languageName } from '../conditions/index.ts'

/** A country by its code (ISO 3166-1), for people. */
export const country = (code: string): string => (code === '' ? 'Not known' : countryName(code))
/** A language by its tag (BCP 47), for people. */
export const language = (tag: string): string => (tag === '' ? 'Not named' : languageName(tag))
/** A text, or that it is not known. */
export const orUnknown = (text: string): string => (text === '' ? 'Not known' : text)
