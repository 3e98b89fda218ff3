import { PLAYED_MARKS, STAY_SECONDS, type PageContent, type PageTally, type Part } from '@flimbo/core/pages'
import { partTitle } from './editParts.ts'

/** One line of a page's results: what was done, and by how many of the scans that opened it. */
export interface ResultLine {
  readonly key: string
  /** The part, as the list of parts calls it. */
  readonly part: string
  readonly what: string
  readonly scans: number
}

const WHAT: Readonly<Record<string, string>> = {
  link: 'Link followed',
  file: 'File taken',
  contact: 'Contact saved',
  event: 'Event added',
  shared: 'Shared',
}
/** What tells the links of a contact or place apart. */
const ITEMS: readonly (readonly [RegExp, string])[] = [
  [/^tel/, 'telephone'],
  [/^mail/, 'mail address'],
  [/^site/, 'website'],
  [/^geo|^web$/, 'map'],
]

function whatOf({ kind, item }: PageTally): string {
  if (kind === 'played') return item === '0' ? 'Begun to play' : `Played to ${item} %`
  const found = ITEMS.find(([pattern]) => pattern.test(item))?.[1]
  const name = WHAT[kind] ?? kind
  return kind === 'link' && found !== undefined ? `${name}: ${found}` : name
}

const orderOf = ({ kind, item }: PageTally) =>
  kind === 'played' ? PLAYED_MARKS.findIndex((mark) => String(mark) === item) : -1

/** What was done at each part, in the order of the page; parts that are gone come last. */
export function partLines(content: PageContent, tallies: readonly PageTally[]): ResultLine[] {
  const language = content.languages[0] ?? 'en'
  const placeOf = (id: string) => content.parts.findIndex((part) => part.id === id)
  const nameOf = (part: Part | undefined) => {
    if (!part) return 'A part that was removed'
    const { kind, words } = partTitle(part, language, content.languages)
    return words === '' ? kind : `${kind}: ${words}`
  }
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
    .map(({ tally, place }) => ({
      key: `${tally.kind} ${tally.part} ${tally.item}`,
      part: nameOf(content.parts[place]),
      what: whatOf(tally),
      scans: tally.scans,
    }))
}

/** How many scans looked at the page for so long, or longer, by the seconds. */
export function stayLines(tallies: readonly PageTally[]): { seconds: number; scans: number }[] {
  return STAY_SECONDS.map((seconds) => ({
    seconds,
    scans: tallies.find(({ kind, item }) => kind === 'stayed' && item === String(seconds))?.scans ?? 0,
  })).filter(({ scans }) => scans > 0)
}

/** A time in the words people use: 15 s, 2 min. */
export const secondsText = (seconds: number): string =>
  seconds < 60 ? `${String(seconds)} s` : `${String(seconds / 60)} min`
