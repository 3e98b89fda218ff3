import Sqlite from 'better-sqlite3'
import { leadInserter } from '../leads/insert.ts'
import { NO_MAILS, type LeadMails, type LeadRecord } from '../leads/record.ts'

let serial = 0

/** Stores somebody who answered, as a front door does. @returns the lead’s number */
export function storeLead(file: string, given: Partial<LeadRecord>, mails: LeadMails = NO_MAILS): number {
  const database = new Sqlite(file)
  const number = String(++serial)
  const [outcome] = leadInserter(database)([
    {
      limit: null,
      isOnceADay: false,
      mails,
      lead: {
        workspaceId: 1,
        campaignId: 1,
        pageId: 1,
        pageRevisionId: 1,
        part: 'f',
        sendKey: `sample ${number}`,
        at: Date.now(),
        scanId: 1,
        codeId: 1,
        routeId: 1,
        revisionId: 1,
        language: 'en',
        country: 'DE',
        region: '',
        city: 'Kiel',
        device: 'phone',
        system: 'iOS',
        utm: { source: 'pier', medium: 'print', campaign: 'summer', content: '', term: '' },
        answers: {},
        consents: [],
        title: `Visitor ${number}`,
        search: `visitor ${number}`,
        email: '',
        phone: '',
        day: '2026-07-01',
        visitor: number,
        held: '',
        apart: '',
        ...given,
      },
    },
  ])
  database.close()
  if (outcome?.kind !== 'stored') throw new Error('The lead was not stored.')
  return outcome.leadId
}
