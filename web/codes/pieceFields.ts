import type { Code } from '@flimbo/core/codes'
import { TYPED, typedValues, type TypedValues } from './pieceValues.ts'

/** What people know the fields of a piece under. */
export const NAMES = {
  name: 'Name',
  medium: 'Medium',
  source: 'Source',
  content: 'Content',
  term: 'Term',
  place: 'Place',
  note: 'Note',
  state: 'State',
  level: 'Level',
  slug: 'Short link',
  reference: 'Reference',
  key: 'Key',
  sizeMm: 'Size',
  viewingM: 'Scanned from',
  latitude: 'Latitude',
  longitude: 'Longitude',
  printRun: 'Print run',
  cost: 'Cost',
  liveOn: 'Goes live',
  downOn: 'Comes down',
} as const
const TEXTS = [
  'name',
  'medium',
  'source',
  'content',
  'term',
  'place',
  'note',
  'state',
  'level',
  'slug',
  'reference',
  'key',
] as const
export const CODE_FIELDS = [...TEXTS, ...TYPED] as const
export type CodeValues = Pick<Code, (typeof TEXTS)[number]> & TypedValues
/** What the form of a piece holds: the code’s own fields, and where its route leads. */
export type PieceValues = CodeValues & { destination: string; extra: Record<string, string> }

export const codeValues = (code: Code): CodeValues => ({
  name: code.name,
  medium: code.medium,
  source: code.source,
  content: code.content,
  term: code.term,
  place: code.place,
  note: code.note,
  state: code.state,
  level: code.level,
  slug: code.slug,
  reference: code.reference,
  key: code.key,
  ...typedValues(code),
})
export const pieceValues = (code: Code): PieceValues => ({
  ...codeValues(code),
  destination: code.destination,
  extra: code.extra,
})
