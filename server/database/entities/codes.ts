import { EntitySchema } from 'typeorm'
import type { Hop, Verdict } from '@flimbo/core/checks'
import type { DomainState } from '@flimbo/core/domains'
import type { Level, Placement } from '@flimbo/core/symbol'
import type { State } from '@flimbo/core/routing'
import {
  id,
  integer,
  text,
  optionalText,
  optionalInteger,
  optionalReal,
  optionalJson,
  json,
} from './columns.ts'

/** Printed pieces, their short links, the domains of these, and whether they arrive. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */

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
  /** The house style it is printed in; null for the plain one. */
  styleId: number | null
  /** Where it lies on a picture; null where it stands alone. */
  placement: Placement | null
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

export const codes = new EntitySchema<CodeRow>({
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
    styleId: optionalInteger,
    placement: optionalJson,
    state: text,
    archivedAt: optionalInteger,
    version: integer,
    createdAt: integer,
  },
})

export const shortLinks = new EntitySchema<ShortLinkRow>({
  name: 'short_links',
  columns: {
    domainId: { type: 'integer', primary: true },
    slug: { type: 'text', primary: true },
    codeId: integer,
    since: integer,
  },
})

export const domains = new EntitySchema<DomainRow>({
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

export const checks = new EntitySchema<CheckRow>({
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
