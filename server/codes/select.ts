import { Brackets, type SelectQueryBuilder } from 'typeorm'
import type { z } from 'zod'
import type { codeFilter, Group } from '@flimbo/core/codes'
import { forAll, sortedPage } from '../api/index.ts'
import { tables, type CampaignRow, type CodeRow, type Database } from '../database/index.ts'
import { tallyOf, type Reader } from '../results/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Tagging } from '../tagging/index.ts'

export type Filter = z.output<typeof codeFilter>
type Sort = { readonly sort: string; readonly order: 'asc' | 'desc'; readonly group?: Group | undefined }

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly reviewer: Reader
  readonly live: LiveHub
  readonly tagging: Tagging
}

const SHOWN = {
  current: "c.state <> 'deleted' AND c.archivedAt IS NULL",
  archived: "c.state <> 'deleted' AND c.archivedAt IS NOT NULL",
  deleted: "c.state = 'deleted'",
  all: '1 = 1',
} as const

const SEARCHED = ['name', 'slug', 'medium', 'source', 'content', 'term', 'place', 'reference', 'key'] as const

/** Ordered lists of numbers that are kept: the pages of one list follow each other. */
/** The column a list is put into groups by. */
const GROUP_COLUMNS = { none: null, route: 'r.name', medium: 'c.medium' } as const

const LISTS_MAX = 12

/** Finds which codes are meant, in order, on the reading thread; the same list is not sorted twice. */
export function codeSelection({ database, reader, reviewer, live, tagging }: Parts) {
  const { read } = database
  const lists = new Map<string, Promise<number[]>>()

  function select(campaign: CampaignRow, filter: Filter): SelectQueryBuilder<CodeRow> {
    const query = read
      .createQueryBuilder(tables.codes, 'c')
      .select('c.id', 'id')
      .where('c.campaignId = :campaignId', { campaignId: campaign.id })
      .andWhere(SHOWN[filter.shown])
    for (const field of ['routeId', 'medium', 'source', 'state'] as const)
      if (filter[field] !== undefined) query.andWhere(`c.${field} = :${field}`, { [field]: filter[field] })
    if (filter.search?.trim()) {
      const like = `%${filter.search.trim().replace(/[\\%_]/g, '\\$&')}%`
      query.andWhere(
        new Brackets((any) => {
          for (const field of SEARCHED) any.orWhere(`c.${field} LIKE :like ESCAPE '\\'`, { like })
        }),
      )
    }
    return query
  }

  async function run(query: SelectQueryBuilder<CodeRow>): Promise<number[]> {
    return reader.ask('numbers', ...(query.getQueryAndParameters() as [string, unknown[]]))
  }

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
    const query = select(campaign, filter)
    if (by.sort === 'route' || by.group === 'route')
      query.innerJoin(tables.routes.options.name, 'r', 'r.id = c.routeId')
    const groupColumn = GROUP_COLUMNS[by.group ?? 'none']
    const scans = by.sort === 'scans' || by.sort === 'lastScan'
    const order = by.order === 'asc' ? 'ASC' : 'DESC'
    if (groupColumn !== null) query.orderBy(groupColumn, 'ASC')
    if (!scans) {
      const column = by.sort === 'route' ? 'r.name' : `c.${by.sort}`
      // What has no value stands last, whichever way the list is sorted.
      query.addOrderBy(`${column} IS NULL OR ${column} = ''`, 'ASC').addOrderBy(column, order)
    }
    query.addOrderBy('c.id', scans ? 'ASC' : order)
    let ids = await run(query)
    if (scans) {
      const groups =
        groupColumn === null
          ? null
          : new Map(
              (
                (await reader.ask(
                  'rows',
                  ...(query.select('c.id', 'id').addSelect(groupColumn, 'g').getQueryAndParameters() as [
                    string,
                    unknown[],
                  ]),
                )) as { id: number; g: string }[]
              ).map(({ id, g }) => [id, g]),
            )
      ids = await byScans(campaign, ids, groups, by)
    }
    return ids
  }

  async function narrowed(campaign: CampaignRow, filter: Filter, ids: number[]): Promise<number[]> {
    if (filter.finding === undefined && filter.channel === undefined) return ids
    const question = await tagging.questionOf(campaign)
    let kept = ids
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
      const key = by === 'medium' ? 'c.medium' : 'r.name'
      const query = select(campaign, filter)
        .innerJoin(tables.routes.options.name, 'r', 'r.id = c.routeId')
        .select(key, 'key')
        .addSelect('c.id', 'id')
        .addSelect('ifnull(c.printRun, 0)', 'printRun')
        .addSelect('ifnull(c.cost, 0)', 'cost')
        .orderBy(key, 'ASC')
      const wanted = new Set(await narrowed(campaign, filter, await run(select(campaign, filter))))
      const rows = (await reader.ask('rows', ...(query.getQueryAndParameters() as [string, unknown[]]))) as {
        key: string
        id: number
        printRun: number
        cost: number
      }[]
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
