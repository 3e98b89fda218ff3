import type { SavedValue } from '../results/index.ts'
import type { Of } from '../scans/index.ts'
import type { ReportContent } from './report.ts'

/** Whose a report is. */
export type ReportOwner = Pick<ReportContent, 'clientId' | 'campaignId'>

/** What a report is of, as figures are asked for. */
export function ofReport({ clientId, campaignId }: ReportOwner): Of {
  if (campaignId !== null) return { campaignId }
  return clientId === null ? {} : { clientId }
}

/** What a question is of: the nearest thing it names, or all that its report is of. */
export function ofQuestion({ codeId, routeId, campaignId, clientId }: SavedValue, report: ReportOwner): Of {
  if (codeId !== undefined) return { codeId }
  if (routeId !== undefined) return { routeId }
  if (campaignId !== undefined) return { campaignId }
  return clientId === undefined ? ofReport(report) : { clientId }
}
