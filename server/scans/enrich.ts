import {
  acceptedLanguages,
  deviceOf,
  programKind,
  referrerHost,
  apartKind,
  type Apart,
  type Device,
  type Place,
} from '@flimbo/core/scans'
import type { FindPlace } from './places.ts'
import { remembering } from './remembering.ts'

/** What a request for a short link says of whom it comes from. */
export interface Enriched {
  readonly apart: Apart | null
  readonly place: Place
  readonly device: Device
  /** The language its reader likes best; empty where none is named. */
  readonly language: string
  /** All of them, the dearest first. */
  readonly languages: readonly string[]
  readonly referrer: string
}

/** The parts of a request that are looked at, as they were sent; an absent header is an empty text. */
export interface RequestFacts {
  readonly method: string
  readonly address: string
  readonly userAgent: string
  readonly acceptLanguage: string
  readonly purpose: string
  readonly referer: string
  readonly test: boolean
  readonly onward: boolean
}

/** Reads requests; user agents, languages and places seen lately are remembered within bounded memory. */
export function enricher(findPlace: FindPlace): (facts: RequestFacts) => Enriched {
  const agents = remembering((userAgent) => ({
    device: deviceOf(userAgent),
    program: programKind(userAgent),
  }))
  const languages = remembering((header) => ({ tags: acceptedLanguages(header).map(({ tag }) => tag) }))
  return (facts) => {
    const { device, program } = agents(facts.userAgent)
    const { tags } = languages(facts.acceptLanguage)
    return {
      apart: apartKind({ ...facts, program }),
      place: findPlace(facts.address),
      device,
      language: tags[0]?.slice(0, 35) ?? '',
      languages: tags,
      referrer: referrerHost(facts.referer),
    }
  }
}
