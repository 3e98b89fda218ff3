import type { StandInManner } from '@flimbo/core/mail'
import type { ScansStored } from '../scans/index.ts'

/** A short link: the same slug may lead elsewhere on another domain. */
export interface ShortLink {
  readonly domainId: number
  readonly slug: string
}

/** What a front door is to forget, so that its next scan sees what is stored now. */
export type Forget =
  | { readonly what: 'codes'; readonly links: readonly ShortLink[]; readonly routeIds: readonly number[] }
  | { readonly what: 'routes'; readonly routeIds: readonly number[] }
  /** What pages show: their content, styles and files. */
  | { readonly what: 'pages' }
  /** What sites report: what is decided of them, and the goals of campaigns. */
  | { readonly what: 'goals' }
  | { readonly what: 'domains' }
  | { readonly what: 'all' }

/** All front doors, as the office asks them. */
export interface Doors {
  /** Resolves once every front door has forgotten it, or was replaced because it did not answer; never later than that. */
  forget(what: Forget): Promise<void>
}

/** What the stand-ins can be asked. */
export type StandInQuestion =
  | { readonly ask: 'received' }
  | { readonly ask: 'mails' }
  | { readonly ask: 'manner'; readonly manner: StandInManner }
  | {
      readonly ask: 'records'
      readonly cname: Readonly<Record<string, string>>
      readonly txt: Readonly<Record<string, readonly string[]>>
    }

/** Ports as they were really opened; 0 for what does not run. */
export interface Ports {
  readonly office: number
  readonly door: number
  readonly standIn: number
  readonly dns: number
  readonly smtp: number
}

/** What the front doors tell the office: scans that were stored, and campaigns in which somebody answered a form. It may be lost, and then is. */
export interface DoorNews {
  readonly scans: readonly ScansStored[]
  readonly leads?: readonly { readonly workspaceId: number; readonly campaignId: number }[]
}
