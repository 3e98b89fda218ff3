import { EVERY_SCAN } from '@flimbo/core/conditions'
import {
  emptyContent,
  newPart,
  type PageContent,
  type Part,
  type PartKind,
  type PartOf,
} from '@flimbo/core/pages'
import { textFromPlain } from '@flimbo/core/fields'
import { newQuestion, type Question, type QuestionKind, type QuestionOf } from '@flimbo/core/forms'

import { ZONE } from '../fill/calendar.ts'
import type { SampleFiles } from '../fill/media.ts'

type Said = Readonly<Record<string, string>>
const rich = (said: Said): PartOf<'text'>['text'] =>
  Object.fromEntries(Object.entries(said).map(([tag, text]) => [tag, textFromPlain(text)]))
/** A part of a kind, with what it says. */
function part<K extends PartKind>(kind: K, id: string, says: Partial<PartOf<K>>): Part {
  return { ...newPart(kind, id), ...says, condition: EVERY_SCAN } as Part
}

interface SamplePage {
  readonly name: string
  readonly content: PageContent
}

const TIDES: SamplePage = {
  name: 'Tides in English',
  content: {
    ...emptyContent('en', ZONE),
    title: { en: 'Tides and boats today' },
    description: { en: 'When boats leave for Lark Holm, Tern Sands and Grey Skerry' },
    parts: [
      part('heading', 'title', { text: { en: 'Tides and boats today' }, size: 'title' }),
      part('text', 'intro', {
        text: rich({
          en: 'Boats leave two hours before high water and come back two hours after it.\n\nAt low water the way to Tern Sands is on foot, with a guide only.',
        }),
      }),
      part('link', 'tides', {
        label: { en: 'Today’s tide table' },
        address: 'https://saltmarsh.example/tides?day=today',
      }),
      part('link', 'times', {
        label: { en: 'Summer timetable' },
        address: 'https://saltmarsh.example/timetable',
      }),
      part('link', 'walks', {
        label: { en: 'Guided walks to Tern Sands' },
        note: { en: 'Every day, two hours before low water' },
        address: 'https://saltmarsh.example/walks',
      }),
      part('hours', 'office', {
        label: { en: 'Ticket office, east gate' },
        hours: {
          week: [1, 2, 3, 4, 5, 6, 7].map((day) => [{ from: '07:30', upTo: day > 5 ? '20:00' : '18:00' }]),
          except: [],
        },
      }),
    ],
  },
}

const seals = ({ seals: picture, waves }: SampleFiles): SamplePage => ({
  name: 'Stop 3: the seals',
  content: {
    ...emptyContent('de', ZONE),
    languages: ['de', 'en'],
    title: { de: 'Halt 3: die Seehunde', en: 'Stop 3: the seals' },
    description: { de: 'Zwei Minuten am Geländer, während das Boot wartet' },
    parts: [
      part('heading', 'title', {
        text: { de: 'Halt 3: die Seehunde', en: 'Stop 3: the seals' },
        size: 'title',
      }),
      part('picture', 'view', {
        picture: { de: picture },
        alt: { de: 'Seehunde auf einer Sandbank', en: 'Seals on a sandbank' },
      }),
      part('audio', 'listen', {
        file: { de: waves },
        label: { de: 'Hören: Wellen und Stille', en: 'Listen: waves and silence' },
      }),
      part('text', 'seals', {
        text: rich({
          de: 'Auf der Sandbank vor Ihnen liegen von Juni bis August bis zu vierzig Tiere.\n\nBitte bleiben Sie leise: Ein Tier, das ins Wasser flieht, braucht eine Stunde, um wieder warm zu werden.',
          en: 'From June to August up to forty animals lie on the sandbank before you.\n\nPlease keep quiet: one that flees into the water needs an hour to be warm again.',
        }),
      }),
      part('questions', 'asked', {
        items: [
          {
            question: { de: 'Warum liegen sie so still?', en: 'Why do they lie so still?' },
            answer: rich({
              de: 'Sie schlafen in der Sonne. Nachts jagen sie.',
              en: 'They sleep in the sun. At night they hunt.',
            }),
          },
        ],
      }),
      part('button', 'book', {
        label: { de: 'Noch eine Fahrt buchen', en: 'Book another trip' },
        address: 'https://saltmarsh.example/seals',
        look: 'filled',
      }),
    ],
  },
})

const OFFICE: SamplePage = {
  name: 'Office in the harbour',
  content: {
    ...emptyContent('de', ZONE),
    languages: ['de', 'en'],
    title: { de: 'Saltmarsh Line im Hafen', en: 'Saltmarsh Line at the harbour' },
    parts: [
      part('contact', 'office', {
        given: 'Jördis',
        family: 'Vantooft',
        role: { de: 'Hafenbüro', en: 'Harbour office' },
        organisation: 'Saltmarsh Line',
        phones: [{ kind: 'work', number: '+49 4931 555 0142' }],
        emails: [{ address: 'hafen@saltmarsh.example' }],
        addresses: [{ street: 'Am Ostanleger 2', postcode: '26506', town: 'Nordend', country: '' }],
        sites: [{ name: 'Website', address: 'https://saltmarsh.example' }],
      }),
      part('place', 'pier', {
        label: { de: 'Ostanleger', en: 'East pier' },
        address: { de: 'Am Ostanleger 2\n26506 Nordend' },
        point: { latitude: 53.62, longitude: 7.16 },
      }),
    ],
  },
}

const BOATS = [
  { key: 'lark', label: { de: 'Lark Holm', en: 'Lark Holm' } },
  { key: 'tern', label: { de: 'Tern Sands', en: 'Tern Sands' } },
  { key: 'skerry', label: { de: 'Grey Skerry', en: 'Grey Skerry' } },
]
/** A question of a kind, with what it asks. */
function ask<K extends QuestionKind>(kind: K, id: string, says: Partial<QuestionOf<K>>): Question {
  // Its own fields, of the kind that is named beside them.
  return { ...newQuestion(kind, id), ...says } as unknown as Question
}
const when = (question: string, ...of: string[]) => ({
  match: 'all' as const,
  tests: [{ question, is: 'chosen' as const, of }],
})

const SURVEY: SamplePage = {
  name: 'Guest survey',
  content: {
    ...emptyContent('de', ZONE),
    languages: ['de', 'en'],
    title: { de: 'Wie war Ihre Überfahrt?', en: 'How was your crossing?' },
    parts: [
      part('heading', 'title', {
        text: { de: 'Wie war Ihre Überfahrt?', en: 'How was your crossing?' },
        size: 'title',
      }),
      part('form', 'survey', {
        steps: 'steps',
        keptMonths: 12,
        questions: [
          ask('section', 'trip', { title: { de: 'Ihre Fahrt', en: 'Your trip' } }),
          ask('one', 'island', {
            label: { de: 'Wohin ging es?', en: 'Where did you go?' },
            name: 'Island',
            choices: BOATS,
            isRequired: true,
          }),
          ask('rating', 'crossing', {
            label: { de: 'Wie war die Überfahrt?', en: 'How was the crossing?' },
            name: 'Crossing',
            isRequired: true,
          }),
          ask('long', 'why', {
            label: { de: 'Was war nicht gut?', en: 'What was not good?' },
            name: 'Not good',
            branch: { match: 'all', tests: [{ question: 'crossing', is: 'most', than: 3 }] },
          }),
          ask('section', 'more', { title: { de: 'Noch zwei Fragen', en: 'Two more questions' } }),
          ask('scale', 'recommend', {
            label: { de: 'Würden Sie uns empfehlen?', en: 'Would you recommend us?' },
            name: 'Recommends',
            low: { de: 'Nein', en: 'No' },
            high: { de: 'Unbedingt', en: 'By all means' },
          }),
          ask('mail', 'mail', {
            label: {
              de: 'Ihre Mailadresse, wenn wir antworten dürfen',
              en: 'Your mail address, if we may reply',
            },
            name: 'Mail',
          }),
        ],
      }),
    ],
  },
}

const PASS: SamplePage = {
  name: 'Season pass',
  content: {
    ...emptyContent('de', ZONE),
    languages: ['de', 'en'],
    title: { de: 'Saisonkarte 2027', en: 'Season pass 2027' },
    parts: [
      part('heading', 'title', { text: { de: 'Saisonkarte 2027', en: 'Season pass 2027' }, size: 'title' }),
      part('text', 'intro', {
        text: rich({
          de: 'Ein Jahr lang zu allen drei Inseln, sooft Sie mögen.',
          en: 'A year to all three islands, as often as you like.',
        }),
      }),
      part('form', 'order', {
        keptMonths: 24,
        mails: true,
        mailSubject: { de: 'Ihre Saisonkarte, {Name}', en: 'Your season pass, {Name}' },
        mailText: rich({
          de: 'Moin {Name},\n\ndanke für Ihre Bestellung: {Pass}. Ihre Karte liegt ab dem 1. März am Schalter für Sie bereit.\n\nIhre Saltmarsh Line',
          en: 'Dear {Name},\n\nthank you for your order: {Pass}. Your pass waits for you at the counter from 1 March on.\n\nYour Saltmarsh Line',
        }),
        replyTo: 'office@saltmarsh.example',
        confirms: true,
        thanks: {
          de: 'Danke, {Name}. Wir melden uns mit Ihrer Karte.',
          en: 'Thank you, {Name}. You will hear from us about your pass.',
        },
        questions: [
          ask('short', 'name', {
            label: { de: 'Ihr Name', en: 'Your name' },
            name: 'Name',
            isRequired: true,
          }),
          ask('mail', 'mail', {
            label: { de: 'Ihre Mailadresse', en: 'Your mail address' },
            name: 'Mail',
            isRequired: true,
          }),
          ask('one', 'pass', {
            label: { de: 'Welche Karte?', en: 'Which pass?' },
            name: 'Pass',
            isRequired: true,
            choices: [
              { key: 'single', label: { de: 'Für eine Person', en: 'For one person' } },
              { key: 'family', label: { de: 'Für eine Familie', en: 'For a family' } },
            ],
          }),
          ask('number', 'children', {
            label: { de: 'Wie viele Kinder?', en: 'How many children?' },
            name: 'Children',
            least: 0,
            most: 9,
            branch: when('pass', 'family'),
          }),
          ask('consent', 'news', {
            label: { de: 'Neuigkeiten', en: 'News' },
            consent: rich({
              de: 'Schicken Sie mir den Fahrplan für den Sommer per Mail.',
              en: 'Send me the summer timetable by mail.',
            }),
            isRequired: false,
            name: 'News',
          }),
        ],
      }),
    ],
  },
}

/** The sample's pages, by the campaign's value. The first of all is number 1. */
export const samplePages = (files: SampleFiles): Readonly<Record<string, readonly SamplePage[]>> => ({
  'summer-26': [TIDES, seals(files), OFFICE, SURVEY],
  'season-pass': [PASS],
})
/** Their numbers, for lanes that lead to them. */
export const TIDES_PAGE = 1
export const SEALS_PAGE = 2
export const OFFICE_PAGE = 3
export const SURVEY_PAGE = 4
export const PASS_PAGE = 5
