import type { Apart, Device, Outcome, Place } from '@flimbo/core/scans'

/** One scan on its way into the database. The network address and user agent are already gone. */
export interface ScanRecord {
  readonly at: number
  readonly workspaceId: number
  /** For the live stream only; the campaign of a scan is that of its code. */
  readonly campaignId: number
  /** Calendar day in the workspace's zone: the day of the salt behind `visitor`. */
  readonly day: string
  readonly codeId: number
  readonly routeId: number
  readonly revisionId: number
  readonly outcome: Outcome
  /** Which way it left its route: a lane, or one of `EXITS`; and the variant of a split. */
  readonly exit: string
  readonly variant: string
  readonly apart: Apart | null
  readonly place: Place
  readonly device: Device
  readonly language: string
  readonly referrer: string
  readonly visitor: string
  /** What it takes of its route's limit, in the commit that stores it; left out where nothing is limited. */
  readonly takes?: Takes | null
  /** The page it is shown, which is opened with it; left out where it is shown none. */
  readonly pageId?: number | null
  /** Whether its number is wanted, for a site to name it by; left out where it is not. */
  readonly isNamed?: boolean
  /** What must follow from it, stored in its own commit; left out where nothing must. */
  readonly outbox?: readonly OutboxEntry[]
}

/** One scan taken from the limit of a route. */
export interface Takes {
  /** The day in the zone of the route's limits. */
  readonly day: string
  /** What takes at most one: a visitor of the day, or a visit that was asked something first. Empty for each scan its own. */
  readonly mark: string
}

/** Something that must follow from a scan: of what kind, in which queue, and all that it needs. */
export interface OutboxEntry {
  readonly kind: string
  readonly topic: string
  readonly payload: unknown
}

/** Fields of a packed scan, in their order. Numbers and texts alone cross between threads at little cost. */
export type Packed = string | number | null
const FIELDS = [
  'at',
  'workspaceId',
  'day',
  'codeId',
  'routeId',
  'revisionId',
  'outcome',
  'apart',
  'country',
  'region',
  'city',
  'latitude',
  'longitude',
  'device',
  'system',
  'systemVersion',
  'browser',
  'language',
  'referrer',
  'visitor',
  'exit',
  'variant',
  'outbox',
  'takeDay',
  'takeMark',
  'pageId',
  'isNamed',
] as const
export type PackedField = (typeof FIELDS)[number]
export const PACKED_WIDTH = FIELDS.length
/** Where each field stands in a packed scan. */
export const PACKED_AT = Object.fromEntries(FIELDS.map((field, i) => [field, i])) as Record<
  PackedField,
  number
>

/** Puts a scan into the transferable form that the writer’s thread takes. */
export function pack(scan: ScanRecord, into: Packed[]): void {
  const { place, device } = scan
  into.push(
    scan.at,
    scan.workspaceId,
    scan.day,
    scan.codeId,
    scan.routeId,
    scan.revisionId,
    scan.outcome,
    scan.apart,
    place.country,
    place.region,
    place.city,
    place.latitude,
    place.longitude,
    device.type,
    device.system,
    device.systemVersion,
    device.browser,
    scan.language,
    scan.referrer,
    scan.visitor,
    scan.exit,
    scan.variant,
    scan.outbox && scan.outbox.length > 0 ? JSON.stringify(scan.outbox) : null,
    scan.takes ? scan.takes.day : null,
    scan.takes ? scan.takes.mark : null,
    scan.pageId ?? null,
    scan.isNamed === true ? 1 : null,
  )
}
