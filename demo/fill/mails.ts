import type { Faker } from '@faker-js/faker'
import { nextSummary, type WatchMemory } from '@flimbo/core/watches'
import { LessThan } from 'typeorm'
import { tables, type Database, type WatchRow } from '@flimbo/server/database'
import { PASS_PAGE } from '../scenario/pages.ts'
import { ZONE } from './calendar.ts'
import { MAILED_MS } from './leads.ts'

const DAY_MS = 24 * 3_600_000
const HOUR_MS = 3_600_000
/** How many confirm their address, and how soon. */
const CONFIRMED_SHARE = 0.88
/** Where the sample's office stands with who ordered earlier. */
const STATES = [
  { value: 'done' as const, weight: 80 },
  { value: 'open' as const, weight: 12 },
  { value: 'unusable' as const, weight: 4 },
  { value: 'new' as const, weight: 4 },
]
/** Scans that the sample's season has long had: whoever starts it is told at once. */
const REACHED = 10_000

/** Addresses that were confirmed earlier, and what the sample's manager is told of. */
export async function fillMails(database: Database, faker: Faker, now: number): Promise<void> {
  const earlier = await database.read.find(tables.leads, {
    select: { id: true, at: true },
    where: { pageId: PASS_PAGE, at: LessThan(now - MAILED_MS) },
  })
  const [anna] = await database.read.find(tables.people, { order: { id: 'ASC' }, take: 1 })
  const [campaign] = await database.read.find(tables.campaigns, { where: { utmCampaign: 'summer-26' } })
  const [passes] = await database.read.find(tables.campaigns, { where: { utmCampaign: 'season-pass' } })
  if (!anna || !campaign || !passes) throw new Error('The sample has no manager, or no campaign.')
  const memory: WatchMemory = { toldAt: null }
  const watch = (
    given: Pick<WatchRow, 'refId' | 'what'> & Partial<Pick<WatchRow, 'every' | 'n' | 'nextAt'>>,
  ) => ({
    workspaceId: anna.workspaceId,
    personId: anna.id,
    of: 'campaign' as const,
    every: 'once' as const,
    n: null,
    state: memory,
    nextAt: now,
    createdAt: now,
    ...given,
  })
  await database.write(async (manager) => {
    for (const { id, at } of earlier) {
      const soon = at + faker.number.int({ min: 60_000, max: 9 * HOUR_MS })
      const confirmedAt = faker.number.float() < CONFIRMED_SHARE ? soon : null
      const state = faker.helpers.weightedArrayElement(STATES)
      await manager.update(tables.leads, { id }, { confirmBy: at + 7 * DAY_MS, confirmedAt, state })
    }
    await manager.insert(tables.watches, [
      watch({ refId: campaign.id, what: 'count', n: REACHED }),
      watch({ refId: campaign.id, what: 'summary', every: 'week', nextAt: nextSummary('week', ZONE, now) }),
      watch({ refId: campaign.id, what: 'spike', nextAt: now + HOUR_MS }),
      watch({ refId: passes.id, what: 'leads', nextAt: null }),
    ])
  })
}
