import { tag } from '../tagging/index.ts'
import { chooseVariant } from './split.ts'
import {
  leadingTo,
  type Compiled,
  type CompiledCode,
  type CompiledLane,
  type CompiledRoute,
  type Leading,
  type LinkedPage,
} from './compile.ts'
import type { TraceStep } from './trace.ts'
import { plainVisit, type Visit } from '../conditions/index.ts'
import { fillPlaceholders } from './placeholders.ts'
import type { State } from './state.ts'

/** How many real scans a route has let through: since its limit counts, and today. */
export interface Taken {
  readonly total: number
  readonly today: number
}

/** One scan at the door: what is known of it, and how far it has got. */
export interface Arrival extends Visit {
  /** Whether the password was given. */
  readonly unlocked: boolean
  readonly taken: Taken
  /** Whether it has its place already: its visitor took one today, or it was let through when it was asked something. */
  readonly counted: boolean
}

export const NONE_TAKEN: Taken = { total: 0, today: 0 }

/** A scan of which nothing is known but when it came. */
export function plainArrival(at: number, known: Partial<Arrival> = {}): Arrival {
  return { ...plainVisit(at), unlocked: false, taken: NONE_TAKEN, counted: false, ...known }
}

/** Which part of code and route settled a decision. */
export type Reason =
  | 'code'
  | 'route'
  | 'before'
  | 'after'
  | 'full'
  | 'full-today'
  | 'password'
  | 'location'
  | 'lane'
  | 'otherwise'
/** Flimbo's own messages, and `own` for one a manager wrote. */
export type MessageName = Exclude<State, 'live'> | 'early' | 'over' | 'full' | 'full-today' | 'own'

interface Settled {
  readonly reason: Reason
  /** The exit taken: a lane's id or one of `EXITS`. */
  readonly exit: string
  /** The variant of a split; empty where there was none. */
  readonly variant: string
}

export type Decision =
  | (Settled & { readonly kind: 'redirect'; readonly address: string })
  /** A page of Flimbo's. */
  | (Settled & { readonly kind: 'page'; readonly page: LinkedPage })
  | (Settled & {
      readonly kind: 'message'
      readonly message: MessageName
      readonly title: string
      readonly text: string
    })
  | (Settled & { readonly kind: 'ask'; readonly ask: 'password' | 'location'; readonly why: string })

/** Whether a decision uses up one scan of a route's limits: the scan got past them to where it leads. */
export function isLetThrough({ kind, reason }: Pick<Decision, 'kind' | 'reason'>): boolean {
  return kind !== 'ask' && (reason === 'lane' || reason === 'otherwise')
}

/**
 * Decides where one scan goes. This is the only place that does: the front door, the test scan, the review
 * and the publish summary all call it. Pure and total: every visit gets an answer. With `trace`, every step
 * and every condition up to the exit is noted there, and the answer is the same.
 */
export function decide({ code, route }: Compiled, arrival: Arrival, trace?: TraceStep[]): Decision {
  trace?.push({ look: 'code', saw: code.settings.state, settled: code.settings.state !== 'live' })
  if (code.settings.state !== 'live') return resting(code.settings.state, 'code')
  return (
    through(code, route, arrival, trace) ?? otherwise(code.otherwise ?? route.otherwise, code, arrival, trace)
  )
}

function resting(state: Exclude<State, 'live'>, reason: 'code' | 'route'): Decision {
  return { kind: 'message', message: state, title: '', text: '', reason, exit: '', variant: '' }
}

/** What comes before the lanes, then the lanes; null where the otherwise lane is left. */
function through(
  code: CompiledCode,
  route: CompiledRoute,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): Decision | null {
  const { state } = route.settings
  trace?.push({ look: 'route', saw: state, settled: state !== 'live' })
  if (state !== 'live') return resting(state, 'route')
  return beforeLanes(code, route, arrival, trace) ?? byLanes(code, route, arrival, trace)
}

function lifeInWords(early: boolean, over: boolean): string {
  if (early) return 'not yet begun'
  return over ? 'over' : 'within its dates'
}

function locationInWords(precise: Arrival['precise']): string {
  if (precise === null) return 'not asked yet'
  return precise === 'refused' ? 'not told' : 'told'
}

function beforeLanes(
  code: CompiledCode,
  { life, askLocation, settings: { locked } }: CompiledRoute,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): Decision | null {
  if (life) {
    const early = arrival.at < life.startsAt
    const over = arrival.at >= life.endsAt
    trace?.push({
      look: 'life',
      saw: lifeInWords(early, over),
      settled: early || over,
    })
    if (early) return answerWith(code, arrival, life.before, 'before', 'early')
    if (over) return answerWith(code, arrival, life.after, 'after', 'over')
    const full = life.limit !== null && !arrival.counted && arrival.taken.total >= life.limit
    const fullToday = life.daily !== null && !arrival.counted && arrival.taken.today >= life.daily
    if (life.limit !== null)
      trace?.push({
        look: 'limit',
        saw: `${String(arrival.taken.total)} of ${String(life.limit)} scans`,
        settled: full,
      })
    if (full) return answerWith(code, arrival, life.full, 'full', 'full')
    if (life.daily !== null)
      trace?.push({
        look: 'limit',
        saw: `${String(arrival.taken.today)} of ${String(life.daily)} scans today`,
        settled: fullToday,
      })
    if (fullToday) return answerWith(code, arrival, life.fullToday, 'full-today', 'full-today')
  }
  if (locked === true) {
    trace?.push({
      look: 'password',
      saw: arrival.unlocked ? 'given' : 'not given yet',
      settled: !arrival.unlocked,
    })
    if (!arrival.unlocked)
      return { kind: 'ask', ask: 'password', why: '', reason: 'password', exit: '', variant: '' }
  }
  if (askLocation) {
    trace?.push({
      look: 'location',
      saw: locationInWords(arrival.precise),
      settled: arrival.precise === null,
    })
    if (arrival.precise === null)
      return { kind: 'ask', ask: 'location', why: askLocation.why, reason: 'location', exit: '', variant: '' }
  }
  return null
}

function answerWith(
  code: CompiledCode,
  arrival: Arrival,
  answer: Leading | null,
  reason: 'before' | 'after' | 'full' | 'full-today',
  message: MessageName,
): Decision {
  if (answer) return lead(code, arrival, answer, { reason, exit: reason, variant: '' })
  return { kind: 'message', message, title: '', text: '', reason, exit: reason, variant: '' }
}

function byLanes(
  code: CompiledCode,
  route: CompiledRoute,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): Decision | null {
  for (const lane of route.lanes) {
    if (!takes(lane, code, arrival, trace)) continue
    const decision = outcomeOf(lane, code, arrival, trace)
    if (decision) return decision
  }
  return null
}

function takes(
  { test, id, resting }: CompiledLane,
  code: CompiledCode,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): boolean {
  if (resting) {
    trace?.push({ look: 'lane', lane: id, saw: 'turned off', settled: false, checks: [] })
    return false
  }
  if (!trace) return test.holds(arrival, code.scanned)
  const checks: Parameters<typeof test.explain>[2] = []
  const held = test.explain(arrival, code.scanned, checks)
  trace.push({ look: 'lane', lane: id, saw: held ? 'holds' : 'does not hold', settled: held, checks })
  return held
}

/** What a lane does; null where it cannot do it: every variant has ended, or the route it leads to is gone. */
function outcomeOf(
  { id, leads }: CompiledLane,
  code: CompiledCode,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): Decision | null {
  const settled = { reason: 'lane', exit: id, variant: '' } as const
  if (leads.kind === 'leading') return lead(code, arrival, leads.to, settled)
  if (leads.kind === 'split') {
    const chosen = chooseVariant(leads.variants, arrival.visitor, id)
    trace?.push({
      look: 'split',
      lane: id,
      saw: chosen?.name ?? 'every variant has ended or weighs nothing',
      settled: chosen !== null,
    })
    return chosen && lead(code, arrival, chosen.to, { ...settled, variant: chosen.id })
  }
  trace?.push({
    look: 'onward',
    lane: id,
    saw: leads.route?.settings.name ?? 'a route that is gone',
    settled: leads.route !== null,
  })
  if (!leads.route) return null
  const decision =
    through(code, leads.route, arrival, trace) ?? otherwise(leads.route.otherwise, code, arrival, trace)
  if (decision.kind === 'ask') return null
  // A route that rests, or is not within its dates, lets nobody through: the first one's limit is not used up.
  return isLetThrough(decision) ? { ...decision, ...settled } : decision
}

/** Where no lane takes a scan: the piece's own destination is for the route it is on, not for one that was led to. */
function otherwise(
  to: Leading,
  code: CompiledCode,
  arrival: Arrival,
  trace: TraceStep[] | undefined,
): Decision {
  trace?.push({ look: 'otherwise', saw: to.kind === 'address' ? to.text : '', settled: true })
  return lead(code, arrival, to, { reason: 'otherwise', exit: 'otherwise', variant: '' })
}

/** How many tagged addresses are kept ready for one code. */
const TAGGED_MAX = 50

function lead(code: CompiledCode, arrival: Arrival, to: Leading, settled: Settled): Decision {
  if (to.kind === 'message')
    return { kind: 'message', message: 'own', title: to.title, text: to.text, ...settled }
  if (to.kind === 'page') return { kind: 'page', page: to.page, ...settled }
  return { kind: 'redirect', address: addressOf(code, arrival, to), ...settled }
}

/** An address as one scan of a code is sent to it: filled, tagged, with what the scan brought along. */
function addressOf(
  code: CompiledCode,
  arrival: Pick<Arrival, 'query' | 'place' | 'languages'>,
  to: Extract<Leading, { kind: 'address' }>,
): string {
  const href = to.fills ? fillPlaceholders(to.href, valuesFor(code, arrival)) : to.href
  const { utm, extra } = code.settings
  // What a scan brings along is seldom twice the same.
  if (arrival.query !== '') return tag(new URL(href), utm, extra).carrying(arrival.query)
  const { tagged } = code
  for (let i = 0; i < tagged.length; i += 2) if (tagged[i] === href) return tagged[i + 1] ?? ''
  const { address } = tag(new URL(href), utm, extra)
  if (tagged.length >= 2 * TAGGED_MAX) tagged.length = 0
  tagged.push(href, address)
  return address
}

/**
 * An address that a page leads on to as one scan of a code is sent to it: filled, tagged, with what the scan brought along,
 * as a destination is.
 *
 * @throws RangeError when it is not one `readDestination` would have taken
 */
export function taggedAddress(
  code: CompiledCode,
  arrival: Pick<Arrival, 'query' | 'place' | 'languages'>,
  address: string,
): string {
  return addressOf(code, arrival, leadingTo(address))
}

function valuesFor({ settings }: CompiledCode, { place, languages }: Pick<Visit, 'place' | 'languages'>) {
  return {
    country: place.country,
    language: languages[0] ?? '',
    code: settings.slug ?? '',
    content: settings.utm.content,
  }
}
