import type { z } from 'zod'
import type { CODE_SORTS, codeFilter, Group } from '@flimbo/core/codes'
import { forAll, sortedPage } from '../api/index.ts'
import type { CampaignRow } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { type Reader } from '../reader/index.ts'
import { tallyOf } from '../results/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Tagging } from '../tagging/index.ts'

export type Filter = z.output<typeof codeFilter>
interface Sort {
  readonly sort: (typeof CODE_SORTS)[number] | 'id'
  readonly order: 'asc' | 'desc'
  readonly group?: Group | undefined
}

interface Parts {
  readonly reader: Reader
  readonly reviewer: Reader
  readonly live: LiveHub
  readonly tagging: Tagging
  readonly domains: Domains
}

/** Ordered lists of numbers that are kept: the pages of one list follow each other. */
const LISTS_MAX = 12

/** Finds which codes are meant, in order, on the reading thread; the same list is not sorted twice. */
export function codeSelection({ reader, reviewer, live, tagging, domains }: Parts) {
  const lists = new Map<string, Promise<number[]>>()

  const queryOf = ({ id }: CampaignRow, { shown, routeId, medium, source, state, search = '' }: Filter) => ({
    campaignId: id,
    shown,
    routeId,
    medium,
    source,
    state,
    search: search.trim(),
  })

  /** The order of a list by what the table itself does not know: counts of scans. */
  async function byScans(
    campaign: CampaignRow,
    ids: readonly number[],
    groups: ReadonlyMap<number, string> | null,
    { sort, order }: Sort,
  ): Promise<number[]> {
    const tallies = await reader.ask('tallies', 'code', { campaign: campaign.id })
    const sorted = sortedPage(ids, { sort, order, page: 0, pageSize: Math.max(1, ids.length) }, (id) =>
      sort === 'scans' ? tallyOf(tallies, id).scans : tallyOf(tallies, id).lastAt,
    )
    // Sorting is stable: within a group the order by scans stays.
    return groups
      ? sorted.sort((a, b) => {
          const [x, y] = [groups.get(a) ?? '', groups.get(b) ?? '']
          return Number(x > y) - Number(x < y)
        })
      : sorted
  }

  async function ordered(campaign: CampaignRow, filter: Filter, by: Sort): Promise<number[]> {
    const query = queryOf(campaign, filter)
    const { sort, order, group = null } = by
    if (sort !== 'scans' && sort !== 'lastScan') return reader.ask('codeIds', query, { sort, order, group })
    const ids = await reader.ask('codeIds', query, { sort: 'id', order: 'asc', group })
    if (group === null) return byScans(campaign, ids, null, by)
    const grouped = await reader.ask('groupedCodes', query, group)
    return byScans(campaign, ids, new Map(grouped.map(({ id, key }) => [id, key])), by)
  }

  async function narrowed(campaign: CampaignRow, filter: Filter, ids: number[]): Promise<number[]> {
    let kept = ids
    if (filter.print !== undefined) {
      const found = new Set(
        await reviewer.ask('withPrintState', campaign.id, domains.originsById(), filter.print),
      )
      kept = kept.filter((id) => found.has(id))
    }
    if (filter.finding === undefined && filter.channel === undefined) return kept
    const question = await tagging.questionOf(campaign)
    if (filter.finding !== undefined) {
      const found = new Set(await reviewer.ask('withFinding', question, filter.finding))
      kept = kept.filter((id) => found.has(id))
    }
    if (filter.channel !== undefined) {
      const found = new Set(
        await reviewer.ask('withChannel', question, filter.channel === '-' ? '' : filter.channel),
      )
      kept = kept.filter((id) => found.has(id))
    }
    return kept
  }

  return {
    /** Numbers of all codes that match, in order. */
    ids(campaign: CampaignRow, filter: Filter, by: Sort = { sort: 'id', order: 'asc' }): Promise<number[]> {
      const work = async () => narrowed(campaign, filter, await ordered(campaign, filter, by))
      if (by.sort === 'scans' || by.sort === 'lastScan') return work()
      const key = JSON.stringify([
        campaign.id,
        live.edition(campaign.workspaceId),
        filter,
        by.sort,
        by.order,
        by.group,
      ])
      const known = lists.get(key)
      if (known) return known
      const list = forAll(work)
      lists.set(key, list)
      list.catch(() => {
        lists.delete(key)
      })
      const [oldest] = lists.keys()
      if (lists.size > LISTS_MAX && oldest !== undefined) lists.delete(oldest)
      return list
    },

    /** Pieces summed by medium or by route, in the order of a grouped list; their scans are summed from those of their codes. */
    async groups(campaign: CampaignRow, filter: Filter, by: Group) {
      const rows = await reader.ask('groupedCodes', queryOf(campaign, filter), by)
      const wanted = new Set(
        await narrowed(
          campaign,
          filter,
          rows.map(({ id }) => id),
        ),
      )
      const tallies = await reader.ask('tallies', 'code', { campaign: campaign.id })
      const groups = new Map<
        string,
        { key: string; pieces: number; scans: number; printRun: number; cost: number }
      >()
      for (const { key: name, id, printRun, cost } of rows) {
        if (!wanted.has(id)) continue
        const group = groups.get(name) ?? { key: name, pieces: 0, scans: 0, printRun: 0, cost: 0 }
        groups.set(name, {
          key: name,
          pieces: group.pieces + 1,
          scans: group.scans + tallyOf(tallies, id).scans,
          printRun: group.printRun + printRun,
          cost: group.cost + cost,
        })
      }
      return [...groups.values()]
    },
  }
}
export type CodeSelection = ReturnType<typeof codeSelection>
