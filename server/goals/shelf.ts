import { LRUCache } from 'lru-cache'
import type { Goal, SiteSettings } from '@flimbo/core/goals'
import { tables, type ReadOnly } from '../database/index.ts'
import { readSetting, SETTINGS } from '../workspace/index.ts'
import { GOAL_SITE } from './section.ts'

/** A workspace as its sites report to it. */
export interface ReportedTo {
  readonly settings: SiteSettings
  readonly currency: string
}

/** Whose a code is, and what its campaign wants. */
export interface Wanted {
  readonly workspaceId: number
  readonly goals: readonly Goal[]
}

const KEPT_MAX = 5000

/** What the front door knows of sites and goals, in memory where it was asked for lately. */
export interface GoalShelf {
  site(workspaceId: number): Promise<ReportedTo | null>
  wanted(codeId: number): Promise<Wanted | null>
  /** Makes the next hit see what is stored now. */
  forget(): void
}

export function goalShelf({ read }: Pick<ReadOnly, 'read'>): GoalShelf {
  const sites = new LRUCache<number, Promise<ReportedTo | null>>({ max: KEPT_MAX })
  const codes = new LRUCache<number, Promise<Wanted | null>>({ max: KEPT_MAX })

  /** What is being read is read once, and nothing is kept of what could not be read. */
  function once<T extends object>(
    kept: LRUCache<number, Promise<T | null>>,
    id: number,
    find: () => Promise<T | null>,
  ): Promise<T | null> {
    const known = kept.get(id)
    if (known) return known
    const found = find()
    kept.set(id, found)
    found.catch(() => {
      if (kept.peek(id) === found) kept.delete(id)
    })
    return found
  }

  return {
    site: (workspaceId) =>
      once(sites, workspaceId, async () => {
        if (!(await read.existsBy(tables.workspaces, { id: workspaceId }))) return null
        const [{ value: settings }, { value: own }] = await Promise.all([
          readSetting(read, workspaceId, GOAL_SITE),
          readSetting(read, workspaceId, SETTINGS),
        ])
        return { settings, currency: own.currency }
      }),
    wanted: (codeId) =>
      once(codes, codeId, async () => {
        const code = await read.findOne(tables.codes, { select: { campaignId: true }, where: { id: codeId } })
        const campaign = code && (await read.findOneBy(tables.campaigns, { id: code.campaignId }))
        if (!campaign) return null
        const goals = await read.findBy(tables.goals, { campaignId: campaign.id })
        return { workspaceId: campaign.workspaceId, goals }
      }),
    forget() {
      sites.clear()
      codes.clear()
    },
  }
}
