import {
  answerText,
  isChosen,
  OTHER,
  questionTitle,
  RATING_STEPS,
  SCALE_MOST,
  type Answer,
  type Question,
} from '../forms/index.ts'
import { said, type Reading } from '../fields/index.ts'
import { spreadOf, wilson, type Spread } from '../results/index.ts'
import { wordsFor } from '../words/index.ts'
import type { AnswerCount, QuestionNumbers } from './numbersShapes.ts'

const WORDS_MAX = 40
const VALUES_MAX = 30
/** Bars that numbers are gathered into. */
const BARS = 10
/** Shorter words say little by themselves, but in scripts that write much with few letters. */
const WORD_LEAST = 4

/** What the answers of one question come to, added one by one. */
export interface QuestionCounter {
  add(answer: Answer | undefined): void
  numbers(): QuestionNumbers
}

class Tally {
  answered = 0
  private readonly counts = new Map<string, number>()
  add(keys: Iterable<string>): void {
    this.answered++
    for (const key of keys) this.counts.set(key, (this.counts.get(key) ?? 0) + 1)
  }
  of(key: string): number {
    return this.counts.get(key) ?? 0
  }
  row(key: string, label: string): AnswerCount {
    const count = this.of(key)
    return { key, label, count, share: wilson(count, Math.max(1, this.answered)) }
  }
  /** The most frequent first. */
  most(limit: number): AnswerCount[] {
    return [...this.counts]
      .sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1))
      .slice(0, limit)
      .map(([key]) => this.row(key, key))
  }
}

/** The words of a text, each once, in small letters (Unicode Standard Annex 29, as the runtime has it). */
export function wordsIn(text: string, language: string): Set<string> {
  const segments = new Intl.Segmenter(language, { granularity: 'word' }).segment(text.toLowerCase())
  const words = [...segments].filter(({ isWordLike }) => isWordLike).map(({ segment }) => segment)
  return new Set(
    words.filter(
      (word) => !/^\p{N}+$/u.test(word) && (word.length >= WORD_LEAST || !/^\p{Script=Latin}/u.test(word)),
    ),
  )
}

type Head = Pick<QuestionNumbers, 'question' | 'title'>

function choicesCounter(
  head: Head,
  choices: readonly { readonly key: string; readonly label: string }[],
  keysOf: (answer: Answer) => string[],
): QuestionCounter {
  const tally = new Tally()
  return {
    add(answer) {
      if (answer !== undefined) tally.add(keysOf(answer))
    },
    numbers: () => ({
      ...head,
      answered: tally.answered,
      kind: 'counts',
      rows: choices.map(({ key, label }) => tally.row(key, label)),
    }),
  }
}

function ranksCounter(
  head: Head,
  choices: readonly { readonly key: string; readonly label: string }[],
): QuestionCounter {
  const first = new Tally()
  const places = new Map<string, { sum: number; count: number }>()
  return {
    add(answer) {
      if (!isChosen(answer)) return
      first.add(answer.chosen.slice(0, 1).map((key) => `first.${key}`))
      for (const [i, key] of answer.chosen.entries()) {
        const place = places.get(key) ?? { sum: 0, count: 0 }
        places.set(key, { sum: place.sum + i + 1, count: place.count + 1 })
      }
    },
    numbers: () => ({
      ...head,
      answered: first.answered,
      kind: 'ranks',
      rows: choices
        .map(({ key, label }) => {
          const { sum = 0, count = 0 } = places.get(key) ?? {}
          return { ...first.row(`first.${key}`, label), meanPlace: count === 0 ? 0 : sum / count }
        })
        .sort((a, b) => a.meanPlace - b.meanPlace),
    }),
  }
}

/** Bars over values: one each where there are few whole ones, or else stretches of equal width. */
function barsOf(
  values: readonly number[],
  { least, most }: Spread,
  every: readonly number[] | null,
): AnswerCount[] {
  const row = (key: string, label: string, count: number) => ({
    key,
    label,
    count,
    share: wilson(count, Math.max(1, values.length)),
  })
  const isFew = values.every((each) => Number.isInteger(each)) && most - least < VALUES_MAX
  const single = every ?? (isFew ? Array.from({ length: most - least + 1 }, (_, i) => least + i) : null)
  if (single) {
    const counts = new Map<number, number>()
    for (const each of values) counts.set(each, (counts.get(each) ?? 0) + 1)
    return single.map((each) => row(String(each), String(each), counts.get(each) ?? 0))
  }
  const rounded = (value: number) => String(Number(value.toPrecision(6)))
  const within = Array.from({ length: BARS - 1 }, (_, i) => least + ((most - least) * (i + 1)) / BARS)
  // Values may lie so close together, or so far apart, that no ten numbers stand evenly between them.
  const ends = [...new Set(within.filter((end) => end > least && end < most)), most]
  return ends.map((to, i) => {
    const from = ends[i - 1] ?? least
    const isLast = i === ends.length - 1
    const count = values.filter((each) => each >= from && (isLast ? each <= to : each < to)).length
    return row(
      `${String(from)}..${String(to)}${isLast ? '' : '-'}`,
      `${rounded(from)} to ${rounded(to)}`,
      count,
    )
  })
}

function valuesCounter(head: Head, every: readonly number[] | null): QuestionCounter {
  const values: number[] = []
  return {
    add(answer) {
      if (typeof answer === 'number') values.push(answer)
    },
    numbers() {
      const spread = spreadOf(values)
      return {
        ...head,
        answered: values.length,
        kind: 'values',
        spread,
        rows: spread ? barsOf(values, spread, every) : [],
      }
    },
  }
}

function textsCounter(
  head: Head,
  keysOf: (text: string) => Iterable<string>,
  kind: 'words' | 'counts',
): QuestionCounter {
  const tally = new Tally()
  return {
    add(answer) {
      if (typeof answer === 'string') tally.add(keysOf(answer))
    },
    numbers: () => ({
      ...head,
      answered: tally.answered,
      kind,
      rows: tally.most(kind === 'words' ? WORDS_MAX : VALUES_MAX),
    }),
  }
}

function answeredCounter(head: Head): QuestionCounter {
  let answered = 0
  return {
    add(answer) {
      if (answer !== undefined) answered++
    },
    numbers: () => ({ ...head, answered, kind: 'answered' }),
  }
}

const stretch = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i)

/**
 * Counts what is answered to a question of a form.
 *
 * @param reading the form's own language, in which choices are called
 * @returns null of a section, which nobody answers
 */
export function questionCounter(question: Question, reading: Reading): QuestionCounter | null {
  if (question.kind === 'section') return null
  const around = { ...reading, words: wordsFor([reading.language]).words.forms }
  const label = (value: Parameters<typeof said>[1]) => said(reading, value).text
  const head: Head = { question: question.id, title: questionTitle(question, label) }
  switch (question.kind) {
    case 'one':
    case 'some':
    case 'dropdown': {
      const choices = question.choices.map((choice) => ({ key: choice.key, label: label(choice.label) }))
      const other = { key: OTHER, label: wordsFor([reading.language]).words.forms.other }
      return choicesCounter(
        head,
        'hasOther' in question && question.hasOther ? [...choices, other] : choices,
        (answer) =>
          isChosen(answer) ? [...answer.chosen, ...(answer.other === undefined ? [] : [OTHER])] : [],
      )
    }
    case 'ranking':
      return ranksCounter(
        head,
        question.choices.map((choice) => ({ key: choice.key, label: label(choice.label) })),
      )
    case 'yesno':
    case 'consent':
      return choicesCounter(
        head,
        [true, false].map((value) => ({
          key: value ? 'yes' : 'no',
          label: answerText(question, value, around),
        })),
        (answer) => [answer === true ? 'yes' : 'no'],
      )
    case 'rating':
      return valuesCounter(head, stretch(1, question.steps ?? RATING_STEPS))
    case 'scale':
      return valuesCounter(head, stretch(0, SCALE_MOST))
    case 'number':
      return valuesCounter(head, null)
    case 'long':
      return textsCounter(head, (text) => wordsIn(text, reading.language), 'words')
    case 'hidden':
    case 'date':
      return textsCounter(head, (text) => [text], 'counts')
    case 'short':
    case 'mail':
    case 'phone':
    case 'file':
      return answeredCounter(head)
  }
}
