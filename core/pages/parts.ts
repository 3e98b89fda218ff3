import { z } from 'zod'
import { condition, EVERY_SCAN, type Condition } from '../conditions/index.ts'
import { mailFault, phoneFault } from '../contents/index.ts'
import { FORM_FIELDS } from '../forms/index.ts'
import { APP_SYSTEMS } from '../routing/index.ts'
import {
  address,
  choice,
  emptyOf,
  file,
  hours,
  kindUnion,
  list,
  moment,
  point,
  rich,
  rowKey,
  text,
  toggle,
  words,
  type Fields,
  type ValuesOf,
} from '../fields/index.ts'

const LINE = 200

/** What every part is made of, by its kind, in the order in which they are offered. */
export const PART_FIELDS = {
  heading: {
    text: words('Heading', 120, { wanted: 'Write the heading.' }),
    size: choice('Size', [
      ['title', 'Title of the page'],
      ['section', 'Heading of a section'],
    ]),
  },
  text: { text: rich('Text', { wanted: 'Write the text.' }) },
  picture: {
    picture: file('Picture', 'picture', { wanted: 'Choose a picture.' }),
    alt: words('What it shows', 300, {
      help: 'Read out to people who do not see it.',
    }),
    isDecoration: toggle('Only decoration: there is nothing to say about it'),
    caption: words('Caption', LINE),
    address: address('Leads to'),
  },
  pictures: {
    items: list(
      'Pictures',
      'picture',
      12,
      {
        picture: file('Picture', 'picture', { wanted: 'Choose a picture.' }),
        alt: words('What it shows', 300, { wanted: 'Say what the picture shows.' }),
      },
      { wanted: 'Add a picture.' },
    ),
  },
  link: {
    label: words('Label', 80, { wanted: 'Write what the link says.' }),
    note: words('Note below', LINE),
    address: address('Leads to', { wanted: 'Give the address it leads to.' }),
  },
  button: {
    label: words('Label', 60, { wanted: 'Write what the button says.' }),
    address: address('Leads to', { wanted: 'Give the address it leads to.' }),
    look: choice('Look', [
      ['filled', 'Filled'],
      ['outlined', 'Outlined'],
    ]),
  },
  file: {
    file: file('File', 'any', { wanted: 'Choose a file.' }),
    label: words('Label', 120, { wanted: 'Write what the file is.' }),
    way: choice('When it is tapped', [
      ['open', 'It opens on the phone'],
      ['save', 'It is saved on the phone'],
    ]),
  },
  audio: {
    file: file('Recording', 'audio', { wanted: 'Choose a recording.' }),
    label: words('Title', 120, { wanted: 'Give the recording a title.' }),
    transcript: rich('What is said', { help: 'For people who cannot hear it, or not here.' }),
  },
  video: {
    file: file('Film', 'video', { wanted: 'Choose a film.' }),
    label: words('Title', 120, { wanted: 'Give the film a title.' }),
    poster: file('Picture before it plays', 'picture'),
    captions: file('Captions (WebVTT)', 'captions'),
    transcript: rich('What is said and shown', { help: 'For people who cannot hear or see it.' }),
  },
  hours: { label: words('Heading', 120), hours: hours('Hours') },
  place: {
    label: words('Name', 120, { wanted: 'Write what the place is called.' }),
    address: words('Address', 300, { isMultiline: true }),
    point: point('Where it is'),
    isMapped: toggle('Show a map', true),
  },
  event: {
    label: words('Name', 120, { wanted: 'Write what the event is called.' }),
    from: moment('Begins', { wanted: 'Say when it begins.' }),
    upTo: moment('Ends', { wanted: 'Say when it ends.' }),
    isWholeDay: toggle('Whole days'),
    place: words('Where', LINE),
    description: words('Description', 1000, { isMultiline: true }),
  },
  contact: {
    version: choice('Card as', [
      ['3.0', 'vCard 3.0, read by most phones'],
      ['4.0', 'vCard 4.0'],
    ]),
    given: text('Given name', 100),
    family: text('Family name', 100),
    role: words('Role', 120),
    organisation: text('Organisation', 120),
    portrait: file('Portrait', 'portrait'),
    phones: list('Telephones', 'telephone', 6, {
      kind: choice('Kind', [
        ['work', 'Work'],
        ['cell', 'Mobile'],
        ['home', 'Private'],
      ]),
      number: text('Number', 40, { wanted: 'Give a telephone number.', fault: phoneFault }),
    }),
    emails: list('E-mail', 'mail address', 6, {
      address: text('Mail address', 254, {
        wanted: 'Give a mail address.',
        fault: (value) => mailFault(value, null),
      }),
    }),
    addresses: list('Postal addresses', 'postal address', 3, {
      street: text('Street', 120),
      postcode: text('Postcode', 20),
      town: text('Town', 100),
      country: text('Country', 100),
    }),
    sites: list('Websites and profiles', 'address', 12, {
      name: text('Name', 60, { help: 'Such as “Website”, or the name of the network.' }),
      address: address('Address', { wanted: 'Give the address.' }),
    }),
    note: words('Note', 1000, { isMultiline: true }),
  },
  prices: {
    sections: list(
      'Sections',
      'section',
      20,
      {
        title: words('Heading', 120),
        items: list('Lines', 'line', 60, {
          name: words('Name', 120, { wanted: 'Write what it is.' }),
          note: words('Note', LINE),
          price: text('Price', 40),
        }),
      },
      { wanted: 'Add a section.' },
    ),
  },
  countdown: {
    label: words('Words before', 120, { wanted: 'Write what is counted down to.' }),
    moment: moment('Until', { wanted: 'Say until when.' }),
    over: words('Words afterwards', 120, { help: 'Empty: nothing is shown any more.' }),
  },
  divider: {},
  questions: {
    items: list(
      'Questions',
      'question',
      40,
      {
        question: words('Question', LINE, { wanted: 'Write the question.' }),
        answer: rich('Answer', { wanted: 'Write the answer.' }),
      },
      { wanted: 'Add a question.' },
    ),
  },
  form: FORM_FIELDS,
  appSwitch: {
    label: words('Label', 60, { wanted: 'Write what the button says.' }),
    systems: list(
      'Systems',
      'system',
      APP_SYSTEMS.length,
      {
        system: choice('System', APP_SYSTEMS),
        address: address('Leads to', { wanted: 'Give the address for this system.' }),
      },
      { wanted: 'Add a system.' },
    ),
    otherwise: address('All others lead to', { wanted: 'Give the address for all other systems.' }),
  },
} as const satisfies Record<string, Fields>

export type PartKind = keyof typeof PART_FIELDS
export const PART_KINDS = Object.keys(PART_FIELDS) as readonly PartKind[]

/** What each kind of part is called. */
export const PART_NAMES: Readonly<Record<PartKind, string>> = {
  heading: 'Heading',
  text: 'Text',
  picture: 'Picture',
  pictures: 'Picture row',
  link: 'Link',
  button: 'Button',
  file: 'File',
  audio: 'Recording',
  video: 'Film',
  hours: 'Opening hours',
  place: 'Place',
  event: 'Event',
  contact: 'Contact',
  prices: 'Price list',
  countdown: 'Countdown',
  divider: 'Divider',
  questions: 'Questions and answers',
  form: 'Form',
  appSwitch: 'App switch',
}

interface Common<K extends PartKind> {
  /** Stays the same for as long as the part is there: what happened on a page names it. */
  readonly id: string
  readonly kind: K
  /** Left in its place, but shown to nobody. */
  readonly isHidden: boolean
  /** Whom it is shown to: the conditions that lanes have. */
  readonly condition: Condition
}
export type PartOf<K extends PartKind> = Common<K> & ValuesOf<(typeof PART_FIELDS)[K]>
/** One thing on a page. */
export type Part = { [K in PartKind]: PartOf<K> }[PartKind]

/** A part as it is kept: each kind of the fields that `PART_FIELDS` names. */
export const part = kindUnion<Part>(PART_FIELDS, { id: rowKey, isHidden: z.boolean(), condition })

/** A part with nothing entered. */
export function newPart<K extends PartKind>(kind: K, id: string): PartOf<K> {
  const common: Common<K> = { id, kind, isHidden: false, condition: EVERY_SCAN }
  // Its own fields, of the kind that is named beside them.
  return { ...common, ...emptyOf(PART_FIELDS[kind] as Fields) } as PartOf<K>
}
