import { EntitySchema } from 'typeorm'
import type { PageContent } from '@flimbo/core/pages'
import { id, integer, text, optionalText, optionalInteger, json } from './columns.ts'

/** Clients, their campaigns, and the pages of these. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */

export interface ClientRow {
  id: number
  workspaceId: number
  name: string
  domainId: number | null
  createdAt: number
}

export interface CampaignRow {
  id: number
  workspaceId: number
  clientId: number
  name: string
  zone: string
  utmCampaign: string
  startsOn: string | null
  endsOn: string | null
  domainId: number | null
  pinned: boolean
  archivedAt: number | null
  version: number
  createdAt: number
}

/** A page of Flimbo's own that routes may lead to. */
export interface PageRow extends PageContent {
  id: number
  campaignId: number
  name: string
  version: number
  createdAt: number
  changedAt: number
}

export const clients = new EntitySchema<ClientRow>({
  name: 'clients',
  columns: { id, workspaceId: integer, name: text, domainId: optionalInteger, createdAt: integer },
})

export const campaigns = new EntitySchema<CampaignRow>({
  name: 'campaigns',
  columns: {
    id,
    workspaceId: integer,
    clientId: integer,
    name: text,
    zone: text,
    utmCampaign: text,
    startsOn: optionalText,
    endsOn: optionalText,
    domainId: optionalInteger,
    pinned: { type: 'boolean', default: false },
    archivedAt: optionalInteger,
    version: integer,
    createdAt: integer,
  },
})

export const pages = new EntitySchema<PageRow>({
  name: 'pages',
  columns: {
    id,
    campaignId: integer,
    name: text,
    title: text,
    text,
    links: json,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})
