import {
  day,
  file,
  choice,
  emptyOf,
  kinds,
  kindUnion,
  key,
  list,
  number,
  rich,
  rowKey,
  text,
  toggle,
  words,
  type Fields,
  type ValuesOf,
} from '../fields/index.ts'
import { ALWAYS, branch, type Branch } from './branch.ts'
import { ANSWER_FILE_MAX } from './readAnswer.ts'

/** Common practice: longer questions are not read. */
const QUESTION_MAX = 200
export const QUESTIONS_MAX = 100
const CHOICES_MAX = 100

const label = words('Question', QUESTION_MAX, { wanted: 'Write the question.' })
const common = {
  label,
  help: words('Description', 500, { isMultiline: true }),
  picture: file('Picture', 'picture'),
  alt: words('What the picture shows', 300),
  isRequired: toggle('Must be answered'),
  wrong: words('Said when the answer is wrong', QUESTION_MAX, {
    help: 'Empty: Flimbo says what is wrong in the visitor’s language.',
  }),
  name: text('Short name', 40, {
    help: 'Heads the column of the answers, and stands in {braces} in mails and thank-you words.',
  }),
}
const choices = list(
  'Choices',
  'choice',
  CHOICES_MAX,
  { key: key(), label: words('Choice', 120, { wanted: 'Write the choice.' }) },
  { wanted: 'Add a choice.' },
)
const isShuffled = toggle('In another order for everybody')
const hasOther = toggle('Offers “Other …” to write in')
const ends = { low: words('Words at the low end', 60), high: words('Words at the high end', 60) }
const MILLIARD = 1_000_000_000

/** What each kind of question is made of, in the order in which they are offered. */
export const QUESTION_FIELDS = {
  section: {
    title: words('Heading', 120, { wanted: 'Write the heading of the section.' }),
    help: words('Description', 500, { isMultiline: true }),
  },
  short: {
    ...common,
    longest: number('Characters at most', { least: 1, most: 500, help: 'Empty: 200.' }),
  },
  long: {
    ...common,
    longest: number('Characters at most', { least: 1, most: 10_000, help: 'Empty: 2,000.' }),
  },
  mail: { ...common },
  phone: {
    ...common,
    country: text('Country of numbers without +', 2, {
      help: 'Two letters, such as DE. Empty: numbers begin with + and the country’s number.',
      fault: (value) => (/^[A-Za-z]{2}$/.test(value) ? null : 'Write the country as two letters: DE.'),
    }),
  },
  number: {
    ...common,
    least: number('At least', { least: -MILLIARD, most: MILLIARD, isWhole: false }),
    most: number('At most', { least: -MILLIARD, most: MILLIARD, isWhole: false }),
    decimals: number('Decimals', { least: 0, most: 6, help: 'Empty: whole numbers.' }),
    unit: words('Unit', 20),
  },
  date: { ...common, first: day('Not before'), last: day('Not after') },
  one: { ...common, choices, hasOther, isShuffled },
  some: {
    ...common,
    choices,
    hasOther,
    isShuffled,
    least: number('Choices at least', { least: 0, most: CHOICES_MAX }),
    most: number('Choices at most', { least: 1, most: CHOICES_MAX }),
  },
  dropdown: { ...common, choices, isShuffled },
  yesno: { ...common },
  rating: { ...common, steps: number('Steps', { least: 3, most: 10, help: 'Empty: 5.' }), ...ends },
  scale: { ...common, ...ends },
  ranking: { ...common, choices, isShuffled },
  file: {
    ...common,
    takes: choice('Takes', [
      ['pictures', 'Pictures'],
      ['documents', 'PDF documents'],
      ['both', 'Pictures and PDF documents'],
    ]),
    largest: number('Megabytes at most', { least: 1, most: ANSWER_FILE_MAX, help: 'Empty: 10.' }),
  },
  consent: {
    label: words('Heading', QUESTION_MAX),
    consent: rich('Words agreed to', { wanted: 'Write what is agreed to.' }),
    isRequired: toggle('Must be agreed to', true),
    name: common.name,
  },
  hidden: {
    name: text('Short name', 40, { wanted: 'Give it a short name.' }),
    from: choice('Value', [
      ['query', 'A value of the address that was scanned'],
      ['piece', 'The name of the piece'],
      ['source', 'utm_source of the piece'],
      ['medium', 'utm_medium of the piece'],
      ['content', 'utm_content of the piece'],
    ]),
    parameter: text('Name of the value in the address', 60, {
      help: 'Only where it comes from the address.',
    }),
  },
} as const satisfies Record<string, Fields>

export type QuestionKind = keyof typeof QUESTION_FIELDS
export const QUESTION_KINDS = Object.keys(QUESTION_FIELDS) as readonly QuestionKind[]

/** What each kind of question is called. */
export const QUESTION_NAMES: Readonly<Record<QuestionKind, string>> = {
  section: 'Section',
  short: 'Short text',
  long: 'Long text',
  mail: 'E-mail address',
  phone: 'Telephone number',
  number: 'Number',
  date: 'Date',
  one: 'One of many',
  some: 'Some of many',
  dropdown: 'Drop-down',
  yesno: 'Yes or no',
  rating: 'Rating',
  scale: 'Scale from 0 to 10',
  ranking: 'Ranking',
  file: 'File',
  consent: 'Consent',
  hidden: 'Hidden value',
}

interface Common<K extends QuestionKind> {
  /** Stays the same for as long as the question is there: answers name it. */
  readonly id: string
  readonly kind: K
  /** When it is asked; of a section, when all that stands in it is. */
  readonly branch: Branch
}
export type QuestionOf<K extends QuestionKind> = Common<K> & ValuesOf<(typeof QUESTION_FIELDS)[K]>
/** One row of a form: a question, or the beginning of a section, which holds what follows until the next. */
export type Question = { [K in QuestionKind]: QuestionOf<K> }[QuestionKind]
/** One that is answered, by a person or by where they came from. */
export type Asked = Exclude<Question, { readonly kind: 'section' }>

/** A question as it is kept: each kind of the fields that `QUESTION_FIELDS` names. */
export const question = kindUnion<Question>(QUESTION_FIELDS, { id: rowKey, branch })

/** A question with nothing entered. */
export function newQuestion<K extends QuestionKind>(kind: K, id: string): QuestionOf<K> {
  const own: Common<K> = { id, kind, branch: ALWAYS }
  // Its own fields, of the kind that is named beside them.
  return { ...own, ...emptyOf(QUESTION_FIELDS[kind] as Fields) } as QuestionOf<K>
}

/** The questions of a form, as a field of the part that it is. */
export const questionsField = kinds<Question>(
  'Questions',
  'question',
  QUESTIONS_MAX,
  QUESTION_FIELDS,
  question,
  { wanted: 'Add a question.' },
)

/** What a row of a form is called in one of its languages: its short name, its words, or its kind. */
export function questionTitle(
  given: Question,
  said: (value: Readonly<Record<string, string>>) => string,
): string {
  if (given.kind === 'section') return said(given.title) || QUESTION_NAMES.section
  if (given.name.trim() !== '') return given.name.trim()
  return (given.kind === 'hidden' ? '' : said(given.label)) || QUESTION_NAMES[given.kind]
}
