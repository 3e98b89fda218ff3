import type Sqlite from 'better-sqlite3'
import type { Span } from '@flimbo/core/time'
import {
  ARRIVAL,
  GOAL,
  LEAD,
  type Conversions,
  type ConversionTrait,
  type ConversionTraits,
  type OfScanTraits,
} from './conversions.ts'
import { goalStore } from './goalStore.ts'
import { numbering } from './numbering.ts'
import { scansOfConversions } from './scansOfConversions.ts'

type LeadRow = [
  ...[at: number, codeId: number, scanId: number, routeId: number, country: string, region: string],
  ...[city: string, device: string, system: string],
]

/** The scans of so many goals are read at once. */
const AHEAD = 2000

/** Conversions while they are chosen. */
interface Filled extends Omit<Conversions, 'trait' | 'codes'> {
  readonly scanId: Float64Array
  readonly routeId: Uint32Array
  readonly place: Uint32Array
  readonly agent: Uint32Array
}

const fillable = (length: number): Filled => ({
  length,
  at: new Float64Array(length),
  codeId: new Uint32Array(length),
  kind: new Uint8Array(length),
  valueMilli: new Float64Array(length),
  scanId: new Float64Array(length),
  routeId: new Uint32Array(length),
  place: new Uint32Array(length),
  agent: new Uint32Array(length),
})

/**
 * Leads that are in no doubt, arrivals and goals of people, by the codes that brought them.
 *
 * @param scansKept of so many the scans are remembered
 */
export function conversionStore(database: Sqlite.Database, scansKept?: number) {
  const goals = goalStore(database)
  const leads = database
    .prepare(
      `SELECT at, codeId, scanId, routeId, country, region, city, device, system FROM leads
      WHERE workspaceId = ? AND at >= ? AND at < ? AND held = '' AND apart = ''`,
    )
    .raw()
  const scans = scansOfConversions(database, scansKept)

  function fill(workspaceId: number, codes: ReadonlySet<number>, span: Span): Filled {
    const { columns, chosen } = goals.choose(workspaceId, codes, span)
    const rows = (leads.all(workspaceId, span.start, span.end) as LeadRow[]).filter(([, codeId]) =>
      codes.has(codeId),
    )
    const filled = fillable(chosen.length + rows.length)
    for (const [k, i] of chosen.entries()) {
      filled.at[k] = columns.at[i] ?? 0
      filled.codeId[k] = columns.codeId[i] ?? 0
      filled.kind[k] = columns.goalId[i] === 0 ? ARRIVAL : GOAL
      filled.valueMilli[k] = columns.valueMilli[i] ?? 0
      filled.scanId[k] = columns.scanId[i] ?? 0
      filled.routeId[k] = columns.routeId[i] ?? 0
      filled.place[k] = columns.place[i] ?? 0
      filled.agent[k] = columns.agent[i] ?? 0
    }
    for (const [i, row] of rows.entries()) {
      const k = chosen.length + i
      const [at, codeId, scanId, routeId, country, region, city, device, system] = row
      filled.at[k] = at
      filled.codeId[k] = codeId
      filled.kind[k] = LEAD
      filled.scanId[k] = scanId
      filled.routeId[k] = routeId
      filled.place[k] = goals.placeNumber(country, region, city)
      filled.agent[k] = goals.agentNumber(device, system)
    }
    return filled
  }

  /** The traits of some conversions, each worked out once: of their scans nothing is read before it is asked for. */
  function traitsOf(filled: Filled): {
    [N in keyof ConversionTraits]: () => ConversionTrait<ConversionTraits[N]>
  } {
    const ofScans = once(() => scans.numbersOf(filled.scanId))
    const ofScan = <N extends keyof OfScanTraits>(name: N) => once(() => scans.trait(name, ofScans()))
    const wayOfScan = ofScan('way')
    const { place, agent } = goals.values()
    return {
      place: () => ({ values: place, index: filled.place }),
      agent: () => ({ values: agent, index: filled.agent }),
      browser: ofScan('browser'),
      language: ofScan('language'),
      referrer: ofScan('referrer'),
      spot: ofScan('spot'),
      way: once(() => waysOf(wayOfScan(), filled.routeId)),
    }
  }

  /** Of so many goals the scans are known. */
  let ahead = 0

  return {
    /** Reads some of what answers will need, before anybody asks. @returns whether there is more */
    readAhead(): boolean {
      if (goals.readOn()) return true
      const all = goals.scans()
      scans.numbersOf(Float64Array.from(all.slice(ahead, ahead + AHEAD)))
      ahead = Math.min(all.length, ahead + AHEAD)
      return ahead < all.length
    },
    /** Those of some codes in a span. */
    of(workspaceId: number, codes: ReadonlySet<number>, span: Span): Conversions {
      if (goals.refresh()) scans.forget()
      const filled = fill(workspaceId, codes, span)
      const traits = traitsOf(filled)
      return { ...filled, codes, trait: (name) => traits[name]() }
    },
  }
}

/** Ways with the routes that decided: each pair of them once. */
function waysOf(
  { values, index }: ConversionTrait<OfScanTraits['way']>,
  routeId: Uint32Array,
): ConversionTrait<ConversionTraits['way']> {
  const pairs = numbering<ConversionTraits['way']>()
  const width = values.length
  const numbers = index.map((way, k) => {
    const route = routeId[k] ?? 0
    return pairs.numberOf(route * width + way, () => ({
      routeId: route,
      ...(values[way] ?? { outcome: '', exit: '', variant: '' }),
    }))
  })
  return { values: pairs.list, index: numbers }
}

function once<T>(work: () => T): () => T {
  let done: { readonly found: T } | undefined
  return () => (done ??= { found: work() }).found
}
