import type Sqlite from 'better-sqlite3'
import type { CODE_SORTS, Group } from '@flimbo/core/codes'

/** Which codes of a campaign are meant, by what their own table knows. */
export interface CodeQuery {
  readonly campaignId: number
  readonly shown: keyof typeof SHOWN
  readonly routeId?: number | undefined
  readonly medium?: string | undefined
  readonly source?: string | undefined
  readonly state?: string | undefined
  /** Part of any of the texts people know a piece by; empty for all. */
  readonly search: string
}

/** What they are sorted by; counts of scans are none of their table's. */
export type CodeColumn = Exclude<(typeof CODE_SORTS)[number], 'scans' | 'lastScan'> | 'id'
export interface CodeOrder {
  readonly sort: CodeColumn
  readonly order: 'asc' | 'desc'
  readonly group: Group | null
}

/** A code in a list that is put into groups. */
export interface GroupedCode {
  readonly key: string
  readonly id: number
  readonly printRun: number
  readonly cost: number
}

const SHOWN = {
  current: "c.state <> 'deleted' AND c.archivedAt IS NULL",
  archived: "c.state <> 'deleted' AND c.archivedAt IS NOT NULL",
  deleted: "c.state = 'deleted'",
  all: '1 = 1',
} as const
const SEARCHED = ['name', 'slug', 'medium', 'source', 'content', 'term', 'place', 'reference', 'key'] as const
const FIELDS = ['routeId', 'medium', 'source', 'state'] as const
const GROUPS: Readonly<Record<Group, string>> = { route: 'r.name', medium: 'c.medium' }
const FROM = 'FROM codes c JOIN routes r ON r.id = c.routeId'

const columnOf = (sort: CodeColumn) => (sort === 'route' ? 'r.name' : `c.${sort}`)

/** The condition a query stands for, with its values. */
function where(query: CodeQuery): { condition: string; values: (string | number)[] } {
  const parts = ['c.campaignId = ?', SHOWN[query.shown]]
  const values: (string | number)[] = [query.campaignId]
  for (const field of FIELDS) {
    const value = query[field]
    if (value === undefined) continue
    parts.push(`c.${field} = ?`)
    values.push(value)
  }
  if (query.search !== '') {
    const like = `%${query.search.replace(/[\\%_]/g, '\\$&')}%`
    parts.push(`(${SEARCHED.map((field) => `c.${field} LIKE ? ESCAPE '\\'`).join(' OR ')})`)
    values.push(...SEARCHED.map(() => like))
  }
  return { condition: parts.join(' AND '), values }
}

/** Ordered lists of a campaign's codes. */
export function codeLists(database: Sqlite.Database) {
  return {
    /** Numbers of the codes, in order; what has no value stands last, whichever way the list is sorted. */
    codeIds: (query: CodeQuery, { sort, order, group }: CodeOrder): number[] => {
      const { condition, values } = where(query)
      const column = columnOf(sort)
      const direction = order === 'asc' ? 'ASC' : 'DESC'
      const by = [
        ...(group === null ? [] : [`${GROUPS[group]} ASC`]),
        `${column} IS NULL OR ${column} = '' ASC`,
        `${column} ${direction}`,
        `c.id ${direction}`,
      ]
      return database
        .prepare(`SELECT c.id ${FROM} WHERE ${condition} ORDER BY ${by.join(', ')}`)
        .pluck()
        .all(...values) as number[]
    },

    /** The same codes with the group each is in and what is summed of it, group by group. */
    groupedCodes: (query: CodeQuery, group: Group): GroupedCode[] => {
      const { condition, values } = where(query)
      return database
        .prepare(
          `SELECT ${GROUPS[group]} AS key, c.id, coalesce(c.printRun, 0) AS printRun, coalesce(c.cost, 0) AS cost
          ${FROM} WHERE ${condition} ORDER BY 1, 2`,
        )
        .all(...values) as GroupedCode[]
    },
  }
}
