import type Sqlite from 'better-sqlite3'
import { isFile, type Answers } from '@flimbo/core/forms'
import {
  answerRange,
  type AnsweredForm,
  type LeadFilter,
  type LeadNumbers,
  type LeadSummary,
  type NumbersBy,
} from '@flimbo/core/leads'
import { countAnswers, type CountedForm, type CountedLead } from './countAnswers.ts'

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
  l.campaignId, k.name AS campaignName, p.name AS pageName, l.codeId, c.name AS codeName, l.city, l.country, l.held, l.personMark`
const FROM = `FROM leads l JOIN codes c ON c.id = l.codeId JOIN campaigns k ON k.id = l.campaignId
  LEFT JOIN pages p ON p.id = l.pageId`

const summaryOf = ({ tags, held, pageName, ...row }: StoredSummary): LeadSummary => ({
  ...row,
  // They were tags, and a reason, when they were stored.
  tags: JSON.parse(tags) as string[],
  held: held === '' ? null : (held as LeadSummary['held']),
  pageName: pageName ?? '',
})

/** A city with what it lies in, as scans name it. */
const CITY_KEY = 'l.country || char(9) || l.region || char(9) || l.city'

/** A text as LIKE takes it: nothing in it stands for others. */
const likeText = (text: string) => `%${text.toLowerCase().replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`

/** Which answers to a question are meant, whatever they are kept as: text, number, yes or no, or what was chosen. */
function answerCondition(question: string, answer: string): [string, ...(string | number)[]] {
  // A key of a question is nothing but small letters and digits.
  const path = `$.${question}`
  const { from, to, isClosed } = answerRange(answer) ?? { from: 1, to: 0, isClosed: true }
  return [
    `CASE json_type(l.answers, ?)
       WHEN 'object' THEN EXISTS (SELECT 1 FROM json_each(l.answers, ?) WHERE value = ?)
         OR (? = 'other' AND json_extract(l.answers, ?) IS NOT NULL)
         OR ? = 'first.' || json_extract(l.answers, ?)
       WHEN 'true' THEN ? = 'yes'
       WHEN 'false' THEN ? = 'no'
       WHEN 'text' THEN json_extract(l.answers, ?) = ?
       ELSE json_extract(l.answers, ?) >= ? AND json_extract(l.answers, ?) ${isClosed ? '<=' : '<'} ?
     END`,
    ...[path, `${path}.chosen`, answer, answer, `${path}.other`, answer, `${path}.chosen[0]`],
    ...[answer, answer, path, answer, path, from, path, to],
  ]
}

/** The SQL condition that a query stands for, and its values. */
function conditionOf(query: LeadQuery, withState: boolean): { where: string; values: (string | number)[] } {
  const { workspaceId, start, end, campaignId, pageId, codeId, assignedTo, state, tag, q, held } = query
  const { question, answer, medium } = query
  const parts: [string, ...(string | number)[]][] = [
    ['l.workspaceId = ?', workspaceId],
    ['l.at >= ? AND l.at < ?', start, end],
    ["l.apart = ''"],
  ]
  if (campaignId !== undefined) parts.push(['l.campaignId = ?', campaignId])
  if (pageId !== undefined) parts.push(['l.pageId = ?', pageId])
  if (codeId !== undefined) parts.push(['l.codeId = ?', codeId])
  for (const name of ['country', 'region', 'city', 'device'] as const) {
    const value = query[name]
    if (value !== undefined) parts.push([`l.${name} = ?`, value])
  }
  if (medium !== undefined) parts.push(['l.codeId IN (SELECT id FROM codes WHERE medium = ?)', medium])
  if (assignedTo !== undefined) parts.push(['l.assignedTo = ?', assignedTo])
  if (state !== undefined && withState) parts.push(['l.state = ?', state])
  if (tag !== undefined) parts.push(["l.tags LIKE ? ESCAPE '\\'", likeText(JSON.stringify(tag))])
  if (q !== undefined && q.trim() !== '') parts.push(["l.search LIKE ? ESCAPE '\\'", likeText(q.trim())])
  if (question !== undefined && answer !== undefined) parts.push(answerCondition(question, answer))
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
    ): { rows: LeadSummary[]; total: number; states: Record<string, number> } {
      const some = conditionOf(query, true)
      const all = conditionOf(query, false)
      const counts = database
        .prepare(`SELECT l.state, count(*) AS n FROM leads l WHERE ${all.where} GROUP BY l.state`)
        .all(...all.values) as { state: string; n: number }[]
      const found = new Map(counts.map(({ state, n }) => [state, n]))
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
        states: Object.fromEntries(found),
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

    /**
     * What else the person of a lead answered, the newest first: joined by mail address and telephone number, through as
     * many answers as there are, and by what somebody said; whoever was parted from others is joined with nobody.
     */
    leadsOfPerson(id: number, limit: number): LeadSummary[] {
      return database
        .prepare(
          `WITH RECURSIVE person(id, workspaceId, email, phone, personMark) AS (
             SELECT id, workspaceId, email, phone, personMark FROM leads WHERE id = ? AND personMark NOT LIKE 's:%'
             UNION
             SELECT o.id, o.workspaceId, o.email, o.phone, o.personMark FROM person p JOIN leads o
               ON o.id IN (
                 SELECT id FROM leads WHERE p.email <> '' AND workspaceId = p.workspaceId AND email = p.email AND email <> ''
                 UNION ALL
                 SELECT id FROM leads WHERE p.phone <> '' AND workspaceId = p.workspaceId AND phone = p.phone AND phone <> ''
                 UNION ALL
                 SELECT id FROM leads
                 WHERE p.personMark <> '' AND workspaceId = p.workspaceId AND personMark = p.personMark AND personMark <> ''
               )
             WHERE o.personMark NOT LIKE 's:%'
             LIMIT ?)
           SELECT ${SUMMARY} ${FROM} WHERE l.id IN (SELECT id FROM person) AND l.id <> ?
           ORDER BY l.at DESC, l.id DESC LIMIT ?`,
        )
        .all(id, limit + 1, id, limit)
        .map((row) => summaryOf(row as StoredSummary))
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

    /** The forms of a campaign that somebody answered, the most answered first. */
    answeredForms(campaignId: number): AnsweredForm[] {
      return database
        .prepare(
          `SELECT l.pageId, l.part, coalesce(p.name, '') AS pageName, count(*) AS answers
           FROM leads l LEFT JOIN pages p ON p.id = l.pageId
           WHERE l.campaignId = ? AND l.held = '' AND l.apart = '' GROUP BY l.pageId, l.part ORDER BY answers DESC`,
        )
        .all(campaignId) as AnsweredForm[]
    },

    /** How many leads each variant of a route's splits brought, by the lane and variant of the scan that brought them. */
    leadsByVariant(
      routeId: number,
      start: number,
      end: number,
    ): { exit: string; variant: string; leads: number }[] {
      return database
        .prepare(
          `SELECT s.exit, s.variant, count(*) AS leads FROM leads l CROSS JOIN scans s ON s.id = l.scanId
           WHERE l.routeId = ? AND l.at >= ? AND l.at < ? AND l.held = '' AND l.apart = ''
           GROUP BY s.exit, s.variant`,
        )
        .all(routeId, start, end) as { exit: string; variant: string; leads: number }[]
    },

    /** What was answered to each question of a form, of all leads of a query and by what is asked for. */
    leadNumbers(query: LeadQuery, form: CountedForm, by: NumbersBy | undefined, zone: string): LeadNumbers {
      const { where, values } = conditionOf(query, true)
      const rows = database
        .prepare(
          `SELECT l.answers, l.at, l.codeId, l.country, ${CITY_KEY} AS city, l.device FROM leads l
           WHERE ${where} AND l.part = ?`,
        )
        .iterate(...values, form.part) as IterableIterator<CountedLead>
      return countAnswers(rows, form, by, zone)
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
