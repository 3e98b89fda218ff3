import type { EntityManager } from 'typeorm'
import {
  ofQuestion,
  ofReport,
  type ReportContent,
  type ReportOwner,
  type ReportQuestion,
} from '@flimbo/core/reports'
import type { Of } from '@flimbo/core/scans'
import { wrongField } from '../api/index.ts'
import { tables, type CampaignRow, type CodeRow } from '../database/index.ts'

/** What a question, or a report, is of. */
export interface FoundScope {
  readonly of: Of
  /** Empty for the whole workspace. */
  readonly name: string
  /** The campaign that it is in; null where it is of more. */
  readonly campaign: CampaignRow | null
  /** The client it is of, or in. */
  readonly clientId: number | null
  /** The piece it is of. */
  readonly code: CodeRow | null
}

/** Finds what is meant; null where it is gone, or another workspace's. */
async function find(read: EntityManager, workspaceId: number, of: Of): Promise<FoundScope | null> {
  const { clientId, routeId, codeId } = of
  const code = codeId === undefined ? null : await read.findOneBy(tables.codes, { id: codeId })
  const route = routeId === undefined ? null : await read.findOneBy(tables.routes, { id: routeId })
  const campaignId = of.campaignId ?? code?.campaignId ?? route?.campaignId
  const campaign =
    campaignId === undefined ? null : await read.findOneBy(tables.campaigns, { id: campaignId, workspaceId })
  const inCampaign = (name: string) => campaign && { of, name, campaign, clientId: campaign.clientId, code }
  if (codeId !== undefined) return code && inCampaign(`Piece “${code.name}”`)
  if (routeId !== undefined) return route && inCampaign(`Route “${route.name}”`)
  if (of.campaignId !== undefined) return inCampaign(`Campaign “${campaign?.name ?? ''}”`)
  if (clientId === undefined) return { of, name: '', campaign, clientId: null, code }
  const client = await read.findOneBy(tables.clients, { id: clientId, workspaceId })
  return client && { of, name: `Client “${client.name}”`, campaign, clientId, code }
}

/** Finds what a report is of; null where it is gone. */
export const scopeOfReport = (read: EntityManager, workspaceId: number, report: ReportOwner) =>
  find(read, workspaceId, ofReport(report))

/** Finds what a question of a report is of; null where it is gone. */
export const scopeOfQuestion = (
  read: EntityManager,
  workspaceId: number,
  { value }: Pick<ReportQuestion, 'value'>,
  report: ReportOwner,
) => find(read, workspaceId, ofQuestion(value, report))

/** Whether what a question is of is part of what its report is of: nobody is handed another client's figures by mistake. */
export function isWithin({ clientId, campaignId }: ReportOwner, scope: FoundScope): boolean {
  if (campaignId !== null) return scope.campaign?.id === campaignId
  return clientId === null || scope.clientId === clientId
}

/**
 * Looks whether all questions of a report are about what the report is of.
 * @throws Refusal where one is not, at its place
 */
export async function checkScopes(
  read: EntityManager,
  workspaceId: number,
  content: ReportContent,
): Promise<void> {
  for (const [i, block] of content.blocks.entries()) {
    if (block.kind !== 'question') continue
    const scope = await scopeOfQuestion(read, workspaceId, block, content)
    const { otherCampaignId } = block.value.view
    const other =
      otherCampaignId === null ? null : await find(read, workspaceId, { campaignId: otherCampaignId })
    const isOtherClients = other !== null && content.clientId !== null && other.clientId !== content.clientId
    if (scope && isWithin(content, scope) && !isOtherClients) continue
    throw wrongField(
      `blocks.${String(i)}.value`,
      `This question is not about what the report is of. Take it out, or make the report one of ${content.campaignId === null ? 'the whole workspace' : 'the client'}.`,
    )
  }
}
