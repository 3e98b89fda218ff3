import { EntitySchema } from 'typeorm'
import type { PageContent, PageStyle } from '@flimbo/core/pages'
import { id, integer, text, optionalText, optionalInteger, optionalJson, json } from './columns.ts'

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
  /** How long what happens on the site may count for a scan; 0: redirects carry no reference of it. */
  referenceHours: number
  archivedAt: number | null
  version: number
  createdAt: number
}

/** A page of Flimbo's own that routes may lead to. */
export interface PageRow {
  id: number
  campaignId: number
  name: string
  /** What it is called to visitors, in its own language, by which it is found. */
  title: string
  /** Of what is prepared, or else live, for lists, which need not read all of it; styles and files are those of both. */
  summary: { parts: number; languages: string[]; styles: number[]; files: string[]; pages?: number[] }
  /** Maps of what is live, drawn when it was published, by `mapKey`. */
  maps: Record<string, string>
  /** What phones are shown; null before it is first published. */
  live: PageContent | null
  /** The revision that is live; 0 before there is one. */
  revisionId: number
  /** What is prepared, and how often that was changed. */
  draft: PageContent | null
  draftVersion: number
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
    referenceHours: { type: 'integer', default: 0 },
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
    summary: json,
    maps: json,
    live: optionalJson,
    revisionId: integer,
    draft: optionalJson,
    draftVersion: integer,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})

/** What a page showed from one moment on. */
export interface PageRevisionRow {
  id: number
  pageId: number
  number: number
  at: number
  personId: number
  content: PageContent
}

export const pageRevisions = new EntitySchema<PageRevisionRow>({
  name: 'page_revisions',
  columns: { id, pageId: integer, number: integer, at: integer, personId: integer, content: json },
})

/** How pages of a workspace, or of one of its clients, look. */
export interface PageStyleRow {
  id: number
  workspaceId: number
  /** Whose it is; null for the whole workspace. */
  clientId: number | null
  name: string
  style: PageStyle
  /** Whether pages that choose none look like this. */
  isDefault: boolean
  version: number
  createdAt: number
}

export const pageStyles = new EntitySchema<PageStyleRow>({
  name: 'page_styles',
  columns: {
    id,
    workspaceId: integer,
    clientId: optionalInteger,
    name: text,
    style: json,
    isDefault: { type: 'boolean', default: false },
    version: integer,
    createdAt: integer,
  },
})
