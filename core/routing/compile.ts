import { momentOf } from '../time/index.ts'
import { type ExtraValues, type UtmValues } from '../tagging/index.ts'
import { canonicalTag } from '../scans/index.ts'
import {
  compileCondition,
  languagesIn,
  leavesOf,
  type Point,
  type ScannedCode,
  type Test,
} from '../conditions/index.ts'
import { readDestination } from './destination.ts'
import { hasPlaceholders } from './placeholders.ts'
import {
  allLanes,
  NO_RULES,
  type Answer,
  type Lane,
  type LaneOutcome,
  type Life,
  type Rules,
} from './rules.ts'
import type { Weighted } from './split.ts'
import type { State } from './state.ts'

/** What a code says of a scan, as it is stored. */
export interface CodeSettings {
  readonly state: State
  readonly utm: UtmValues
  readonly extra?: ExtraValues
  readonly slug?: string
  /** What the piece is called. */
  readonly label?: string
  readonly place?: Point | null
  /** Where this one item leads where no lane takes it; empty for the route's own destination. */
  readonly otherwise?: string
}

/** A page of Flimbo's as a route leads to it: which one, and which of its revisions is live. */
export interface LinkedPage {
  readonly id: number
  readonly name: string
  /** 0 where it was never published. */
  readonly revisionId: number
}

/** What a route says of a scan, as it is stored. */
export interface RouteSettings {
  readonly state: State
  readonly destination: string
  readonly name?: string
  readonly rules?: Rules
  /** The lanes of its shared set, as `lanesOfSet` gives them. */
  readonly sharedLanes?: readonly Lane[]
  /** The pages its lanes and bounds lead to. */
  readonly pages?: readonly LinkedPage[]
  /** Whether a password stands before it. */
  readonly locked?: boolean
}

type LeadingOn = {
  readonly kind: 'address'
  readonly text: string
  readonly href: string
  readonly fills: boolean
}

/** Where something leads, made ready. */
export type Leading =
  | LeadingOn
  | {
      readonly kind: 'page'
      readonly page: LinkedPage
    }
  | { readonly kind: 'message'; readonly title: string; readonly text: string }

interface CompiledLife {
  readonly startsAt: number
  readonly endsAt: number
  readonly limit: number | null
  readonly daily: number | null
  /** Whether a visitor takes one place a day, however often they scan. */
  readonly once: boolean
  readonly before: Leading | null
  readonly after: Leading | null
  readonly full: Leading | null
  readonly fullToday: Leading | null
}

export interface CompiledLane {
  readonly id: string
  readonly resting: boolean
  readonly test: Test
  readonly leads:
    | { readonly kind: 'leading'; readonly to: Leading }
    | {
        readonly kind: 'split'
        readonly variants: readonly (Weighted & { readonly name: string; readonly to: Leading })[]
      }
    | { readonly kind: 'route'; readonly route: CompiledRoute | null }
}

/** Rules made ready for many scans, of any route that has them. */
export interface CompiledRules {
  /** What a phone is asked that wants to know where it is; empty where none is. */
  readonly askLocation: Rules['askLocation']
  readonly lanes: readonly CompiledLane[]
  readonly life: CompiledLife | null
  /** Whether anything asks if the visitor was here before today. */
  readonly asksRepeat: boolean
}

/** A route made ready for many scans, of any of its codes: `decide` does no parsing of its own. */
export interface CompiledRoute extends CompiledRules {
  readonly settings: Pick<RouteSettings, 'state' | 'name' | 'locked'>
  readonly otherwise: Leading
}

/** A code made ready; the addresses it leads to are tagged when they are first needed, and kept. */
export interface CompiledCode {
  readonly settings: CodeSettings
  readonly scanned: ScannedCode
  readonly otherwise: Leading | null
  /** Addresses, each with what it is tagged. Side by side: for most codes there is one, and a map of one takes more than it. */
  readonly tagged: string[]
}

export interface Compiled {
  readonly code: CompiledCode
  readonly route: CompiledRoute
}

/** How many routes one scan may be led through. */
export const ONWARD_MAX = 5

/** Stored settings of another route; null where it is gone. */
export type FindRoute = (id: number) => RouteSettings | null

/**
 * Makes a route ready to decide, and the routes its lanes lead on to, at most five deep: what lies deeper, or
 * is gone, counts as a lane that takes nothing.
 * @throws RangeError when a stored destination is not one `readDestination` would have taken
 */
export function compileRoute(
  settings: RouteSettings,
  find: FindRoute = () => null,
  depth = 1,
): CompiledRoute {
  return routeWith(settings, compileRules(settings, find, depth))
}

/** A route with rules that are ready, of its own or of another that has the same. @throws RangeError as `compileRoute` does */
export function routeWith(
  { state, name = '', locked = false, destination }: RouteSettings,
  rules: CompiledRules,
): CompiledRoute {
  return { ...rules, settings: { state, name, locked }, otherwise: leadingTo(destination) }
}

/**
 * Makes the rules of a route ready.
 *
 * @param testOf makes a condition ready: whoever has thousands of rules keeps equal ones once
 * @throws RangeError as `compileRoute` does
 */
export function compileRules(
  { rules: given = NO_RULES, pages = [], sharedLanes = [] }: RouteSettings,
  find: FindRoute = () => null,
  depth = 1,
  testOf: typeof compileCondition = compileCondition,
): CompiledRules {
  const { life, language, ...rules } = given
  const lead = answers(pages)
  const lanes = allLanes(rules, sharedLanes)
  const speaks = [
    ...new Set([
      ...(language === '' ? [] : [canonicalTag(language)]),
      ...languagesIn(lanes.filter(({ resting }) => !resting).map(({ condition }) => condition)),
    ]),
  ]
  const compiled = lanes.map((lane): CompiledLane => ({
    id: lane.id,
    resting: lane.resting,
    test: testOf(lane.condition, speaks),
    leads: leadsOf(lane.outcome, lead, find, depth),
  }))
  return {
    askLocation: given.askLocation,
    lanes: compiled,
    life: life && compileLife(life, lead),
    // Parts of a page may ask it too; which of them do is known to the page alone.
    asksRepeat:
      pages.length > 0 ||
      lanes.some(({ condition }) => leavesOf(condition).some(({ kind }) => kind === 'visit')) ||
      compiled.some(({ leads }) => leads.kind === 'route' && leads.route?.asksRepeat === true),
  }
}

/** A code’s settings made ready for deciding: its tags as pairs, its place as a point. */
export function compileCode(settings: CodeSettings): CompiledCode {
  const { utm, label = '', place = null, otherwise = '' } = settings
  return {
    settings,
    scanned: { medium: utm.medium, source: utm.source, content: utm.content, label, place },
    otherwise: otherwise === '' ? null : leadingTo(otherwise),
    tagged: [],
  }
}

/** Makes a code and its route ready. @throws RangeError as `compileRoute` does */
export function compile(
  { code, route }: { readonly code: CodeSettings; readonly route: RouteSettings },
  find?: FindRoute,
): Compiled {
  return { code: compileCode(code), route: compileRoute(route, find) }
}

/** An address made ready. @throws RangeError when it is not one `readDestination` would have taken */
export function leadingTo(address: string): LeadingOn {
  const reading = readDestination(address)
  if (!reading.ok) throw new RangeError(`Stored destination: ${reading.sentence}`)
  const { href } = reading.url
  // Most are the same, and kept once then.
  return {
    kind: 'address',
    text: address,
    href: href === address ? address : href,
    fills: hasPlaceholders(href),
  }
}

/** Said where a page is gone: removing one that is led to is refused, so this is for what was stored otherwise. */
const PAGE_GONE: Leading = {
  kind: 'message',
  title: 'This page is gone',
  text: 'What this code leads to has been taken away. Please ask whoever put it up.',
}

type Lead = (answer: Answer) => Leading

function answers(pages: readonly LinkedPage[]): Lead {
  return (answer) => {
    if (answer.kind === 'address') return leadingTo(answer.address)
    if (answer.kind === 'message') return { kind: 'message', title: answer.title, text: answer.text }
    const page = pages.find(({ id }) => id === answer.pageId)
    return page ? { kind: 'page', page } : PAGE_GONE
  }
}

function compileLife(life: Life, lead: Lead): CompiledLife {
  const perhaps = (answer: Answer | null) => answer && lead(answer)
  const { zone, startsAt, endsAt, limit, daily, once, before, after, full, fullToday } = life
  return {
    startsAt: startsAt === '' ? -Infinity : momentOf(zone, startsAt),
    endsAt: endsAt === '' ? Infinity : momentOf(zone, endsAt),
    limit,
    daily,
    once,
    before: perhaps(before),
    after: perhaps(after),
    full: perhaps(full),
    fullToday: perhaps(fullToday),
  }
}

function leadsOf(outcome: LaneOutcome, lead: Lead, find: FindRoute, depth: number): CompiledLane['leads'] {
  if (outcome.kind === 'split')
    return {
      kind: 'split',
      variants: outcome.variants.map(({ id, name, weight, ended, leads }) => ({
        id,
        name,
        weight,
        ended,
        to: lead(leads),
      })),
    }
  if (outcome.kind !== 'route') return { kind: 'leading', to: lead(outcome) }
  const settings = depth < ONWARD_MAX ? find(outcome.routeId) : null
  return { kind: 'route', route: settings && compileRoute(settings, find, depth + 1) }
}
