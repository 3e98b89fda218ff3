import {
  address,
  choice,
  moment,
  number,
  toggle,
  words,
  type Fields,
  type ValuesOf,
} from '../fields/index.ts'
import { questionsField } from './questions.ts'

const ANSWERS_MAX = 10_000_000
const MONTHS_MAX = 120

/** What a form is made of, as a part of a page. Its moments are by the clock of the page's zone. */
export const FORM_FIELDS = {
  label: words('Heading', 120),
  questions: questionsField,
  steps: choice('Asked', [
    ['page', 'All on one page'],
    ['steps', 'Section by section'],
  ]),
  send: words('Words of the button', 60, { help: 'Empty: “Send” in the visitor’s language.' }),
  look: choice('Look of the button', [
    ['filled', 'Filled'],
    ['outlined', 'Outlined'],
  ]),
  after: choice('After sending', [
    ['words', 'Words on this page'],
    ['address', 'Another address'],
  ]),
  thanks: words('Thank-you words', 1000, {
    isMultiline: true,
    help: 'Short names of questions in {braces} become the answers to them. Empty: Flimbo says thank you in the visitor’s language.',
  }),
  thanksAddress: address('Address that follows'),
  opens: moment('Opens'),
  closes: moment('Closes'),
  limit: number('Closes after so many answers', { least: 1, most: ANSWERS_MAX }),
  isOnceADay: toggle('One answer a visitor a day'),
  before: words('Said before it opens', 300, { isMultiline: true }),
  closed: words('Said after it closed', 300, { isMultiline: true }),
  keptMonths: number('Answers are kept for so many months', {
    least: 1,
    most: MONTHS_MAX,
    help: 'Empty: until somebody deletes them. The form says for how long.',
  }),
  keptThen: choice('After that', [
    ['anonymise', 'What tells who answered is removed'],
    ['delete', 'They are deleted'],
  ]),
} as const satisfies Fields

/** What a form says, asks and does, as a part of a page keeps it. */
export type FormSettings = ValuesOf<typeof FORM_FIELDS>
