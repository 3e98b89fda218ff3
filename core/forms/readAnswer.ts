import type { Answer, AnswerFile, Chosen } from './answers.ts'
import { OTHER } from './answers.ts'
import type { Asked, QuestionOf } from './questions.ts'
import { readNumber } from './readNumber.ts'

/** What is wrong with an answer, with what its sentence says beside. */
export type AnswerFault =
  | {
      readonly code:
        'missing' | 'disagreed' | 'mail' | 'phone' | 'number' | 'whole' | 'date' | 'choice' | 'rank' | 'other'
    }
  | { readonly code: 'tooLong'; readonly length: number; readonly most: number }
  | { readonly code: 'least' | 'most' | 'leastChoices' | 'mostChoices' | 'decimals'; readonly bound: number }
  | { readonly code: 'dateFirst' | 'dateLast'; readonly day: string }
  | { readonly code: 'fileType' }
  | { readonly code: 'fileSize'; readonly megabytes: number }

/** What became of what was sent for a question: an answer, none, or one that is wrong. */
export type ReadAnswer =
  | { readonly answer: Answer | undefined; readonly fault?: undefined }
  | { readonly answer?: undefined; readonly fault: AnswerFault }

/** Values of a form as they were sent, by their names; several of one name in their order. */
export type SentValues = ReadonlyMap<string, readonly string[]>

/** What only some places can read: the phone leaves to the front door what takes it too much to load. */
export interface AnswerReaders {
  /** A mail address in canonical writing; null where it is none. */
  readonly mail: (text: string) => string | null
  /** A telephone number as E.164; null where it is none. */
  readonly phone: (text: string, country: string) => string | null
  /** The file that was sent under a name: null where none was. */
  readonly file: (name: string) => AnswerFile | null
  /** What a hidden question's value is. */
  readonly hidden: (question: QuestionOf<'hidden'>) => string
  /** The language numbers are written in. */
  readonly language: string
}

/** Names of the values of a question within a form. */
export const valueName = (id: string): string => `q.${id}`
export const otherName = (id: string): string => `q.${id}.other`
/** Of a file that was sent before, with another step or a wrong answer. */
export const keptName = (id: string): string => `q.${id}.kept`
export const rankName = (id: string, choice: string): string => `q.${id}.${choice}`

const SHORT_MAX = 200
const LONG_MAX = 2000
/** Megabytes that the file of an answer has at most. */
export const ANSWER_FILE_MAX = 10
export const RATING_STEPS = 5
export const SCALE_MOST = 10
const OTHER_MAX = 200
const HIDDEN_MAX = 500

const MISSING: ReadAnswer = { fault: { code: 'missing' } }
const NONE: ReadAnswer = { answer: undefined }
const found = (answer: Answer): ReadAnswer => ({ answer })
const wrong = (fault: AnswerFault): ReadAnswer => ({ fault })

const withoutControls = (text: string) =>
  text.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0009\u000b-\u001f\u007f-\u009f]/g, '')

/** How many characters somebody who counts sees: code points. */
const lengthOf = (text: string) => [...text].length

function readText(text: string, most: number): ReadAnswer {
  const length = lengthOf(text)
  return length > most ? wrong({ code: 'tooLong', length, most }) : found(text)
}

/** Between two bounds, where there are any. */
function inBounds(value: number, least: number | null, most: number | null): ReadAnswer {
  if (least !== null && value < least) return wrong({ code: 'least', bound: least })
  if (most !== null && value > most) return wrong({ code: 'most', bound: most })
  return found(value)
}

function readNumeric(question: QuestionOf<'number'>, text: string, language: string): ReadAnswer {
  const value = readNumber(text, language)
  if (value === null) return wrong({ code: 'number' })
  const decimals = question.decimals ?? 0
  if (Number(value.toFixed(decimals)) !== value)
    return wrong(decimals === 0 ? { code: 'whole' } : { code: 'decimals', bound: decimals })
  return inBounds(value, question.least, question.most)
}

/** A step of a rating or scale. */
function readStep(text: string, least: number, most: number): ReadAnswer {
  const value = Number(text)
  return Number.isInteger(value) && value >= least && value <= most ? found(value) : wrong({ code: 'choice' })
}

/** Days that are in the calendar, by ISO 8601. */
function isDay(text: string): boolean {
  const at = /^\d{4}-\d\d-\d\d$/.test(text) ? new Date(`${text}T00:00:00Z`) : null
  return at !== null && !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text)
}
function readDay({ first, last }: QuestionOf<'date'>, text: string): ReadAnswer {
  if (!isDay(text)) return wrong({ code: 'date' })
  if (first !== '' && text < first) return wrong({ code: 'dateFirst', day: first })
  return last !== '' && text > last ? wrong({ code: 'dateLast', day: last }) : found(text)
}

type WithChoices = QuestionOf<'one'> | QuestionOf<'some'> | QuestionOf<'dropdown'>

function readChoices(question: WithChoices, keys: readonly string[], other: string): ReadAnswer {
  const known = new Set(question.choices.map(({ key }) => key))
  const takesOther = question.kind !== 'dropdown' && question.hasOther
  const wanted = [...new Set(keys)]
  if (wanted.some((key) => !known.has(key) && !(takesOther && key === OTHER)))
    return wrong({ code: 'choice' })
  const chosen = question.choices.map(({ key }) => key).filter((key) => wanted.includes(key))
  const isOther = wanted.includes(OTHER) && takesOther
  if (isOther && other === '') return wrong({ code: 'other' })
  if (isOther && lengthOf(other) > OTHER_MAX)
    return wrong({ code: 'tooLong', length: lengthOf(other), most: OTHER_MAX })
  const count = chosen.length + (isOther ? 1 : 0)
  if (count === 0) return NONE
  const answer: Chosen = isOther ? { chosen, other } : { chosen }
  if (question.kind !== 'some') return count > 1 ? wrong({ code: 'choice' }) : found(answer)
  if (question.least !== null && count < question.least)
    return wrong({ code: 'leastChoices', bound: question.least })
  return question.most !== null && count > question.most
    ? wrong({ code: 'mostChoices', bound: question.most })
    : found(answer)
}

/** A place for each choice, every place once; none at all is no answer. */
function readRanking({ id, choices }: QuestionOf<'ranking'>, sent: SentValues): ReadAnswer {
  const places = choices.map(({ key }) => ({ key, place: sent.get(rankName(id, key))?.[0]?.trim() ?? '' }))
  if (places.every(({ place }) => place === '')) return NONE
  const ordered = places
    .map(({ key, place }) => ({ key, place: Number(place) }))
    .sort((a, b) => a.place - b.place)
  return ordered.every(({ place }, i) => place === i + 1)
    ? found({ chosen: ordered.map(({ key }) => key) })
    : wrong({ code: 'rank' })
}

function readFile(question: QuestionOf<'file'>, file: AnswerFile | null): ReadAnswer {
  if (!file) return NONE
  const isPicture = /^image\/(jpeg|png|webp|heic|heif|avif|gif)$/.test(file.type)
  const isDocument = file.type === 'application/pdf'
  const isTaken = {
    pictures: isPicture,
    documents: isDocument,
    both: isPicture || isDocument,
  }[question.takes]
  const megabytes = question.largest ?? ANSWER_FILE_MAX
  if (file.bytes > megabytes * 1_000_000) return wrong({ code: 'fileSize', megabytes })
  return isTaken ? found(file) : wrong({ code: 'fileType' })
}

function readGiven(question: Asked, sent: SentValues, readers: AnswerReaders): ReadAnswer {
  const values = sent.get(valueName(question.id)) ?? []
  const text = withoutControls(values[0] ?? '').trim()
  if (hasChoices(question)) {
    const keys = values.filter((key) => key !== '')
    return readChoices(question, keys, withoutControls(sent.get(otherName(question.id))?.[0] ?? '').trim())
  }
  if (question.kind === 'ranking') return readRanking(question, sent)
  if (question.kind === 'file') return readFile(question, readers.file(valueName(question.id)))
  if (question.kind === 'hidden') {
    const value = withoutControls(readers.hidden(question)).trim().slice(0, HIDDEN_MAX)
    return value === '' ? NONE : found(value)
  }
  if (question.kind === 'consent') return text === 'yes' ? found(true) : NONE
  return text === '' ? NONE : readLine(question, text, readers)
}
const hasChoices = (question: Asked): question is WithChoices =>
  question.kind === 'one' || question.kind === 'some' || question.kind === 'dropdown'

type OfOneLine = Exclude<Asked, WithChoices | { readonly kind: 'ranking' | 'file' | 'hidden' | 'consent' }>

function readLine(question: OfOneLine, text: string, readers: AnswerReaders): ReadAnswer {
  switch (question.kind) {
    case 'short':
      return readText(text.replace(/\n/g, ' '), question.longest ?? SHORT_MAX)
    case 'long':
      return readText(text, question.longest ?? LONG_MAX)
    case 'mail': {
      const address = readers.mail(text)
      return address === null ? wrong({ code: 'mail' }) : found(address)
    }
    case 'phone': {
      const number = readers.phone(text, question.country.toUpperCase())
      return number === null ? wrong({ code: 'phone' }) : found(number)
    }
    case 'number':
      return readNumeric(question, text, readers.language)
    case 'date':
      return readDay(question, text)
    case 'yesno':
      return text === 'yes' || text === 'no' ? found(text === 'yes') : wrong({ code: 'choice' })
    case 'rating':
      return readStep(text, 1, question.steps ?? RATING_STEPS)
    case 'scale':
      return readStep(text, 0, SCALE_MOST)
  }
}

/**
 * Reads what was sent for a question that is asked.
 *
 * @returns its answer, undefined where there is none and need be none; or what is wrong
 */
export function readAnswer(question: Asked, sent: SentValues, readers: AnswerReaders): ReadAnswer {
  const read = readGiven(question, sent, readers)
  if (read.fault || read.answer !== undefined) return read
  if (question.kind === 'hidden' || !question.isRequired) return NONE
  return question.kind === 'consent' ? wrong({ code: 'disagreed' }) : MISSING
}
