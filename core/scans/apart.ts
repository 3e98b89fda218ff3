import { isbot } from 'isbot'

/**
 * Why a request for a short link is kept apart from the figures: it was not a person's device asking
 * to go there. `test` is a rehearsal from the office; `onward` is the next step of a scan that was counted
 * when it was asked for a password or its place.
 */
export const APART = ['head', 'prefetch', 'preview', 'crawler', 'test', 'onward'] as const
export type Apart = (typeof APART)[number]

/** User-agent tokens of programs that fetch a page to show a card of it in a message. From memory; no published list. */
const PREVIEWERS =
  /externalhit|externalagent|whatsapp|telegrambot|twitterbot|discordbot|slackbot|linkedinbot|skypeuripreview|pinterest|viber|linkpreview|link preview|preview|unfurl|embedly|iframely|snapchat|mattermost|rocket\.chat/i

/** What of a request tells a person from a program. Header values as they were sent. */
export interface RequestSigns {
  readonly method: string
  /** `Sec-Purpose` (Fetch Standard), or the older `Purpose`. */
  readonly purpose: string
  readonly test: boolean
  /** Whether it comes with the signed token of an earlier step. */
  readonly onward: boolean
  /** What its user agent is, by `programKind`. */
  readonly program: 'preview' | 'crawler' | null
}

/** What a user agent is: a person's device (null), a link preview, or a crawler. None at all is a program's: browsers always send one. */
export function programKind(userAgent: string): RequestSigns['program'] {
  if (userAgent.trim() === '') return 'crawler'
  if (!isbot(userAgent)) return null
  return PREVIEWERS.test(userAgent) ? 'preview' : 'crawler'
}

/**
 * Tells whether a request counts as a scan (null) or is kept apart, and why. A rehearsal comes first,
 * then what the request says of itself, then what its user agent is.
 */
export function apartKind({ method, purpose, test, onward, program }: RequestSigns): Apart | null {
  if (test) return 'test'
  if (method === 'HEAD') return 'head'
  if (purpose !== '' && /\b(prefetch|prerender|preview)\b/i.test(purpose)) return 'prefetch'
  return program ?? (onward ? 'onward' : null)
}

/** Whether a scan is a person's: counted (null), or the next step of one that was asked something. */
export const isPersons = (apart: string | null): boolean => apart === null || apart === 'onward'
/** Whether a scan is somebody's who goes on to where it leads: a person's, or a rehearsed one. Programs go nowhere. */
export const isVisit = (apart: string | null): boolean => isPersons(apart) || apart === 'test'
/** Why what follows from a scan, such as an event on a page, is kept apart; empty where it is a person's. */
export const apartAfter = (apart: string | null): string =>
  apart === null || apart === 'onward' ? '' : apart
