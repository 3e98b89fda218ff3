import { textFromPlain } from '../fields/index.ts'
import { newQuestion, type Question, type QuestionKind, type QuestionOf } from './questions.ts'

type Draft = { [K in QuestionKind]: readonly [K, Partial<Omit<QuestionOf<K>, 'id' | 'kind'>>] }[QuestionKind]

interface StartingForm {
  readonly key: string
  readonly name: string
  /** What it is for. */
  readonly sentence: string
  readonly steps: 'page' | 'steps'
  readonly questions: (words: (text: string) => Readonly<Record<string, string>>) => readonly Draft[]
}

const who = (words: (text: string) => Readonly<Record<string, string>>): Draft[] => [
  ['short', { label: words('Your name'), name: 'Name', isRequired: true }],
  ['mail', { label: words('Your e-mail address'), name: 'Mail', isRequired: true }],
]

/** What forms can begin with: questions as any other, and changed as freely. */
export const STARTING_FORMS = [
  {
    key: 'registration',
    name: 'Registration',
    sentence: 'Who comes, how many, and how to reach them',
    steps: 'page',
    questions: (words) => [
      ...who(words),
      ['phone', { label: words('Your telephone number'), name: 'Telephone' }],
      ['number', { label: words('How many are you?'), name: 'People', least: 1, most: 20, isRequired: true }],
    ],
  },
  {
    key: 'feedback',
    name: 'Feedback',
    sentence: 'How it was, and what to do better',
    steps: 'page',
    questions: (words) => [
      [
        'rating',
        {
          label: words('How was it?'),
          name: 'Rating',
          isRequired: true,
          low: words('Not good'),
          high: words('Very good'),
        },
      ],
      ['long', { label: words('What should we do better?'), name: 'Better' }],
    ],
  },
  {
    key: 'survey',
    name: 'Survey',
    sentence: 'Several sections, one after the other',
    steps: 'steps',
    questions: (words) => [
      ['section', { title: words('About your visit') }],
      ['yesno', { label: words('Was this your first visit?'), name: 'First visit', isRequired: true }],
      [
        'scale',
        {
          label: words('How likely are you to recommend us?'),
          name: 'Recommends',
          low: words('Not at all'),
          high: words('Very'),
        },
      ],
      ['section', { title: words('About you') }],
      ['mail', { label: words('Your e-mail address, if we may write back'), name: 'Mail' }],
    ],
  },
  {
    key: 'draw',
    name: 'Entry for a draw',
    sentence: 'One question, one address, and the terms',
    steps: 'page',
    questions: (words) => [
      ['short', { label: words('Your answer'), name: 'Answer', isRequired: true }],
      ...who(words),
      ['consent', { consent: richIn(words, 'I have read the terms and agree to them.'), name: 'Terms' }],
    ],
  },
  {
    key: 'appointment',
    name: 'Appointment wish',
    sentence: 'What about, on which day, and how to reach them',
    steps: 'page',
    questions: (words) => [
      ['short', { label: words('What is it about?'), name: 'About', isRequired: true }],
      ['date', { label: words('Which day suits you?'), name: 'Day', isRequired: true }],
      ['phone', { label: words('Your telephone number'), name: 'Telephone', isRequired: true }],
    ],
  },
  {
    key: 'news',
    name: 'News by mail',
    sentence: 'An address, and the consent to write to it',
    steps: 'page',
    questions: (words) => [
      ['mail', { label: words('Your e-mail address'), name: 'Mail', isRequired: true }],
      [
        'consent',
        { consent: richIn(words, 'You may send me news by mail until I say otherwise.'), name: 'News' },
      ],
    ],
  },
] as const satisfies readonly StartingForm[]
export type StartingFormKey = (typeof STARTING_FORMS)[number]['key']

/** A text with looks, in the language that some words are in. */
const richIn = (words: (text: string) => Readonly<Record<string, string>>, text: string) =>
  Object.fromEntries(Object.keys(words('')).map((tag) => [tag, textFromPlain(text)]))

/** The questions that a form begins with, and how they are asked. */
export function startingForm(
  key: StartingFormKey,
  language: string,
): { readonly questions: Question[]; readonly steps: 'page' | 'steps' } {
  const form: StartingForm | undefined = STARTING_FORMS.find((each) => each.key === key)
  const drafts = form?.questions((text) => ({ [language]: text })) ?? []
  return {
    steps: form?.steps ?? 'page',
    questions: drafts.map(
      ([kind, says], i) => ({ ...newQuestion(kind, `q${String(i + 1)}`), ...says }) as Question,
    ),
  }
}
