export { OWN_PAGES } from './words.ts'
export type { OwnPage, PageWords, Words } from './words.ts'
export { fill, isRightToLeft, LANGUAGES, secondsIn, wordsFor } from './wordsFor.ts'
export type { Language, Spoken } from './wordsFor.ts'
