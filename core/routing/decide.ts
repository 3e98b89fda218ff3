import { tag, type Tagged } from './address.ts'
import { readDestination } from './destination.ts'
import type { ExtraValues, UtmValues } from './utm.ts'

/** Whether something answers scans: it does, it rests for a while, or it was deleted for good. */
export const STATES = ['live', 'paused', 'deleted'] as const
export type State = (typeof STATES)[number]

/** What a code and its route say of a scan, as they are stored. */
export interface RouteSettings {
  readonly code: { readonly state: State; readonly utm: UtmValues; readonly extra?: ExtraValues }
  readonly route: { readonly state: State; readonly destination: string }
}

/** Settings made ready for many scans: `decide` does no parsing of its own. */
export interface CompiledRoute {
  readonly settings: RouteSettings
  readonly tagged: Tagged
}

/** What `decide` may know of one scan. */
export interface Visit {
  /** The query the scan came with, without its `?`; empty where it had none. */
  readonly query: string
}

/** One step of a decision: what was looked at, what it saw, and whether it settled the matter. */
export interface TraceStep {
  readonly looked: 'code' | 'route' | 'otherwise'
  readonly saw: string
  readonly settled: boolean
}

export type Decision =
  | { readonly kind: 'redirect'; readonly address: string; readonly reason: 'otherwise'; readonly trace: readonly TraceStep[] }
  | { readonly kind: 'message'; readonly message: 'paused' | 'deleted'; readonly reason: 'code' | 'route'; readonly trace: readonly TraceStep[] }

/**
 * Makes a route ready to decide.
 * @throws RangeError when the stored destination is not one `readDestination` would have taken
 */
export function compile(settings: RouteSettings): CompiledRoute {
  const reading = readDestination(settings.route.destination)
  if (!reading.ok) throw new RangeError(`Stored destination: ${reading.sentence}`)
  return { settings, tagged: tag(reading.url, settings.code.utm, settings.code.extra) }
}

/**
 * Decides where one scan goes. This is the only place that does: the front door, rehearsals and
 * reviews all call it. Pure and total: every visit gets an answer.
 */
export function decide({ settings, tagged }: CompiledRoute, visit: Visit): Decision {
  const trace: TraceStep[] = []
  for (const looked of ['code', 'route'] as const) {
    const { state } = settings[looked]
    trace.push({ looked, saw: state, settled: state !== 'live' })
    if (state !== 'live') return { kind: 'message', message: state, reason: looked, trace }
  }
  const address = visit.query === '' ? tagged.address : tagged.carrying(visit.query)
  trace.push({ looked: 'otherwise', saw: settings.route.destination, settled: true })
  return { kind: 'redirect', address, reason: 'otherwise', trace }
}
