import type Sqlite from 'better-sqlite3'
import { mailInserter } from '../mail/insert.ts'
import { mailsFor } from './mailsOf.ts'
import type { LeadMails, LeadRecord } from './record.ts'

/** More answers with one mail address in a day, and none of them is mailed there: nobody is buried in mail by a form. */
const MAILS_A_DAY = 5
const DAY_MS = 86_400_000
/** More mails of new leads in an hour to one person, and the rest of them are only in the inbox. */
const TOLD_AN_HOUR = 30
const HOUR_MS = 3_600_000

/** Queues the mails that follow from a lead, in its own transaction: to whoever answered, and to who is told of leads. */
export function leadMailer(database: Sqlite.Database) {
  const mails = mailInserter(database)
  const findWatches = database.prepare(
    `SELECT id, personId FROM watches WHERE what = 'leads' AND
       (("of" = 'campaign' AND refId = ?) OR ("of" = 'route' AND refId = ?) OR ("of" = 'code' AND refId = ?))`,
  )
  const countTold = database.prepare('SELECT count(*) FROM mails WHERE watchId = ? AND at > ?').pluck()
  const countOfAddress = database
    .prepare('SELECT count(*) FROM leads WHERE workspaceId = ? AND email = ? AND at > ?')
    .pluck()

  function toAnswerer(lead: LeadRecord, leadId: number, of: LeadMails): void {
    const { workspaceId, campaignId, email, at } = lead
    if (email === '') return
    if ((countOfAddress.get(workspaceId, email, at - DAY_MS) as number) > MAILS_A_DAY) return
    for (const mail of mailsFor(of)) mails.add({ ...mail, workspaceId, campaignId, leadId, at })
  }

  function toWatchers({ workspaceId, campaignId, routeId, codeId, at }: LeadRecord, leadId: number): void {
    const watches = findWatches.all(campaignId, routeId, codeId) as { id: number; personId: number }[]
    const known = new Set<number>()
    for (const { id, personId } of watches) {
      if (known.has(personId)) continue
      known.add(personId)
      const told = countTold.get(id, at - HOUR_MS) as number
      if (told > TOLD_AN_HOUR) continue
      // The last one says that more may have come.
      const payload = { isLast: told === TOLD_AN_HOUR }
      mails.add({ workspaceId, campaignId, leadId, personId, watchId: id, kind: 'lead', payload, at })
    }
  }

  return (lead: LeadRecord, leadId: number, of: LeadMails): void => {
    toAnswerer(lead, leadId, of)
    toWatchers(lead, leadId)
  }
}
