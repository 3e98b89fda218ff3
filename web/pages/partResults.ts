import {
  partName,
  PLAYED_MARKS,
  type PageContent,
  type PageEvent,
  type PageEventKind,
  type PageTally,
} from '@flimbo/core/pages'

/** One line of a page's results: what was done, and by how many of the scans that opened it. */
export interface ResultLine {
  readonly key: string
  /** The part, as the list of parts calls it. */
  readonly part: string
  readonly what: string
  readonly tally: PageTally
}

const WHAT: Readonly<Record<Exclude<PageEventKind, 'played' | 'stayed'>, string>> = {
  opened: 'Opened',
  link: 'Link followed',
  file: 'File taken',
  contact: 'Contact saved',
  event: 'Event added',
  shared: 'Shared',
  answered: 'Form sent',
}
/** What tells the links of a contact or place apart. */
const ITEMS: readonly (readonly [RegExp, string])[] = [
  [/^tel/, 'telephone'],
  [/^mail/, 'mail address'],
  [/^site/, 'website'],
  [/^geo|^web$/, 'map'],
]

/** What happened, in words. */
export function eventText({ kind, item }: Pick<PageEvent, 'kind' | 'item'>): string {
  if (kind === 'stayed') return `Seen for ${secondsText(Number(item))} or longer`
  if (kind === 'played') return item === '0' ? 'Begun to play' : `Played to ${item} %`
  if (kind === 'contact' && item === 'pass') return 'Contact saved as a wallet pass'
  const found = ITEMS.find(([pattern]) => pattern.test(item))?.[1]
  const name = WHAT[kind]
  return kind === 'link' && found !== undefined ? `${name}: ${found}` : name
}

const orderOf = ({ kind, item }: PageTally) =>
  kind === 'played' ? PLAYED_MARKS.findIndex((mark) => String(mark) === item) : -1

/** What was done at each part, in the order of the page; parts that are gone come last. */
export function partLines(content: PageContent, tallies: readonly PageTally[]): ResultLine[] {
  const placeOf = (id: string) => content.parts.findIndex((part) => part.id === id)
  return tallies
    .filter(({ part }) => part !== '')
    .map((tally) => ({ tally, place: placeOf(tally.part) }))
    .sort(
      (a, b) =>
        (a.place < 0 ? 1 : 0) - (b.place < 0 ? 1 : 0) ||
        a.place - b.place ||
        orderOf(a.tally) - orderOf(b.tally) ||
        b.tally.scans - a.tally.scans,
    )
    .map(({ tally }) => ({
      key: `${tally.kind} ${tally.part} ${tally.item}`,
      tally,
      part: partName(content, tally.part),
      what: eventText(tally),
    }))
}

/** How many scans looked at the page for so long, or longer, by the seconds. */
export const stayLines = (tallies: readonly PageTally[]): ResultLine[] =>
  tallies
    .filter(({ kind }) => kind === 'stayed')
    .sort((a, b) => Number(a.item) - Number(b.item))
    .map((tally) => ({
      key: `stayed ${tally.item}`,
      part: 'Page',
      what: eventText(tally),
      tally,
    }))

/** A time in the words people use: 15 s, 2 min. */
const secondsText = (seconds: number): string =>
  seconds < 60 ? `${String(seconds)} s` : `${String(seconds / 60)} min`
