import type { Scope } from '@flimbo/core/scans'
import { missing } from '../api/index.ts'
import { tables, type CampaignRow, type Database } from '../database/index.ts'

function kindOf(scope: Scope): 'code' | 'route' | 'campaign' {
  if (scope.codeId !== undefined) return 'code'
  return scope.routeId !== undefined ? 'route' : 'campaign'
}

/** The campaign a scope lies in. @throws Refusal where there is none in this workspace */
export async function scopeOwner(
  { read }: Pick<Database, 'read'>,
  workspaceId: number,
  scope: Scope,
): Promise<CampaignRow> {
  let campaignId = scope.campaignId
  if (scope.codeId !== undefined)
    campaignId = (await read.findOneBy(tables.codes, { id: scope.codeId }))?.campaignId
  if (scope.routeId !== undefined)
    campaignId = (await read.findOneBy(tables.routes, { id: scope.routeId }))?.campaignId
  const campaign =
    campaignId === undefined ? null : await read.findOneBy(tables.campaigns, { id: campaignId, workspaceId })
  if (!campaign) throw missing(kindOf(scope))
  return campaign
}
