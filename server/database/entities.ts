import { EntitySchema } from 'typeorm'
import type { Hop, Verdict } from '@flimbo/core/checks'
import type { DomainState } from '@flimbo/core/domains'
import type { Level } from '@flimbo/core/symbol'
import type { JobKind, JobState } from '@flimbo/core/jobs'
import type { Expectation, Lane, LinkedPage, Rules, State } from '@flimbo/core/routing'
import type { PageContent } from '@flimbo/core/pages'
import type { Person } from '@flimbo/core/workspace'

/** Rows as they are stored. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */
export interface WorkspaceRow {
  id: number
  name: string
  zone: string
  domainId: number
  createdAt: number
}
export interface PersonRow {
  id: number
  workspaceId: number
  name: string
  email: string
  role: Person['role']
  passwordHash: string
  createdAt: number
}
export interface SessionRow {
  tokenHash: string
  personId: number
  createdAt: number
  expiresAt: number
}
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
export interface RouteDraft {
  destination: string
  rules: Rules
  personId: number
  at: number
}
export interface RouteRow {
  id: number
  campaignId: number
  name: string
  destination: string
  state: State
  note: string
  rules: Rules
  passwordHash: string
  /** What is being prepared, and how often that was changed. */
  draft: RouteDraft | null
  draftVersion: number
  expectations: Expectation[]
  /** The revision in force; scans name it. */
  revisionId: number
  version: number
  createdAt: number
  changedAt: number
}
/** Lanes that many routes share. */
export interface LaneSetRow {
  id: number
  workspaceId: number
  name: string
  lanes: Lane[]
  version: number
  createdAt: number
  changedAt: number
}
export interface CodeRow {
  id: number
  campaignId: number
  routeId: number
  domainId: number
  slug: string
  name: string
  medium: string
  source: string
  term: string
  content: string
  /** Values of the workspace's own parameters, by the parameter's name. */
  extra: Record<string, string>
  level: Level
  sizeMm: number
  /** From how far away it is scanned, in metres. */
  viewingM: number | null
  place: string
  latitude: number | null
  longitude: number | null
  /** Where this one item leads where no lane takes it; empty for the route's own destination. */
  otherwise: string
  printRun: number | null
  cost: number | null
  liveOn: string | null
  downOn: string | null
  /** The client's own reference, and the key an import knows the piece by. */
  reference: string
  key: string
  note: string
  state: State
  archivedAt: number | null
  version: number
  createdAt: number
}
/** A short link that was issued once and leads to its code for ever. */
export interface ShortLinkRow {
  domainId: number
  slug: string
  codeId: number
  since: number
}
export interface DomainRow {
  id: number
  workspaceId: number | null
  host: string
  state: DomainState
  token: string
  /** Where the bare domain leads, and where an unknown short link on it does; empty for Flimbo's own page, with `unknownText` on it. */
  home: string
  unknown: string
  unknownText: string
  checkedAt: number | null
  finding: string
  version: number
  createdAt: number
}
export interface SettingRow {
  workspaceId: number
  section: string
  value: unknown
  version: number
}
export interface PreferenceRow {
  personId: number
  name: string
  value: unknown
}
export interface ViewRow {
  id: number
  workspaceId: number
  name: string
  value: unknown
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
/** A hit of a visit tag that the server has still to send; `nextAt` is null where it was given up. */
/** What must follow from a scan, stored in the scan's own commit. */
export interface OutboxRow {
  id: number
  workspaceId: number
  /** What is to be done, and in which queue of its own: of hits, the visit tag. */
  kind: string
  topic: string
  at: number
  isTest: boolean
  payload: unknown
  attempts: number
  /** When it is tried; null where it was given up. */
  nextAt: number | null
  /** What went wrong the last time, in words. */
  fault: string
}
export interface JobRow {
  id: number
  workspaceId: number
  /** Who began it; null where Flimbo did. */
  personId: number | null
  campaignId: number | null
  kind: JobKind
  title: string
  payload: unknown
  state: JobState
  done: number
  total: number
  sentence: string
  attempts: number
  nextAt: number | null
  createdAt: number
  touchedAt: number
  endedAt: number | null
  /** The file it made, while that is kept. */
  fileName: string | null
  fileType: string | null
  fileBytes: number | null
}
export interface CheckRow {
  /** `own`: of the destination of the piece itself, not of its route. */
  id: number
  routeId: number
  codeId: number | null
  own: boolean
  address: string
  at: number
  ms: number
  verdict: Verdict
  status: number | null
  hops: Hop[]
  lost: string[]
  failingSince: number | null
}
/** What a revision keeps of a route or a code. */
export type Snapshot = Record<
  string,
  string | number | boolean | null | Record<string, string> | Rules | Lane[] | LinkedPage[]
>
export interface RevisionRow {
  id: number
  of: 'route' | 'code'
  subjectId: number
  number: number
  at: number
  personId: number
  before: Snapshot | null
  after: Snapshot
}

const id = { type: 'integer', primary: true, generated: true } as const
const integer = { type: 'integer' } as const
const text = { type: 'text' } as const
const optionalText = { type: 'text', nullable: true } as const
const optionalInteger = { type: 'integer', nullable: true } as const
const optionalReal = { type: 'real', nullable: true } as const
const json = { type: 'simple-json' } as const

const workspaces = new EntitySchema<WorkspaceRow>({
  name: 'workspaces',
  columns: { id, name: text, zone: text, domainId: { type: 'integer', default: 1 }, createdAt: integer },
})
const people = new EntitySchema<PersonRow>({
  name: 'people',
  columns: {
    id,
    workspaceId: integer,
    name: text,
    email: text,
    role: text,
    passwordHash: text,
    createdAt: integer,
  },
})
const sessions = new EntitySchema<SessionRow>({
  name: 'sessions',
  columns: {
    tokenHash: { type: 'text', primary: true },
    personId: integer,
    createdAt: integer,
    expiresAt: integer,
  },
})
const clients = new EntitySchema<ClientRow>({
  name: 'clients',
  columns: { id, workspaceId: integer, name: text, domainId: optionalInteger, createdAt: integer },
})
const campaigns = new EntitySchema<CampaignRow>({
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
const routes = new EntitySchema<RouteRow>({
  name: 'routes',
  columns: {
    id,
    campaignId: integer,
    name: text,
    destination: text,
    state: text,
    note: text,
    rules: json,
    passwordHash: text,
    draft: { type: 'simple-json', nullable: true },
    draftVersion: integer,
    expectations: json,
    revisionId: integer,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})
const laneSets = new EntitySchema<LaneSetRow>({
  name: 'lane_sets',
  columns: {
    id,
    workspaceId: integer,
    name: text,
    lanes: json,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})
const codes = new EntitySchema<CodeRow>({
  name: 'codes',
  columns: {
    id,
    campaignId: integer,
    routeId: integer,
    domainId: integer,
    slug: text,
    name: text,
    medium: text,
    source: text,
    term: text,
    content: text,
    extra: json,
    level: text,
    sizeMm: { type: 'real' },
    viewingM: optionalReal,
    place: text,
    latitude: optionalReal,
    longitude: optionalReal,
    otherwise: text,
    printRun: optionalInteger,
    cost: optionalReal,
    liveOn: optionalText,
    downOn: optionalText,
    reference: text,
    key: text,
    note: text,
    state: text,
    archivedAt: optionalInteger,
    version: integer,
    createdAt: integer,
  },
})
const shortLinks = new EntitySchema<ShortLinkRow>({
  name: 'short_links',
  columns: {
    domainId: { type: 'integer', primary: true },
    slug: { type: 'text', primary: true },
    codeId: integer,
    since: integer,
  },
})
const domains = new EntitySchema<DomainRow>({
  name: 'domains',
  columns: {
    id,
    workspaceId: optionalInteger,
    host: text,
    state: text,
    token: text,
    home: text,
    unknown: text,
    unknownText: text,
    checkedAt: optionalInteger,
    finding: text,
    version: integer,
    createdAt: integer,
  },
})
const settings = new EntitySchema<SettingRow>({
  name: 'settings',
  columns: {
    workspaceId: { type: 'integer', primary: true },
    section: { type: 'text', primary: true },
    value: json,
    version: integer,
  },
})
const preferences = new EntitySchema<PreferenceRow>({
  name: 'preferences',
  columns: {
    personId: { type: 'integer', primary: true },
    name: { type: 'text', primary: true },
    value: json,
  },
})
const views = new EntitySchema<ViewRow>({
  name: 'views',
  columns: { id, workspaceId: integer, name: text, value: json },
})
const checks = new EntitySchema<CheckRow>({
  name: 'checks',
  columns: {
    id,
    routeId: integer,
    codeId: optionalInteger,
    own: { type: 'boolean' },
    address: text,
    at: integer,
    ms: integer,
    verdict: text,
    status: optionalInteger,
    hops: json,
    lost: json,
    failingSince: optionalInteger,
  },
})
const pages = new EntitySchema<PageRow>({
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
const outbox = new EntitySchema<OutboxRow>({
  name: 'outbox',
  columns: {
    id,
    workspaceId: integer,
    kind: text,
    topic: text,
    at: integer,
    isTest: { type: 'boolean' },
    payload: json,
    attempts: integer,
    nextAt: optionalInteger,
    fault: text,
  },
})
const jobs = new EntitySchema<JobRow>({
  name: 'jobs',
  columns: {
    id,
    workspaceId: integer,
    personId: optionalInteger,
    campaignId: optionalInteger,
    kind: text,
    title: text,
    payload: json,
    state: text,
    done: integer,
    total: integer,
    sentence: text,
    attempts: integer,
    nextAt: optionalInteger,
    createdAt: integer,
    touchedAt: integer,
    endedAt: optionalInteger,
    fileName: optionalText,
    fileType: optionalText,
    fileBytes: optionalInteger,
  },
})
const revisions = new EntitySchema<RevisionRow>({
  name: 'revisions',
  columns: {
    id,
    of: text,
    subjectId: integer,
    number: integer,
    at: integer,
    personId: integer,
    before: { type: 'simple-json', nullable: true },
    after: { type: 'simple-json' },
  },
})

/** Every table TypeORM knows; scans and what belongs to them are reached by prepared SQL alone. */
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
  outbox,
  jobs,
  revisions,
}
