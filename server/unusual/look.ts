import { IsNull, LessThan, MoreThanOrEqual, type EntityManager } from 'typeorm'
import { shiftDay } from '@flimbo/core/time'
import { findingInWords, type Finding } from '@flimbo/core/unusual'
import { tables, type CampaignRow, type Database } from '../database/index.ts'
import { lookAgain } from '../jobs/index.ts'
import { queueMail } from '../mail/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { campaignFindings } from './campaignFindings.ts'

/** How often it is looked, and how long after the start the first time: whoever opens the office comes first. */
const LOOK_MS = 15 * 60_000
const FIRST_MS = 20_000
/** What was found so long ago is forgotten. */
const KEPT_MS = 400 * 24 * 3_600_000

interface Parts {
  readonly database: Database
  /** A reading thread whose other work can wait. */
  readonly reviewer: Reader
  readonly live: Pick<LiveHub, 'tell'>
}

/** What something unusual is of, by name. */
async function nameOf(manager: EntityManager, { codeId }: Finding, campaign: CampaignRow): Promise<string> {
  const code = codeId === null ? null : await manager.findOneBy(tables.codes, { id: codeId })
  return code?.name ?? campaign.name
}

/** Keeps what is new of what was found, and mails it to who watches for it. @returns how much is new */
async function keep(
  manager: EntityManager,
  campaign: CampaignRow,
  found: readonly Finding[],
  now: number,
): Promise<number> {
  const { id: campaignId, workspaceId } = campaign
  const fresh: Finding[] = []
  for (const finding of found) {
    const { kind, day, key } = finding
    const of = { campaignId, codeId: finding.codeId ?? 0, kind, day, key }
    // The latest two days are looked at for countries: the same visitors are there on both.
    const isKnown = kind === 'country' ? { ...of, day: MoreThanOrEqual(shiftDay(day, -1)) } : of
    if (await manager.existsBy(tables.unusual, isKnown)) continue
    await manager.insert(tables.unusual, { ...finding, ...of, workspaceId, at: now, seenAt: null })
    fresh.push(finding)
  }
  const [first] = fresh
  if (!first) return 0
  const others = fresh.length > 1 ? ` And ${String(fresh.length - 1)} more, on the desk.` : ''
  const sentence = `“${await nameOf(manager, first, campaign)}” ${findingInWords(first)}${others}`
  const watches = await manager.findBy(tables.watches, { of: 'campaign', refId: campaignId, what: 'unusual' })
  for (const { id: watchId, personId } of watches) {
    await queueMail(manager, {
      ...{ workspaceId, campaignId, personId, watchId, at: now },
      ...{ kind: 'notice', payload: { sentence } },
    })
    await manager.update(tables.watches, { id: watchId }, { state: { toldAt: now } })
  }
  return fresh.length
}

/** Looks over all campaigns that are not archived; ends before the next of them where it is to stop. */
export async function lookForUnusual(
  { database, reviewer, live }: Parts,
  now: number,
  stopping?: AbortSignal,
): Promise<void> {
  const campaigns = await database.read.findBy(tables.campaigns, { archivedAt: IsNull() })
  const faults: unknown[] = []
  for (const campaign of campaigns) {
    if (stopping?.aborted) return
    try {
      const found = await campaignFindings(database, reviewer, campaign, now)
      if (found.length === 0) continue
      const news = await database.writeAside((manager) => keep(manager, campaign, found, now))
      if (news > 0) live.tell(campaign.workspaceId, { type: 'mails' })
    } catch (error) {
      // One that cannot be looked over must not keep the others from it.
      faults.push(error)
    }
  }
  await database.writeAside((manager) => manager.delete(tables.unusual, { at: LessThan(now - KEPT_MS) }))
  if (faults.length > 0) throw new AggregateError(faults, 'Some campaigns could not be looked over')
}

/** Looks again and again, for as long as the office runs. */
export const startLookingForUnusual = (parts: Parts, failed: (error: unknown) => void) =>
  lookAgain((stopping) => lookForUnusual(parts, Date.now(), stopping), failed, {
    everyMs: LOOK_MS,
    firstMs: FIRST_MS,
  })
