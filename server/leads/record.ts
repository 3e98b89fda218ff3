import type { Answers } from '@flimbo/core/forms'
import type { HeldReason } from '@flimbo/core/leads'

/** What somebody agreed to, as it was shown to them. */
export interface GivenConsent {
  readonly question: string
  readonly words: string
  readonly language: string
}

/** Somebody who answered a form, as it is stored: with the scan that brought them, and what they agreed to. */
export interface LeadRecord {
  readonly workspaceId: number
  readonly campaignId: number
  readonly pageId: number
  /** The revision of the page whose form it was. */
  readonly pageRevisionId: number
  readonly part: string
  /** The same however often it is sent: it is stored once. */
  readonly sendKey: string
  /** UTC milliseconds. */
  readonly at: number
  readonly scanId: number
  readonly codeId: number
  readonly routeId: number
  /** The revision of the route that showed the page. */
  readonly revisionId: number
  readonly language: string
  readonly country: string
  readonly region: string
  readonly city: string
  readonly device: string
  readonly system: string
  /** The UTM values of the piece. */
  readonly utm: Readonly<Record<string, string>>
  readonly answers: Answers
  readonly consents: readonly GivenConsent[]
  /** What they are called by, and all that can be found of their answers, in small letters. */
  readonly title: string
  readonly search: string
  /** What persons are joined by: a mail address and a telephone number (E.164) they gave; empty where none. */
  readonly email: string
  readonly phone: string
  /** The day in the workspace's zone, and the visitor of that day, as scans have them. */
  readonly day: string
  readonly visitor: string
  /** Why it is suspected to be a program's; empty where it is not. */
  readonly held: HeldReason | ''
  /** Why its scan is kept apart; empty where it is a person's. */
  readonly apart: string
}

/** What is to be kept of a form while an answer is stored. */
export interface LeadBounds {
  /** So many answers are taken at most; null where any number is. */
  readonly limit: number | null
  readonly isOnceADay: boolean
}

/** What is mailed to whoever answers a form. */
export interface LeadMails {
  /** Whether they are thanked. */
  readonly answer: boolean
  /** Until when they may confirm their address, in UTC ms; null where they need not. Nobody is thanked before they have. */
  readonly confirmBy: number | null
}

/** Nothing is mailed. */
export const NO_MAILS: LeadMails = { answer: false, confirmBy: null }

export interface LeadToStore extends LeadBounds {
  readonly lead: LeadRecord
  readonly mails: LeadMails
}

/** What became of an answer: stored, now or when it was sent before; or refused. */
export type LeadOutcome =
  | { readonly kind: 'stored'; readonly leadId: number; readonly isNew: boolean }
  | { readonly kind: 'full' | 'once' }
