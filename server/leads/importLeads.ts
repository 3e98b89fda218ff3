import { createHash } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { faultWords, questionTitle, readForm, type Answers, type FormSettings } from '@flimbo/core/forms'
import { said } from '@flimbo/core/fields'
import type { LeadLine } from '@flimbo/core/leads'
import { dayIn } from '@flimbo/core/time'
import { wordsFor } from '@flimbo/core/words'
import {
  findAmong,
  tables,
  type CodeRow,
  type Database,
  type LeadRow,
  type PageRow,
} from '../database/index.ts'
import { calledBy } from './calledBy.ts'
import { addToFormCount } from './formCounts.ts'
import { answerReaders } from './readers.ts'

/** Lines that are stored together, and how long scans then have the disk to themselves. */
const AT_ONCE = 10
const REST_MS = 4
const FAULTS_MAX = 500

interface Into {
  readonly workspaceId: number
  readonly workspaceZone: string
  readonly page: PageRow
  readonly part: string
  readonly form: FormSettings
  readonly languages: readonly string[]
  readonly code: CodeRow
  /** The value of the campaign. */
  readonly utmCampaign: string
}
interface ImportOutcome {
  stored: number
  known: number
  faults: { line: number; question: string; sentence: string }[]
}

/** The same for the same answers on the same form: what is taken in twice is one lead. */
function sendKeyOf({ page, part, code }: Into, { at, sent }: LeadLine): string {
  const said = JSON.stringify([page.id, part, code.id, at, sent])
  return `import ${createHash('sha256').update(said).digest('base64url')}`
}

/** A moment as a file has it, by ISO 8601; now where it has none, and null where it is none or still to come. */
function momentOf(text: string, now: number): number | null {
  if (text === '') return now
  const at = /^\d{4}-\d\d-\d\d/.test(text) ? Date.parse(text) : NaN
  return Number.isNaN(at) || at > now || at < 0 ? null : at
}

function rowOf(
  into: Into,
  line: LeadLine,
  answers: Answers,
  at: number,
  sendKey: string,
): Omit<LeadRow, 'id'> {
  const { page, part, form, languages, code } = into
  const [language = 'en'] = languages
  return {
    workspaceId: into.workspaceId,
    campaignId: code.campaignId,
    pageId: page.id,
    pageRevisionId: page.revisionId,
    part,
    sendKey,
    at,
    scanId: 0,
    codeId: code.id,
    routeId: code.routeId,
    revisionId: 0,
    language,
    country: '',
    region: '',
    city: '',
    device: '',
    system: '',
    utm: {
      source: code.source,
      medium: code.medium,
      campaign: into.utmCampaign,
      content: code.content,
      term: '',
    },
    answers,
    consents: [],
    ...calledBy(form.questions, languages, answers, language),
    day: dayIn(into.workspaceZone, at),
    visitor: `import ${String(line.line)}`,
    held: '',
    apart: '',
    tags: [],
    state: 'new',
    assignedTo: null,
    version: 1,
    personMark: '',
    confirmBy: null,
    confirmedAt: null,
  }
}

/** Takes in answers of a file: those without a fault, each once. Nobody is mailed for them. */
export async function importLeads(
  database: Database,
  into: Into,
  lines: readonly LeadLine[],
): Promise<ImportOutcome> {
  const { form, languages } = into
  const { questions } = form
  const outcome: ImportOutcome = { stored: 0, known: 0, faults: [] }
  const reading = { language: languages[0] ?? 'en', languages }
  const { words } = wordsFor(['en'])
  const titles = new Map(
    questions.map((each) => [each.id, questionTitle(each, (value) => said(reading, value).text)]),
  )
  const readers = { ...answerReaders, file: () => null, hidden: () => '', language: reading.language }
  const now = Date.now()
  const fresh = new Map<string, Omit<LeadRow, 'id'>>()
  const addFault = (line: number, question: string, sentence: string) => {
    if (outcome.faults.length < FAULTS_MAX) outcome.faults.push({ line, question, sentence })
  }
  for (const line of lines) {
    const at = momentOf(line.at, now)
    if (at === null)
      addFault(
        line.line,
        '',
        'Write the time by ISO 8601, such as 2026-07-03T09:00Z, and none still to come.',
      )
    const sent = new Map(line.sent.map(([name, values]) => [name, [...values]]))
    const { answers, faults } = readForm(questions, sent, readers)
    for (const [id, fault] of faults)
      addFault(line.line, titles.get(id) ?? '', faultWords(fault, words, 'en'))
    if (at === null || faults.size > 0) continue
    const sendKey = sendKeyOf(into, line)
    if (fresh.has(sendKey)) outcome.known++
    else fresh.set(sendKey, rowOf(into, line, answers, at, sendKey))
  }
  const there = await findAmong(database.read, tables.leads, 'sendKey', [...fresh.keys()])
  const known = new Set(there.map(({ sendKey }) => sendKey))
  const rows = [...fresh.values()].filter(({ sendKey }) => !known.has(sendKey))
  outcome.known += known.size
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    const some = rows.slice(i, i + AT_ONCE)
    await database.write(async (manager) => {
      await manager.insert(tables.leads, some)
      await addToFormCount(manager, into.page.id, into.part, some.length)
    })
    outcome.stored += some.length
    await pause(REST_MS)
  }
  return outcome
}
