import type { Faker } from '@faker-js/faker'
import { answerText, type Answer, type Answers, type Question } from '@flimbo/core/forms'
import { plainText } from '@flimbo/core/fields'
import { wordsFor } from '@flimbo/core/words'
import { tables, type Database } from '@flimbo/server/database'
import { mailsOf, NO_MAILS, type LeadToStore } from '@flimbo/server/leads'
import { PASS_PAGE, SURVEY_PAGE } from '../scenario/pages.ts'
import type { Opened } from './onPages.ts'

/** A form of the sample as it is live. */
interface SampleForm {
  readonly part: string
  readonly pageRevisionId: number
  readonly questions: readonly Question[]
}
export type SampleForms = ReadonlyMap<number, SampleForm>

const MINUTE = 60_000
/** Who answered so lately is mailed when the sample is started. */
export const MAILED_MS = 2 * 24 * 3_600_000
const PASS_MAILS = { mails: true, confirms: true, confirmDays: null }
/** How many of those who are shown a form answer it. */
const ANSWER_SHARE: Readonly<Record<number, number>> = { [PASS_PAGE]: 0.42, [SURVEY_PAGE]: 0.3 }
const COMPLAINTS = [
  'It was windy on deck, and there were too few seats inside.',
  'We left twenty minutes late.',
  'Nobody told us where to get off.',
  'The coffee machine was out of order.',
]

export async function sampleForms(database: Database): Promise<SampleForms> {
  const pages = await database.read.find(tables.pages)
  return new Map(
    pages.flatMap(({ id, revisionId, live }) => {
      const form = live?.parts.find(({ kind }) => kind === 'form')
      return form?.kind === 'form'
        ? [[id, { part: form.id, pageRevisionId: revisionId, questions: form.questions }] as const]
        : []
    }),
  )
}

/** What somebody answers, as people do; names and addresses are invented. */
function answersTo(faker: Faker, pageId: number): Answers {
  const given = faker.person.firstName()
  const family = faker.person.lastName()
  const mail = `${given}.${family}`.toLowerCase().replace(/[^a-z.]/g, '')
  const chance = (share: number) => faker.number.float() < share
  if (pageId === PASS_PAGE) {
    const isFamily = chance(0.4)
    return {
      name: `${given} ${family}`,
      mail: `${mail}@mailbox.example`,
      pass: { chosen: [isFamily ? 'family' : 'single'] },
      ...(isFamily ? { children: faker.number.int({ min: 1, max: 4 }) } : {}),
      ...(chance(0.55) ? { news: true } : {}),
    }
  }
  const crossing = faker.helpers.weightedArrayElement(
    [1, 2, 3, 4, 5].map((value, i) => ({ value, weight: [1, 2, 4, 9, 11][i] ?? 1 })),
  )
  const answers: Record<string, Answer> = {
    island: { chosen: [faker.helpers.arrayElement(['lark', 'tern', 'skerry'])] },
    crossing,
  }
  if (crossing <= 3 && chance(0.6)) answers.why = faker.helpers.arrayElement(COMPLAINTS)
  if (chance(0.8))
    answers.recommend = Math.min(10, Math.max(0, crossing * 2 + faker.number.int({ min: -2, max: 1 })))
  if (chance(0.25)) answers.mail = `${mail}@mailbox.example`
  return answers
}

/** Who answered, of scans that were shown forms; programs never do. */
export function leadsOf(
  faker: Faker,
  opened: readonly Opened[],
  scanIds: ReadonlyMap<number, number>,
  forms: SampleForms,
  now: number,
): LeadToStore[] {
  return opened.flatMap(({ place, at, apart, visitor, ...scan }): LeadToStore[] => {
    const form = forms.get(scan.pageId)
    const scanId = scanIds.get(place)
    if (!form || scanId === undefined || apart !== '') return []
    if (faker.number.float() >= (ANSWER_SHARE[scan.pageId] ?? 0)) return []
    const answers = answersTo(faker, scan.pageId)
    const around = { language: 'de', languages: ['de', 'en'], words: wordsFor(['de']).words.forms }
    const { name, mail } = answers
    const consents = form.questions.flatMap((each) =>
      each.kind === 'consent' && answers[each.id] === true
        ? [{ question: each.id, words: plainText(each.consent.de ?? []), language: 'de' }]
        : [],
    )
    const { workspaceId, campaignId, day, language, device, utm } = visitor
    return [
      {
        limit: null,
        isOnceADay: false,
        mails: scan.pageId === PASS_PAGE && at > now - MAILED_MS ? mailsOf(PASS_MAILS, at) : NO_MAILS,
        lead: {
          ...scan,
          workspaceId,
          campaignId,
          pageRevisionId: form.pageRevisionId,
          part: form.part,
          sendKey: `sample ${String(scanId)}`,
          at: at + faker.number.int({ min: MINUTE / 2, max: 4 * MINUTE }),
          scanId,
          language: language.startsWith('en') ? 'en' : 'de',
          country: visitor.place.country,
          region: visitor.place.region,
          city: visitor.place.city,
          device: device.type,
          system: device.system,
          utm,
          answers,
          consents,
          title: [name, mail].find((text) => typeof text === 'string') ?? '',
          search: form.questions
            .map((each) => answerText(each, answers[each.id], around))
            .filter(Boolean)
            .join('\n')
            .toLowerCase(),
          email: typeof mail === 'string' ? mail : '',
          phone: '',
          day,
          visitor: visitor.visitor,
          held: '',
          apart: '',
        },
      },
    ]
  })
}
