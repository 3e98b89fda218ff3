import { z } from 'zod'
import { reviewForm } from '../forms/index.ts'
import { zoneName } from '../time/index.ts'
import {
  file,
  words,
  type Field,
  type Fields,
  type GeoPoint,
  firstSaid,
  isAsked,
  languageTag,
  LANGUAGES_MAX,
  type Localised,
} from '../fields/index.ts'
import { newPart, part, PART_FIELDS, PART_NAMES, type Part, type PartOf } from './parts.ts'

export const PARTS_MAX = 100

/** What a page says of itself: in the title of a window, and where its link is previewed. */
export const PAGE_FIELDS = {
  title: words('Title', 80, {
    wanted: 'Give the page a title.',
    help: 'Shown by browsers and link previews.',
  }),
  description: words('Description', 200, { help: 'Shown by link previews.' }),
  picture: file('Picture for link previews', 'picture'),
} as const satisfies Fields

/** Everything a page shows, in all of its languages. */
export const pageContent = z
  .strictObject({
    /** The page's own language first; others fall back to it. */
    languages: z
      .array(languageTag)
      .min(1, 'Give the language of the page.')
      .max(LANGUAGES_MAX, `A page has at most ${String(LANGUAGES_MAX)} languages.`)
      .refine((all) => new Set(all).size === all.length, 'A language is named twice.'),
    /** The zone of its opening hours, events and countdowns. */
    zone: zoneName,
    title: PAGE_FIELDS.title.schema,
    description: PAGE_FIELDS.description.schema,
    picture: PAGE_FIELDS.picture.schema,
    /** Whether phones are sent on to the one file it shows, where that is none to be played. */
    isFileItself: z.boolean(),
    /** How it looks; null for the style of its client or workspace. */
    styleId: z.int().nullable(),
    parts: z
      .array(part)
      .max(PARTS_MAX, `A page has at most ${String(PARTS_MAX)} parts.`)
      .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two parts have the same key.'),
  })
  .refine(
    (content) => JSON.stringify(content).length <= CONTENT_SIGNS_MAX,
    'The page is too long. Split it into several pages.',
  )
const CONTENT_SIGNS_MAX = 400_000
export type PageContent = z.infer<typeof pageContent>

/** A page with nothing on it. */
export const emptyContent = (language: string, zone: string): PageContent => ({
  languages: [language],
  zone,
  title: {},
  description: {},
  picture: {},
  isFileItself: false,
  styleId: null,
  parts: [],
})

/** A value of a field that is somewhere on a page. */
export interface Placed {
  /** The part; empty for what the page says of itself. */
  readonly partId: string
  /** Where in the part: `text`, `items.0.answer`. */
  readonly path: string
  readonly field: Field
  readonly value: unknown
}

type KindRow = Readonly<Record<string, unknown>> & { readonly kind: string }

function* fieldsIn(
  fields: Fields,
  values: Readonly<Record<string, unknown>>,
  partId: string,
  before: string,
): Generator<Placed> {
  for (const [name, field] of Object.entries(fields as Readonly<Record<string, Field>>)) {
    if (!isAsked(field, values)) continue
    const path = `${before}${name}`
    const value = values[name]
    yield { partId, path, field, value }
    if (field.type === 'kinds')
      for (const [i, row] of (value as readonly KindRow[]).entries())
        yield* fieldsIn(field.kinds[row.kind] ?? {}, row, partId, `${path}.${String(i)}.`)
    if (field.type === 'list')
      for (const [i, row] of (value as readonly Readonly<Record<string, unknown>>[]).entries())
        yield* fieldsIn(field.of, row, partId, `${path}.${String(i)}.`)
  }
}

/** Every field of a part with what it holds, those in its lists too. */
export const fieldsOfPart = (given: Part): Placed[] => [
  ...fieldsIn(PART_FIELDS[given.kind], given as unknown as Record<string, unknown>, given.id, ''),
]

/** Every field of a page: its own, and then those of its parts in their order. */
export function fieldsOfPage(content: PageContent): Placed[] {
  return [...fieldsIn(PAGE_FIELDS, content, '', ''), ...content.parts.flatMap(fieldsOfPart)]
}

/** Whether each language has its own of a field. */
const isLocal = (field: Field): field is Extract<Field, { type: 'words' | 'rich' | 'file' }> =>
  field.type === 'words' || field.type === 'rich' || field.type === 'file'

/** What keeps a page from being published. */
export interface PageFault {
  readonly partId: string
  readonly path: string
  readonly sentence: string
}

/** A part as it is called: by its kind, and the place it has. */
const nameOf = (content: PageContent, partId: string) => {
  const at = content.parts.findIndex(({ id }) => id === partId)
  const found = content.parts[at]
  return found ? `${PART_NAMES[found.kind]}, part ${String(at + 1)}` : 'The page'
}

/** A fault with the part it is in, for lists. */
export const faultInWords = (content: PageContent, { partId, sentence }: PageFault): string =>
  `${nameOf(content, partId)}: ${sentence}`

/** What keeps a page from being published, in its order; nothing of hidden parts. Empty where nothing does. */
export function pageFaults(content: PageContent): PageFault[] {
  const hidden = new Set(content.parts.flatMap(({ id, isHidden }) => (isHidden ? [id] : [])))
  const faults: PageFault[] = fieldsOfPage(content)
    .filter(({ partId }) => !hidden.has(partId))
    .flatMap(({ partId, path, field, value }) => {
      const sentence = faultOf(field, value, content.languages)
      return sentence === null ? [] : [{ partId, path, sentence }]
    })
  for (const each of content.parts)
    if (!each.isHidden)
      faults.push(...moreFaults(each, content.languages).map((found) => ({ partId: each.id, ...found })))
  return faults
}

function faultOf(field: Field, value: unknown, languages: readonly string[]): string | null {
  if (!isLocal(field)) return (field.fault as (given: unknown) => string | null)(value)
  if (field.wanted === null) return null
  const isEmpty = field.isEmpty as (each: unknown) => boolean
  return firstSaid(value as Localised<unknown>, languages, isEmpty) === null ? field.wanted : null
}

type Found = Omit<PageFault, 'partId'>

/** What is wrong between the fields of a part. */
function moreFaults(given: Part, languages: readonly string[]): Found[] {
  if (given.kind === 'picture') return pictureFaults(given, languages)
  if (given.kind === 'contact') return contactFaults(given)
  if (given.kind === 'event' && given.from !== '' && given.upTo !== '') return eventFaults(given)
  if (given.kind === 'form') return formFaults(given)
  if (given.kind === 'appSwitch') {
    const named = given.systems.map(({ system }) => system)
    return new Set(named).size === named.length
      ? []
      : [{ path: 'systems', sentence: 'A system is named twice.' }]
  }
  return []
}

function pictureFaults({ alt, isDecoration }: PartOf<'picture'>, languages: readonly string[]): Found[] {
  const isSaid = firstSaid(alt, languages, (each) => each.trim() === '') !== null
  return isSaid || isDecoration
    ? []
    : [
        {
          path: 'alt',
          sentence: 'Say what the picture shows, or that it is only decoration.',
        },
      ]
}

/** What is wrong between the questions of a form, and between its dates. */
function formFaults(form: PartOf<'form'>): Found[] {
  const { questions, opens, closes, after, thanksAddress, thanksPage, mails, confirms } = form
  const at = new Map(questions.map(({ id }, i) => [id, i]))
  const faults = reviewForm(questions).map(({ id, path, sentence }) => ({
    path: `questions.${String(at.get(id) ?? 0)}.${path}`,
    sentence,
  }))
  if (opens !== '' && closes !== '' && closes <= opens)
    faults.push({ path: 'closes', sentence: 'It closes before it opens: change one of them.' })
  if (after === 'address' && thanksAddress.trim() === '')
    faults.push({ path: 'thanksAddress', sentence: 'Give the address that follows, or let words follow.' })
  if (after === 'page' && thanksPage === null)
    faults.push({ path: 'thanksPage', sentence: 'Choose the page that follows, or let words follow.' })
  if ((mails || confirms) && !questions.some(({ kind }) => kind === 'mail'))
    faults.push({
      path: 'questions',
      sentence: 'Ask for a mail address, or send no mail: there is nowhere to send it.',
    })
  return faults
}

function contactFaults({ given, family, organisation }: PartOf<'contact'>): Found[] {
  return [given, family, organisation].some((each) => each.trim() !== '')
    ? []
    : [{ path: 'family', sentence: 'Give a name, or an organisation: phones file contacts by it.' }]
}

function eventFaults({ from, upTo, isWholeDay }: PartOf<'event'>): Found[] {
  const isBefore = isWholeDay ? upTo.slice(0, 10) < from.slice(0, 10) : upTo <= from
  return isBefore
    ? [{ path: 'upTo', sentence: 'The end is not after the beginning: change one of them.' }]
    : []
}

/** A text that one language lacks where another has it: its readers are shown the other. */
export interface MissingText {
  readonly partId: string
  readonly path: string
  readonly label: string
  readonly language: string
  /** The language that is shown instead. */
  readonly instead: string
}

/** Every text that is said in one language of the page and not in another, language by language. Files of one language serve all. */
export function missingTexts(content: PageContent): MissingText[] {
  const local = fieldsOfPage(content).filter(({ field }) => field.type === 'words' || field.type === 'rich')
  return content.languages.flatMap((language) =>
    local.flatMap(({ partId, path, field, value }) => {
      if (!isLocal(field)) return []
      const isEmpty = field.isEmpty as (each: unknown) => boolean
      const order = [language, ...content.languages]
      const said = firstSaid(value as Localised<unknown>, order, isEmpty)
      return said === null || said.language === language
        ? []
        : [{ partId, path, label: field.label, language, instead: said.language }]
    }),
  )
}

/** A page that is nothing but a file, as a destination of its own. */
export function fileContent(
  file: { readonly key: string; readonly name: string; readonly type: string },
  language: string,
  zone: string,
): PageContent {
  const title = file.name.replace(/\.[A-Za-z0-9]{1,5}$/, '').slice(0, 80) || 'File'
  const said = { [language]: title }
  const shown = { [language]: file.key }
  const empty = { ...emptyContent(language, zone), title: said }
  if (file.type.startsWith('audio/'))
    return { ...empty, parts: [{ ...newPart('audio', 'file'), label: said, file: shown }] }
  if (file.type.startsWith('video/'))
    return { ...empty, parts: [{ ...newPart('video', 'file'), label: said, file: shown }] }
  return { ...empty, isFileItself: true, parts: [{ ...newPart('file', 'file'), label: said, file: shown }] }
}

/** The part whose file is all that a page shows; null where it shows more, or something that is played. */
export function onlyFile(content: PageContent): PartOf<'file'> | null {
  const [first, ...more] = content.parts.filter(({ isHidden }) => !isHidden)
  return content.isFileItself && first?.kind === 'file' && more.length === 0 ? first : null
}

/** The uploaded files that a page shows, by their keys, each once. */
export function filesOfPage(content: PageContent): string[] {
  const keys = fieldsOfPage(content).flatMap(({ field, value }) =>
    field.type === 'file' ? Object.values(value as Localised<string>) : [],
  )
  return [...new Set(keys.filter((key) => key !== ''))]
}

/** The other pages that a page leads to, by their numbers, each once. */
export function pagesOfPage(content: PageContent): number[] {
  const ids = fieldsOfPage(content).flatMap(({ field, value }) =>
    field.type === 'page' && typeof value === 'number' ? [value] : [],
  )
  return [...new Set(ids)]
}

/** A page that leads to copies of the pages it led to; to one of which there is no copy it leads as it did. */
export function withPages(content: PageContent, copies: ReadonlyMap<number, number>): PageContent {
  const parts = content.parts.map((given) =>
    given.kind === 'form' && given.thanksPage !== null
      ? { ...given, thanksPage: copies.get(given.thanksPage) ?? given.thanksPage }
      : given,
  )
  return { ...content, parts }
}

/** The places that a page shows maps about. */
export const mappedPoints = (content: PageContent): GeoPoint[] =>
  content.parts.flatMap((given) =>
    given.kind === 'place' && given.isMapped && given.point ? [given.point] : [],
  )

/** Where the links of a page lead, with the place each stands at; those in texts too. */
export function addressesOfPage(content: PageContent): { partId: string; path: string; address: string }[] {
  return fieldsOfPage(content).flatMap(({ partId, path, field, value }) => {
    if (field.type === 'address') return value === '' ? [] : [{ partId, path, address: String(value) }]
    if (field.type !== 'rich') return []
    return linksIn(value as PartOf<'text'>['text']).map((address) => ({ partId, path, address }))
  })
}

function linksIn(texts: PartOf<'text'>['text']): string[] {
  return Object.values(texts)
    .flat()
    .flatMap((block) => (block.kind === 'paragraph' ? [block.runs] : block.items))
    .flat()
    .flatMap(({ link }) => link ?? [])
}
