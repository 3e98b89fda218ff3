import type Sqlite from 'better-sqlite3'
import { isFile, type Answers } from '@flimbo/core/forms'
import { LEAD_STATES, type LeadFilter, type LeadState, type LeadSummary } from '@flimbo/core/leads'

/** Which leads are meant, in a span of moments (UTC ms). */
export type LeadQuery = Omit<LeadFilter, 'from' | 'to'> & {
  readonly workspaceId: number
  readonly start: number
  readonly end: number
}

interface StoredSummary extends Omit<LeadSummary, 'tags' | 'held' | 'pageName'> {
  readonly tags: string
  readonly held: string
  readonly pageName: string | null
}

const SUMMARY = `l.id, l.version, l.at, l.title, l.email, l.phone, l.state, l.assignedTo, l.tags, l.pageId,
  p.name AS pageName, l.codeId, c.name AS codeName, l.city, l.country, l.held`
const FROM = 'FROM leads l JOIN codes c ON c.id = l.codeId LEFT JOIN pages p ON p.id = l.pageId'

const summaryOf = ({ tags, held, pageName, ...row }: StoredSummary): LeadSummary => ({
  ...row,
  // They were tags, and a reason, when they were stored.
  tags: JSON.parse(tags) as string[],
  held: held === '' ? null : (held as LeadSummary['held']),
  pageName: pageName ?? '',
})

/** A text as LIKE takes it: nothing in it stands for others. */
const likeText = (text: string) => `%${text.toLowerCase().replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`

/** The SQL condition that a query stands for, and its values. */
function conditionOf(query: LeadQuery, withState: boolean): { where: string; values: (string | number)[] } {
  const { workspaceId, start, end, campaignId, pageId, codeId, assignedTo, state, tag, q, held } = query
  const parts: [string, ...(string | number)[]][] = [
    ['l.workspaceId = ?', workspaceId],
    ['l.at >= ? AND l.at < ?', start, end],
    ["l.apart = ''"],
  ]
  if (campaignId !== undefined) parts.push(['l.campaignId = ?', campaignId])
  if (pageId !== undefined) parts.push(['l.pageId = ?', pageId])
  if (codeId !== undefined) parts.push(['l.codeId = ?', codeId])
  if (assignedTo !== undefined) parts.push(['l.assignedTo = ?', assignedTo])
  if (state !== undefined && withState) parts.push(['l.state = ?', state])
  if (tag !== undefined) parts.push(["l.tags LIKE ? ESCAPE '\\'", likeText(JSON.stringify(tag))])
  if (q !== undefined && q.trim() !== '') parts.push(["l.search LIKE ? ESCAPE '\\'", likeText(q.trim())])
  if (held !== 'both') parts.push([held === 'no' ? "l.held = ''" : "l.held <> ''"])
  return {
    where: parts.map(([condition]) => condition).join(' AND '),
    values: parts.flatMap(([, ...values]) => values),
  }
}

/** Who answered forms, for lists and files. */
export function leadQueries(database: Sqlite.Database) {
  return {
    leadsPage(
      query: LeadQuery,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): { rows: LeadSummary[]; total: number; states: Record<LeadState, number> } {
      const some = conditionOf(query, true)
      const all = conditionOf(query, false)
      const counts = database
        .prepare(`SELECT l.state, count(*) AS n FROM leads l WHERE ${all.where} GROUP BY l.state`)
        .all(...all.values) as { state: LeadState; n: number }[]
      const found = new Map(counts.map(({ state, n }) => [state, n]))
      const states = Object.fromEntries(LEAD_STATES.map((state) => [state, found.get(state) ?? 0]))
      const direction = order === 'asc' ? 'ASC' : 'DESC'
      const rows = database
        .prepare(
          `SELECT ${SUMMARY} ${FROM} WHERE ${some.where} ORDER BY l.at ${direction}, l.id ${direction} LIMIT ? OFFSET ?`,
        )
        .all(...some.values, limit, offset) as StoredSummary[]
      return {
        rows: rows.map(summaryOf),
        total:
          query.state === undefined
            ? counts.reduce((sum, { n }) => sum + n, 0)
            : (found.get(query.state) ?? 0),
        // One of each state there is.
        states: states as Record<LeadState, number>,
      }
    },

    /** How many are new in each campaign that is not archived, the latest first. */
    freshLeads(
      workspaceId: number,
    ): { campaignId: number; campaignName: string; count: number; latestAt: number }[] {
      return database
        .prepare(
          `SELECT l.campaignId, c.name AS campaignName, count(*) AS count, max(l.at) AS latestAt
           FROM leads l JOIN campaigns c ON c.id = l.campaignId
           WHERE l.workspaceId = ? AND l.state = 'new' AND l.held = '' AND l.apart = '' AND c.archivedAt IS NULL
           GROUP BY l.campaignId ORDER BY latestAt DESC`,
        )
        .all(workspaceId) as ReturnType<ReturnType<typeof leadQueries>['freshLeads']>
    },

    /** What else the person of a lead answered: by mail address or telephone number, the newest first. */
    leadsOfPerson(
      workspaceId: number,
      email: string,
      phone: string,
      except: number,
      limit: number,
    ): LeadSummary[] {
      if (email === '' && phone === '') return []
      const rows = database
        .prepare(
          `SELECT ${SUMMARY} ${FROM} WHERE l.workspaceId = ? AND l.id <> ?
             AND ((l.email <> '' AND l.email = ?) OR (l.phone <> '' AND l.phone = ?))
           ORDER BY l.at DESC, l.id DESC LIMIT ?`,
        )
        .all(workspaceId, except, email, phone, limit) as StoredSummary[]
      return rows.map(summaryOf)
    },

    /** The numbers of the next leads of a query after one, the oldest first. */
    leadsAfter(query: LeadQuery, after: number, limit: number): number[] {
      const { where, values } = conditionOf(query, true)
      return database
        .prepare(`SELECT l.id FROM leads l WHERE ${where} AND l.id > ? ORDER BY l.id LIMIT ?`)
        .pluck()
        .all(...values, after, limit) as number[]
    },

    /** The keys of all files that stand in answers. */
    answerFileKeys(): string[] {
      const texts = database
        .prepare(`SELECT answers FROM leads WHERE answers LIKE '%"bytes":%'`)
        .pluck()
        .iterate() as IterableIterator<string>
      // They were answers when they were stored.
      return [...texts].flatMap((text) =>
        Object.values(JSON.parse(text) as Answers)
          .filter(isFile)
          .map(({ key }) => key),
      )
    },

    /** The forms that leads of a query answered, each at the newest revision that one of them was shown. */
    leadForms(query: LeadQuery): { pageId: number; part: string; pageRevisionId: number }[] {
      const { where, values } = conditionOf(query, true)
      return database
        .prepare(
          `SELECT l.pageId, l.part, max(l.pageRevisionId) AS pageRevisionId FROM leads l WHERE ${where} GROUP BY l.pageId, l.part`,
        )
        .all(...values) as { pageId: number; part: string; pageRevisionId: number }[]
    },
  }
}
