import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '../database/index.ts'
import { leadInserter } from './insert.ts'
import { storedAnswers } from './stored.ts'
import { NO_MAILS, type LeadOutcome, type LeadRecord, type LeadToStore } from './record.ts'

let directory: string
let file: string
beforeAll(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-leads-'))
  file = join(directory, 'flimbo.sqlite')
  await (await openDatabase(file)).close()
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const LEAD: LeadRecord = {
  workspaceId: 1,
  campaignId: 1,
  pageId: 1,
  pageRevisionId: 1,
  part: 'f',
  sendKey: '',
  at: 1000,
  scanId: 1,
  codeId: 1,
  routeId: 1,
  revisionId: 1,
  language: 'en',
  country: '',
  region: '',
  city: '',
  device: 'phone',
  system: '',
  utm: {},
  answers: {},
  consents: [],
  title: '',
  search: '',
  email: '',
  phone: '',
  day: '2026-07-01',
  visitor: '',
  held: '',
  apart: '',
}

/** An answer as a front door would have it stored. */
const sent = fc.record({
  sendKey: fc.integer({ min: 0, max: 12 }).map((n) => `key ${String(n)}`),
  visitor: fc.constantFrom('ada', 'bo', 'cy'),
  day: fc.constantFrom('2026-07-01', '2026-07-02'),
  held: fc.constantFrom('' as const, '' as const, '' as const, 'quick' as const),
  apart: fc.constantFrom('', '', '', 'test'),
})
const bounds = fc.record({ limit: fc.option(fc.integer({ min: 0, max: 5 })), isOnceADay: fc.boolean() })

/** What becomes of answers one after the other, as somebody would keep count of them on paper. */
function onPaper(leads: readonly LeadToStore[]): string[] {
  const keys = new Map<string, number>()
  const seen = new Set<string>()
  let count = 0
  return leads.map(({ lead: { sendKey, day, visitor, held, apart }, limit, isOnceADay }) => {
    const before = keys.get(sendKey)
    if (before !== undefined) return `again ${String(before)}`
    const isCounted = held === '' && apart === ''
    if (isCounted && limit !== null && count >= limit) return 'full'
    if (isCounted && isOnceADay && seen.has(`${day} ${visitor}`)) return 'once'
    keys.set(sendKey, keys.size)
    if (held === '') seen.add(`${day} ${visitor}`)
    if (isCounted) count++
    return 'new'
  })
}

let pages = 0
describe('answers of a form', () => {
  it('are stored once each, up to its bounds and not one more, however they are grouped into commits', () => {
    const database = new Sqlite(file)
    database.pragma('synchronous = OFF')
    const insert = leadInserter(database)
    const { answersOf, sentAnswers } = storedAnswers(database)
    fc.assert(
      fc.property(
        fc.array(sent, { maxLength: 25 }),
        bounds,
        fc.integer({ min: 1, max: 6 }),
        (all, bound, atOnce) => {
          const pageId = ++pages
          const nameOf = (key: string) => `${String(pageId)} ${key}`
          const leads = all.map((given): LeadToStore => ({
            ...bound,
            mails: NO_MAILS,
            lead: {
              ...LEAD,
              ...given,
              pageId,
              sendKey: nameOf(given.sendKey),
              answers: { a: given.sendKey },
            },
          }))
          const outcomes: LeadOutcome[] = []
          for (let i = 0; i < leads.length; i += atOnce) outcomes.push(...insert(leads.slice(i, i + atOnce)))
          const ids: number[] = []
          const told = outcomes.map((outcome) => {
            if (outcome.kind !== 'stored') return outcome.kind
            if (!outcome.isNew) return `again ${String(ids.indexOf(outcome.leadId))}`
            ids.push(outcome.leadId)
            return 'new'
          })
          expect(told).toEqual(onPaper(leads))
          const counted = leads.filter(
            ({ lead }, i) => told[i] === 'new' && lead.held === '' && lead.apart === '',
          ).length
          expect(answersOf(pageId, 'f')).toBe(counted)
          for (const { lead } of leads.filter((_lead, i) => told[i] === 'new'))
            expect(sentAnswers(lead.sendKey)).toEqual(lead.answers)
          expect(sentAnswers(nameOf('key 99'))).toBeNull()
        },
      ),
      { numRuns: 150 },
    )
    database.close()
  })

  it('of a commit that fails are none of them there, and are stored when they are sent again', () => {
    const database = new Sqlite(file)
    const insert = leadInserter(database)
    const pageId = ++pages
    const lead = (sendKey: string, more: Partial<LeadRecord> = {}): LeadToStore => ({
      limit: null,
      isOnceADay: false,
      mails: NO_MAILS,
      lead: { ...LEAD, pageId, sendKey, ...more },
    })
    const broken = lead('b', { title: undefined as never })
    expect(() => insert([lead('a'), broken])).toThrow(/NOT NULL/)
    expect(storedAnswers(database).answersOf(pageId, 'f')).toBe(0)
    expect(insert([lead('a'), lead('b')]).map(({ kind }) => kind)).toEqual(['stored', 'stored'])
    database.close()
  })
})
