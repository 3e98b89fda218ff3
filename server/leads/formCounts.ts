import type { EntityManager } from 'typeorm'
import { tables } from '../database/index.ts'

/** Adds to how many answers a form took, those that came otherwise than from the front door. */
export async function addToFormCount(
  manager: EntityManager,
  pageId: number,
  part: string,
  answers: number,
): Promise<void> {
  const { affected } = await manager.increment(tables.formCounts, { pageId, part }, 'answers', answers)
  if (affected === 0) await manager.insert(tables.formCounts, { pageId, part, answers })
}
