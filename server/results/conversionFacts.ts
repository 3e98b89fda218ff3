import type Sqlite from 'better-sqlite3'
import { isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { QUARTER_MS, type Span } from '@flimbo/core/time'
import { goalStore, type GoalColumns } from './goalStore.ts'
import { NO_SCAN, scansOfConversions } from './scansOfConversions.ts'

/** What happened after a scan, of which each conversion is one. */
export interface ConversionCounts {
  readonly leads: number
  /** Scans that arrived on the site. */
  readonly arrivals: number
  readonly goals: number
  /** What goals are worth, in thousandths of the workspace's currency: sums of whole numbers are exact. */
  readonly valueMilli: number
}

/** A lead, an arrival or a goal as it is counted: what it was brought by, and from where; empty for what is not known any more. */
export interface ConversionFact extends ConversionCounts {
  readonly at: number
  readonly codeId: number
  readonly country: string
  readonly region: string
  readonly city: string
  readonly latitude: number | null
  readonly longitude: number | null
  readonly device: string
  readonly system: string
  readonly browser: string
  readonly language: string
  readonly referrer: string
  readonly outcome: string
  /** The route that decided, by which lane the scan left it, and by which variant. */
  readonly routeId: number
  readonly exit: string
  readonly variant: string
}

type StoredLead = Pick<
  ConversionFact,
  'at' | 'codeId' | 'country' | 'region' | 'city' | 'device' | 'system' | 'routeId'
> & {
  readonly scanId: number
}
/** What of conversions is asked for: what is not is not told apart. */
export type ConversionNeed = 'time' | 'place' | 'agent' | 'scan'

const NEEDS: Partial<Record<Dimension, ConversionNeed>> = {
  ...{ country: 'place', region: 'place', city: 'place', device: 'agent', system: 'agent' },
  // What they do not know by themselves.
  ...{ browser: 'scan', language: 'scan', referrer: 'scan', outcome: 'scan' },
  ...{ lane: 'scan', variant: 'scan', distance: 'scan' },
}

/** What a question by some dimensions needs to know of each conversion. */
const conversionNeeds = (dimensions: readonly Dimension[]): ReadonlySet<ConversionNeed> =>
  new Set(
    dimensions.flatMap((dimension): ConversionNeed[] => {
      if (isOfKind(dimension, 'time') || isOfKind(dimension, 'recurring')) return ['time']
      const need = NEEDS[dimension]
      return need === undefined ? [] : [need]
    }),
  )

/** More places, or kinds of devices, are not told apart by a number: 2^21 quarters × 2^20 × 2^11. */
const PLACES_MAX = 2 ** 20
const AGENTS_MAX = 2 ** 11

type Tallied = { -readonly [F in keyof ConversionFact]: ConversionFact[F] }

/**
 * Leads that are in no doubt, arrivals and goals of people, by the codes that brought them: one belongs to its code, as
 * its scan does, wherever that code is by now.
 */
export function conversionFacts(database: Sqlite.Database) {
  const goals = goalStore(database)
  const leads = database.prepare(
    `SELECT at, codeId, scanId, routeId, country, region, city, device, system FROM leads
    WHERE workspaceId = ? AND at >= ? AND at < ? AND held = '' AND apart = ''`,
  )
  const scans = scansOfConversions(database)

  /** Goals that differ in nothing that is asked for stand together. */
  function goalFacts(
    workspaceId: number,
    codes: ReadonlySet<number>,
    span: Span,
    needs: ReadonlySet<ConversionNeed>,
  ): ConversionFact[] {
    const [ofTime, ofPlace, ofAgent, ofScan] = (['time', 'place', 'agent', 'scan'] as const).map((need) =>
      needs.has(need),
    )
    /** What a goal differs from others of its code in, as one number: quarters of an hour, places and agents fit in 52 bits. */
    function keyOf({ at, place, agent }: GoalColumns, i: number): number {
      // Those of a scan each stand alone: few are more than one.
      if (ofScan) return i
      const quarter = ofTime ? Math.floor((at[i] ?? 0) / QUARTER_MS) : 0
      const where = ofPlace ? (place[i] ?? 0) : 0
      return (quarter * PLACES_MAX + where) * AGENTS_MAX + (ofAgent ? (agent[i] ?? 0) : 0)
    }
    function begin(columns: GoalColumns, i: number): Tallied {
      const { country, region, city } = goals.placeOf(columns.place[i] ?? 0)
      const { device, system } = goals.agentOf(columns.agent[i] ?? 0)
      const known = ofScan ? scans.of(columns.scanId[i] ?? 0) : NO_SCAN
      // Written out: there are many.
      return {
        at: columns.at[i] ?? 0,
        codeId: columns.codeId[i] ?? 0,
        routeId: columns.routeId[i] ?? 0,
        country,
        region,
        city,
        device,
        system,
        latitude: known.latitude,
        longitude: known.longitude,
        browser: known.browser,
        language: known.language,
        referrer: known.referrer,
        outcome: known.outcome,
        exit: known.exit,
        variant: known.variant,
        leads: 0,
        arrivals: 0,
        goals: 0,
        valueMilli: 0,
      }
    }
    const facts: Tallied[] = []
    const byCode = new Map<number, Map<number, Tallied>>()
    goals.each(workspaceId, codes, span, (columns, i) => {
      const code = columns.codeId[i] ?? 0
      let own = byCode.get(code)
      if (!own) byCode.set(code, (own = new Map<number, Tallied>()))
      const key = keyOf(columns, i)
      let fact = own.get(key)
      if (!fact) {
        fact = begin(columns, i)
        own.set(key, fact)
        facts.push(fact)
      }
      if (columns.goalId[i] === 0) fact.arrivals++
      else fact.goals++
      fact.valueMilli += columns.valueMilli[i] ?? 0
    })
    return facts
  }

  /**
   * Those of some codes in a span: for each question, by what it needs to know. Rows and scans are read once, however many
   * questions there are; questions that need the same share what they count.
   */
  return (workspaceId: number, codes: ReadonlySet<number>, span: Span) => {
    const stored = (leads.all(workspaceId, span.start, span.end) as StoredLead[]).filter(({ codeId }) =>
      codes.has(codeId),
    )
    scans.refresh()
    const byNeeds = new Map<string, ConversionFact[]>()
    return (dimensions: readonly Dimension[]): ConversionFact[] => {
      const needs = conversionNeeds(dimensions)
      const key = [...needs].sort().join(' ')
      const there = byNeeds.get(key)
      if (there) return there
      const found = [
        ...stored.map(({ scanId, ...lead }) => ({
          ...lead,
          ...(needs.has('scan') ? scans.of(scanId) : NO_SCAN),
          ...{ leads: 1, arrivals: 0, goals: 0, valueMilli: 0 },
        })),
        ...goalFacts(workspaceId, codes, span, needs),
      ]
      byNeeds.set(key, found)
      return found
    }
  }
}
