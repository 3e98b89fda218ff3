import type Sqlite from 'better-sqlite3'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { leadMailer } from './leadMailer.ts'
import type { LeadOutcome, LeadRecord, LeadToStore } from './record.ts'

const COLUMNS = [
  ...([
    'workspaceId',
    'campaignId',
    'pageId',
    'pageRevisionId',
    'part',
    'sendKey',
    'at',
    'scanId',
    'codeId',
  ] as const),
  ...([
    'routeId',
    'revisionId',
    'language',
    'country',
    'region',
    'city',
    'device',
    'system',
    'utm',
    'answers',
  ] as const),
  ...(['consents', 'title', 'search', 'email', 'phone', 'day', 'visitor', 'held', 'apart'] as const),
] satisfies readonly (keyof LeadRecord)[]

const stored = (value: LeadRecord[keyof LeadRecord]) =>
  typeof value === 'object' ? JSON.stringify(value) : value

/**
 * Stores answers of forms, each in the order it came, all of a call in one commit. What was sent before is not stored
 * again; how many a form took is counted in the same commit, so that no answer is one too many. So are the mails that
 * follow: whatever stops then, they are sent.
 */
export function leadInserter(database: Sqlite.Database) {
  const findSent = database.prepare('SELECT id FROM leads WHERE sendKey = ?').pluck()
  const findToday = database.prepare(
    "SELECT id FROM leads WHERE pageId = ? AND part = ? AND day = ? AND visitor = ? AND held = '' LIMIT 1",
  )
  const findCount = database.prepare('SELECT answers FROM form_counts WHERE pageId = ? AND part = ?').pluck()
  const countOne = database.prepare(
    `INSERT INTO form_counts (pageId, part, answers) VALUES (?, ?, 1)
     ON CONFLICT (pageId, part) DO UPDATE SET answers = form_counts.answers + 1`,
  )
  const insert = database.prepare(
    `INSERT INTO leads (${COLUMNS.join(', ')}, confirmBy, tags, state, assignedTo, version)
     VALUES (${COLUMNS.map(() => '?').join(', ')}, ?, '[]', 'new', NULL, 1)`,
  )
  const follow = leadMailer(database)

  function storeOne({ lead, limit, isOnceADay, mails }: LeadToStore): LeadOutcome {
    const { pageId, part, day, visitor, held, apart, sendKey } = lead
    const sent = findSent.get(sendKey) as number | undefined
    if (sent !== undefined) return { kind: 'stored', leadId: sent, isNew: false }
    if (held === '' && apart === '') {
      if (limit !== null && ((findCount.get(pageId, part) as number | undefined) ?? 0) >= limit)
        return { kind: 'full' }
      if (isOnceADay && findToday.get(pageId, part, day, visitor) !== undefined) return { kind: 'once' }
      countOne.run(pageId, part)
    }
    const isTaken = held === '' && apart === ''
    const { lastInsertRowid } = insert.run(
      ...COLUMNS.map((name) => stored(lead[name])),
      // Whoever gave no address has none to confirm.
      isTaken && lead.email !== '' ? mails.confirmBy : null,
    )
    const leadId = Number(lastInsertRowid)
    if (isTaken) follow(lead, leadId, mails)
    return { kind: 'stored', leadId, isNew: true }
  }
  const storeAll = database.transaction((leads: readonly LeadToStore[]) => leads.map(storeOne))
  return (leads: readonly LeadToStore[]): LeadOutcome[] => {
    let outcomes: LeadOutcome[] = []
    retryWhenLockedSync(() => {
      outcomes = storeAll.immediate(leads)
    })
    return outcomes
  }
}
