import { workspaces, people, sessions, settings, preferences, views } from './workspaces.ts'
import { clients, campaigns, pages, pageRevisions, pageStyles } from './campaigns.ts'
import { routes, laneSets, revisions } from './routes.ts'
import { codes, shortLinks, domains, checks } from './codes.ts'
import { outbox, jobs } from './jobs.ts'
import { files } from './files.ts'
import { erasures, formCounts, leadNotes, leads } from './leads.ts'
import { goals } from './goals.ts'
import { mails, notices, watches } from './mails.ts'
import { dayNotes, questions } from './results.ts'
import { reportLinks, reportMailings, reports } from './reports.ts'
import { unusual } from './unusual.ts'
import { staticCodes } from './staticCodes.ts'
import { houseStyles, proofs, releases } from './print.ts'

/** Every table there is, by name. */
export const tables = {
  workspaces,
  people,
  sessions,
  clients,
  campaigns,
  routes,
  laneSets,
  codes,
  shortLinks,
  domains,
  settings,
  preferences,
  views,
  checks,
  pages,
  pageRevisions,
  pageStyles,
  outbox,
  jobs,
  files,
  leads,
  leadNotes,
  erasures,
  formCounts,
  goals,
  mails,
  notices,
  watches,
  questions,
  dayNotes,
  houseStyles,
  proofs,
  releases,
  reports,
  reportLinks,
  reportMailings,
  staticCodes,
  revisions,
  unusual,
}

export type * from './workspaces.ts'
export type * from './campaigns.ts'
export type * from './routes.ts'
export type * from './codes.ts'
export type * from './jobs.ts'
export type * from './files.ts'
export type * from './goals.ts'
export type * from './leads.ts'
export type * from './mails.ts'
export type * from './print.ts'
export type * from './reports.ts'
export type * from './results.ts'
export type * from './staticCodes.ts'
export type * from './unusual.ts'
