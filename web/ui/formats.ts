import { countryName, languageName } from '@flimbo/core/conditions'

export const country = (code: string): string => (code === '' ? 'Not known' : countryName(code))
export const language = (tag: string): string => (tag === '' ? 'Not named' : languageName(tag))
export const orUnknown = (text: string): string => (text === '' ? 'Not known' : text)
