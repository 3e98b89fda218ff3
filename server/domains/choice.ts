import type { EntityManager } from 'typeorm'
import { wrongField } from '../api/index.ts'
import { tables, type CampaignRow } from '../database/index.ts'
import { OWN_DOMAIN } from './directory.ts'

/** The domain new short links of a campaign are on: its own choice, or else its client's, or else the workspace's. */
export async function domainFor(
  manager: EntityManager,
  campaign: Pick<CampaignRow, 'domainId' | 'clientId' | 'workspaceId'>,
): Promise<number> {
  if (campaign.domainId !== null) return campaign.domainId
  const client = await manager.findOneBy(tables.clients, { id: campaign.clientId })
  if (client?.domainId) return client.domainId
  return (await manager.findOneByOrFail(tables.workspaces, { id: campaign.workspaceId })).domainId
}

/** Refuses a domain that short links cannot be issued on. @throws Refusal */
export async function checkDomain(manager: EntityManager, workspaceId: number, id: number): Promise<void> {
  if (id === OWN_DOMAIN || (await manager.existsBy(tables.domains, { id, workspaceId, state: 'ready' })))
    return
  throw wrongField(
    'domainId',
    'This domain is not ready: its records have not been found yet. Choose another, or check it under Settings.',
  )
}
