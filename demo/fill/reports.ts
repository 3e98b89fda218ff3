import { reportContent, type MailingSettings, type ReportContent } from '@flimbo/core/reports'
import { DEFAULT_VIEW, type QuestionView } from '@flimbo/core/results'
import { nextTime } from '@flimbo/core/time'
import { tables, type Database } from '../../server/database/index.ts'
import { ZONE } from './calendar.ts'

type Block = ReportContent['blocks'][number]

const question = (key: string, view: Partial<QuestionView>, more: Partial<Block> = {}) => ({
  kind: 'question',
  key,
  value: { view: { ...DEFAULT_VIEW, ...view } },
  ...more,
})
const words = (key: string, ...paragraphs: string[]) => ({
  kind: 'words',
  key,
  text: paragraphs.map((text) => ({ kind: 'paragraph', runs: [{ text }] })),
})

/** What the team hands to the ferry company each month. */
const MONTHLY = [
  words(
    'w1',
    'How the summer timetable was found: posters on the piers, wallets, coasters and desk cards, and what came of each.',
  ),
  question('q1', { what: 'scans' }, { title: 'How often was it scanned?', rows: 0 }),
  question('q2', { what: 'scans', by: ['piece'] }, { title: 'Through which piece?' }),
  question('q3', { what: 'scans', by: ['hourOfWeek'] }, { title: 'When?', rows: 0 }),
  question('q4', { what: 'scans', by: ['city'] }, { title: 'Where?', drawnAs: 'map', rows: 5 }),
  words('w2', 'Rates stand with the interval in which they lie by chance: small ones say little.'),
  question('q5', { what: 'leadRate', by: ['medium'], against: 'before' }, { title: 'To what end?' }),
]

const MAILED: MailingSettings = {
  every: 'month',
  at: '07:30',
  weekday: 1,
  monthDay: 1,
  zone: ZONE,
  to: ['office@saltmarsh.example', 'captain@saltmarsh.example'],
  message: 'Good morning, here is what came of the summer timetable last month.',
  files: ['pdf', 'xlsx'],
  isPaused: false,
}

/** Reports, and when one of them is mailed. */
export async function fillReports(database: Database, now: number): Promise<void> {
  const [anna] = await database.read.find(tables.people, { order: { id: 'ASC' } })
  const [campaign] = await database.read.find(tables.campaigns, { where: { utmCampaign: 'summer-26' } })
  const [style] = await database.read.find(tables.houseStyles, { order: { id: 'ASC' } })
  if (!anna || !campaign) throw new Error('The sample has no manager, or no campaign.')
  const { workspaceId, id: personId } = anna
  const content = reportContent.parse({
    name: 'Summer timetable, monthly',
    campaignId: campaign.id,
    styleId: style?.id ?? null,
    period: { preset: '30' },
    blocks: MONTHLY,
  })
  const { name, clientId, campaignId } = content
  await database.write(async (manager) => {
    const row = {
      workspaceId,
      name,
      clientId,
      campaignId,
      version: 1,
      personId,
      createdAt: now,
      changedAt: now,
    }
    // TypeORM wants to know the parts of a value it only writes as JSON.
    const { identifiers } = await manager.insert(tables.reports, { ...row, content: content as never })
    const [report] = identifiers
    const { every: _every, ...when } = MAILED
    await manager.insert(tables.reportMailings, {
      workspaceId,
      reportId: Number(report?.id),
      settings: MAILED as never,
      personId,
      nextAt: nextTime({ ...when, every: 'month' }, ZONE, now),
      sentAt: null,
      fault: '',
      createdAt: now,
    })
  })
}
