import {
  address,
  choice,
  moment,
  number,
  pageChoice,
  rich,
  text,
  toggle,
  under,
  words,
  type Fields,
  type ValuesOf,
} from '../fields/index.ts'
import { mailFault } from '../contents/index.ts'
import { questionsField } from './questions.ts'

const ANSWERS_MAX = 10_000_000
const MONTHS_MAX = 120
const CONFIRM_DAYS_MAX = 30
/** How long a link that confirms an address is good where nobody said otherwise. */
export const CONFIRM_DAYS = 7
const IN_BRACES = 'Short names of questions in {braces} become the answers to them.'

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
    ['page', 'Another page'],
  ]),
  thanks: under(
    'after',
    'words',
    words('Thank-you words', 1000, {
      isMultiline: true,
      help: `${IN_BRACES} Empty: Flimbo says thank you in the visitor’s language.`,
    }),
  ),
  thanksAddress: under('after', 'address', address('Address that follows')),
  thanksPage: under('after', 'page', pageChoice('Page that follows')),
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
  mails: toggle('Mail whoever answered'),
  mailSubject: under(
    'mails',
    true,
    words('Subject of the mail', 150, { help: 'Empty: Flimbo says thank you in the visitor’s language.' }),
  ),
  mailText: under(
    'mails',
    true,
    rich('Text of the mail', { help: IN_BRACES, wanted: 'Write the text of the mail.' }),
  ),
  replyTo: under(
    'mails',
    true,
    text('Replies go to', 254, {
      fault: (value) => mailFault(value, null),
    }),
  ),
  confirms: toggle('Have the mail address confirmed by a link'),
  confirmText: under(
    'confirms',
    true,
    rich('Text above the link', { help: 'Empty: Flimbo asks in the visitor’s language.' }),
  ),
  confirmDays: under(
    'confirms',
    true,
    number('The link is good for so many days', {
      least: 1,
      most: CONFIRM_DAYS_MAX,
      help: `Empty: ${String(CONFIRM_DAYS)}.`,
    }),
  ),
} as const satisfies Fields

/** What a form says, asks and does, as a part of a page keeps it. */
export type FormSettings = ValuesOf<typeof FORM_FIELDS>
