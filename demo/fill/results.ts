import { DEFAULT_VIEW, type QuestionView } from '@flimbo/core/results'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { tables, type Database } from '../../server/database/index.ts'
import { ZONE } from './calendar.ts'

/** What people of the sample noted on days before today; of the first campaign, or of all. */
const NOTES: readonly (readonly [daysAgo: number, text: string, isOfAll: boolean])[] = [
  [25, 'Storm: no boats after noon', false],
  [13, 'Harbour fair, open until ten', false],
  [4, 'Gale: no boat leaves', false],
  [9, 'School holidays begin', true],
]

const saved = (view: Partial<QuestionView>): QuestionView => ({ ...DEFAULT_VIEW, ...view })
const QUESTIONS: readonly (readonly [name: string, view: QuestionView])[] = [
  ['Which media pay, this year', saved({ what: 'costPerScan', by: ['medium'], period: { preset: 'year' } })],
  [
    'Visitors from abroad, by week',
    saved({ by: ['week', 'country'], filters: { country: ['NL', 'DK', 'GB'] }, period: { preset: '90' } }),
  ],
  ['Leads per scan, by campaign', saved({ what: 'leadRate', by: ['campaign'], period: { preset: '90' } })],
]

/** Notes on days and saved questions, as a team has them. */
export async function fillResults(database: Database, now: number): Promise<void> {
  const [anna] = await database.read.find(tables.people, { order: { id: 'ASC' } })
  const [campaign] = await database.read.find(tables.campaigns, { where: { utmCampaign: 'summer-26' } })
  if (!anna || !campaign) throw new Error('The sample has no manager, or no campaign.')
  const { workspaceId, id: personId } = anna
  await database.write(async (manager) => {
    await manager.insert(
      tables.dayNotes,
      NOTES.map(([daysAgo, text, isOfAll]) => ({
        workspaceId,
        campaignId: isOfAll ? null : campaign.id,
        day: shiftDay(dayIn(ZONE, now), -daysAgo),
        text,
        personId,
        at: now,
      })),
    )
    await manager.insert(
      tables.questions,
      // TypeORM wants to know the parts of a value it only writes as JSON.
      QUESTIONS.map(([name, view]) => ({ workspaceId, name, value: { view } as never, personId, at: now })),
    )
  })
}
