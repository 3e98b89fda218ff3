import { emptyContent, type PageContent } from './content.ts'
import { newPart, type Part, type PartKind, type PartOf } from './parts.ts'
import { textFromPlain } from '../fields/index.ts'
import { startingForm } from '../forms/index.ts'

/** Texts of a starting page, in the language it begins in. */
interface Says {
  readonly words: (text: string) => Readonly<Record<string, string>>
  readonly rich: (text: string) => PartOf<'text'>['text']
}

type Draft = { [K in PartKind]: readonly [K, Partial<Omit<PartOf<K>, 'id' | 'kind'>>] }[PartKind]

interface Start {
  readonly key: string
  readonly name: string
  /** What it is for. */
  readonly sentence: string
  readonly title: string
  readonly parts: (says: Says) => readonly Draft[]
}

/** What pages can begin with: made of parts as any other page, and changed as freely. */
export const STARTS = [
  {
    key: 'audio',
    name: 'Audio stop',
    sentence: 'A recording with its text, for a place people stand at',
    title: 'Stop 1',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Stop 1: what you see here'), size: 'title' }],
      ['picture', {}],
      ['audio', { label: words('Listen, 2 minutes') }],
      ['text', { text: rich('In a few sentences, for those who would rather read.') }],
      ['divider', {}],
      ['link', { label: words('All stops') }],
    ],
  },
  {
    key: 'menu',
    name: 'Menu',
    sentence: 'What there is to eat and drink, in sections',
    title: 'Menu',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Today'), size: 'title' }],
      [
        'prices',
        {
          sections: [
            {
              title: words('To begin'),
              items: [{ name: words('Soup of the day'), note: words('With bread'), price: '6.50' }],
            },
            {
              title: words('From the oven'),
              items: [{ name: words('Fish pie'), note: words('Leek, potato'), price: '14.00' }],
            },
          ],
        },
      ],
      ['text', { text: rich('Please ask us about allergens.') }],
      ['hours', { label: words('Kitchen hours') }],
    ],
  },
  {
    key: 'event',
    name: 'Event',
    sentence: 'When and where, to be put into a calendar',
    title: 'An evening out',
    parts: ({ words, rich }) => [
      ['heading', { text: words('An evening out'), size: 'title' }],
      ['countdown', { label: words('Begins in') }],
      ['event', { label: words('An evening out') }],
      ['text', { text: rich('What will happen, and what to bring.') }],
      ['place', { label: words('How to find us') }],
      ['button', { label: words('Book a seat') }],
    ],
  },
  {
    key: 'contact',
    name: 'Contact',
    sentence: 'A person or an office, to be saved on a phone',
    title: 'Contact',
    parts: () => [['contact', {}]],
  },
  {
    key: 'links',
    name: 'Links',
    sentence: 'A few ways on, one below the other',
    title: 'Where to next',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Where to next'), size: 'title' }],
      ['text', { text: rich('A sentence about who you are.') }],
      ['link', { label: words('Plan your visit'), note: words('Times, tickets, how to get here') }],
      ['link', { label: words('What is on this week') }],
      ['link', { label: words('Write to us') }],
    ],
  },
  {
    key: 'prices',
    name: 'Price list',
    sentence: 'What things cost, with the whole list to take away',
    title: 'Prices',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Prices'), size: 'title' }],
      [
        'prices',
        {
          sections: [
            {
              title: words('Day tickets'),
              items: [
                { name: words('Adults'), note: words(''), price: '18.00' },
                { name: words('Children to 14'), note: words('With an adult'), price: '9.00' },
              ],
            },
          ],
        },
      ],
      ['file', { label: words('The whole price list') }],
      [
        'questions',
        { items: [{ question: words('Can I pay by card?'), answer: rich('Yes, everywhere on board.') }] },
      ],
    ],
  },
  {
    key: 'sign-up',
    name: 'Sign-up',
    sentence: 'Why somebody should leave their address, and how',
    title: 'Stay in touch',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Stay in touch'), size: 'title' }],
      ['text', { text: rich('What you will send, and how often.') }],
      ['form', { ...startingForm('news', Object.keys(words(''))[0] ?? 'en') }],
      [
        'questions',
        {
          items: [
            {
              question: words('What happens to my address?'),
              answer: rich('Say who has it, what for, and how it is erased.'),
            },
          ],
        },
      ],
    ],
  },
  {
    key: 'thank-you',
    name: 'Thank-you',
    sentence: 'What people see when they have done what was asked',
    title: 'Thank you',
    parts: ({ words, rich }) => [
      ['heading', { text: words('Thank you'), size: 'title' }],
      ['text', { text: rich('What happens next, and by when.') }],
      ['link', { label: words('Back to the beginning') }],
    ],
  },
] as const satisfies readonly Start[]
export type StartKey = (typeof STARTS)[number]['key']

/** The content that a page begins with. */
export function startContent(key: StartKey, language: string, zone: string): PageContent {
  const start: Start | undefined = STARTS.find((each) => each.key === key)
  const empty = emptyContent(language, zone)
  if (!start) return empty
  const says: Says = {
    words: (text) => (text === '' ? {} : { [language]: text }),
    rich: (text) => ({ [language]: textFromPlain(text) }),
  }
  const parts = start
    .parts(says)
    .map(([kind, given], i): Part => ({ ...newPart(kind, `p${String(i + 1)}`), ...given }) as Part)
  return { ...empty, title: says.words(start.title), parts }
}
