import type { EntityManager } from 'typeorm'
import { tables } from '../database/index.ts'

/** Gives a copy of a campaign the same goals, which nobody has reached yet. */
export async function copyGoals(
  manager: EntityManager,
  fromCampaignId: number,
  toCampaignId: number,
  at: number,
): Promise<void> {
  const goals = await manager.find(tables.goals, {
    where: { campaignId: fromCampaignId },
    order: { id: 'ASC' },
  })
  if (goals.length === 0) return
  await manager.insert(
    tables.goals,
    goals.map(({ id: _id, ...goal }) => ({ ...goal, campaignId: toCampaignId, version: 1, createdAt: at })),
  )
}
