import type { EntityManager } from 'typeorm'
import { filtersInWords, questionTitle } from '@flimbo/core/charts'
import { isOfKind, type Dimension } from '@flimbo/core/dimensions'
import {
  lookOfStyle,
  PLAIN_REPORT_LOOK,
  type FailedQuestion,
  type MadeQuestion,
  type MadeReport,
  type MadeSection,
  type ReportContent,
  type ReportQuestion,
} from '@flimbo/core/reports'
import {
  againstName,
  daysOf,
  isForecast,
  namingQuestions,
  NO_FIGURES,
  partedBy,
  viewAgainst,
  viewQuestions,
  type Answer,
} from '@flimbo/core/results'
import type { Of } from '@flimbo/core/scans'
import { Refusal } from '../api/index.ts'
import { tables, type WorkspaceRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { withinOf, type AskFigures } from '../results/index.ts'
import { readSetting, SETTINGS } from '../workspace/index.ts'
import { isWithin, scopeOfQuestion, scopeOfReport, type FoundScope } from './scopes.ts'

interface Parts {
  readonly read: EntityManager
  readonly reader: Reader
  readonly askFigures: AskFigures
}

type Workspace = Pick<WorkspaceRow, 'id' | 'name' | 'zone'>
type Days = { readonly from: string; readonly to: string }

/**
 * Answers all questions of a report.
 *
 * @param now the moment, in UTC ms, that days which go with the day are worked out of
 */
export type MakeReport = (workspace: Workspace, content: ReportContent, now: number) => Promise<MadeReport>

const titleOf = ({ title, value }: ReportQuestion, by: readonly Dimension[]) =>
  title === '' ? questionTitle(value.view.what, by) : title

/** RFC 9110, section 15.6.4: come again in a moment. */
export const BUSY = 503

const EMPTY: Answer = {
  rows: [],
  rowsTotal: 0,
  total: { ...NO_FIGURES, before: null },
  names: {},
  spots: {},
  leads: [],
  leavesOutFolded: false,
}

/** Asks for reports what screens ask for, in the same way: one question after the other, so that none of them waits for long. */
export function reportMaker({ read, reader, askFigures }: Parts): MakeReport {
  async function marksOf(workspaceId: number, of: Of, zone: string, days: Days) {
    const within = withinOf(of, workspaceId)
    return (await reader.ask('summary', { ...within, forWorkspace: workspaceId, zone, ...days })).marks
  }

  async function expectedOf(workspaceId: number, of: Of, zone: string, days: Days, now: number) {
    const minute = Math.floor(now / 60_000)
    const rows = await reader.ask('expectedDays', withinOf(of, workspaceId), zone, days, minute)
    return rows.map(({ day, expected, low, high }) => ({ key: day, expected, low, high }))
  }

  async function answered(
    workspace: Workspace,
    question: ReportQuestion,
    scope: FoundScope,
    report: ReportContent,
    now: number,
  ): Promise<MadeQuestion> {
    const { key, value, hasOwnPeriod, drawnAs, hasPatterns, rows } = question
    const { view } = value
    const { of, campaign, code, name } = scope
    const zone = campaign?.zone ?? workspace.zone
    const days = daysOf(hasOwnPeriod ? view.period : report.period, zone, now)
    const by = partedBy(view, days)
    const naming = namingQuestions(view.filters)
    const { answers, before, rowsSince } = await askFigures(workspace, campaign, {
      ...of,
      ...days,
      ...viewAgainst(view, of.campaignId),
      questions: [...viewQuestions(view, by), ...naming],
    })
    const [total = EMPTY, answer = EMPTY, ...named] = answers
    const names = named.reduce<Answer['names']>((all, each) => ({ ...all, ...each.names }), {})
    const [first] = by
    const isByTime = by.length === 1 && first !== undefined && isOfKind(first, 'time')
    const isAllOfReport = scope.campaign?.id === report.campaignId && !code && of.routeId === undefined
    const { latitude = null, longitude = null } = code ?? {}
    return {
      kind: 'question',
      key,
      title: titleOf(question, by),
      of: isAllOfReport || (report.campaignId === null && !campaign) ? '' : name,
      zone,
      ...days,
      what: view.what,
      by: [...by],
      narrowed: filtersInWords(view.filters, names).map(({ text }) => text),
      against: againstName(view.against, before),
      before,
      total: total.total,
      answer,
      marks: isByTime ? await marksOf(workspace.id, of, zone, days) : [],
      expected: isForecast(view, by) ? await expectedOf(workspace.id, of, zone, days, now) : [],
      rowsSince,
      chosen: (first && view.filters[first]) ?? [],
      drawnAs,
      hasPatterns,
      rows,
      spot: latitude === null || longitude === null ? null : { latitude, longitude },
    }
  }

  async function section(
    workspace: Workspace,
    question: ReportQuestion,
    report: ReportContent,
    now: number,
  ): Promise<MadeQuestion | FailedQuestion> {
    const { key } = question
    const failed = (sentence: string): FailedQuestion => ({
      kind: 'failed',
      key,
      title: titleOf(question, question.value.view.by),
      sentence,
    })
    const scope = await scopeOfQuestion(read, workspace.id, question, report)
    if (!scope) return failed('What this question is about was deleted. Take the question out of the report.')
    if (!isWithin(report, scope))
      return failed('What this question is about was moved, and is no longer part of what the report is of.')
    try {
      return await answered(workspace, question, scope, report, now)
    } catch (error) {
      // What is only busy just now can be answered a moment later: nothing is wrong with the question.
      if (!(error instanceof Refusal) || error.problem.status === BUSY) throw error
      return failed(error.problem.fields?.[0]?.message ?? error.problem.detail)
    }
  }

  return async (workspace, content, now) => {
    const scope = await scopeOfReport(read, workspace.id, content)
    if (!scope) throw new Refusal('missing', 'What this report is of was deleted. Make a new report.')
    const client =
      scope.clientId === null ? null : await read.findOneBy(tables.clients, { id: scope.clientId })
    const style =
      content.styleId === null
        ? null
        : await read.findOneBy(tables.houseStyles, { id: content.styleId, workspaceId: workspace.id })
    const sections: MadeSection[] = []
    for (const block of content.blocks)
      sections.push(block.kind === 'words' ? block : await section(workspace, block, content, now))
    return {
      name: content.name,
      owner: client?.name ?? workspace.name,
      campaign: scope.campaign?.name ?? '',
      zone: scope.campaign?.zone ?? workspace.zone,
      madeAt: now,
      currency: (await readSetting(read, workspace.id, SETTINGS)).value.currency,
      look: style ? lookOfStyle(style.look) : PLAIN_REPORT_LOOK,
      sections,
    }
  }
}
