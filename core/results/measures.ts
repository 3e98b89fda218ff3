import { wilson, type Counted, type Interval } from './proportion.ts'

/** What is counted of a group of scans, and what the pieces in it cost; null where that cannot be parted so. */
export interface Figures {
  readonly scans: number
  readonly uniques: number
  readonly leads: number
  /** Scans that arrived on a site that reports so. */
  readonly arrivals: number
  readonly goals: number
  /** What goals are worth, in the workspace's currency. */
  readonly value: number
  /** In the workspace's currency. */
  readonly cost: number | null
}

export const NO_FIGURES: Figures = {
  scans: 0,
  uniques: 0,
  leads: 0,
  arrivals: 0,
  goals: 0,
  value: 0,
  cost: null,
}

/** Figures of two groups together. What one of them costs is not known where that of either is not. */
export function addFigures(a: Figures, b: Figures): Figures {
  return {
    scans: a.scans + b.scans,
    uniques: a.uniques + b.uniques,
    leads: a.leads + b.leads,
    arrivals: a.arrivals + b.arrivals,
    goals: a.goals + b.goals,
    value: inThousandths(a.value + b.value),
    cost: a.cost === null || b.cost === null ? null : a.cost + b.cost,
  }
}

/** Sums of amounts carry traces of binary fractions. */
const inThousandths = (amount: number): number => Math.round(amount * 1000) / 1000

/** What can be asked for, in the order in which people are offered it. */
export const MEASURES = {
  scans: { label: 'Scans', form: 'count' },
  uniques: { label: 'Unique scans', form: 'count' },
  leads: { label: 'Leads', form: 'count' },
  leadRate: { label: 'Leads per scan', form: 'share' },
  arrivals: { label: 'Arrivals', form: 'count' },
  arrivalRate: { label: 'Arrivals per scan', form: 'share' },
  goals: { label: 'Goals', form: 'count' },
  goalRate: { label: 'Goals per scan', form: 'share' },
  value: { label: 'Value', form: 'money' },
  valuePerScan: { label: 'Value per scan', form: 'money' },
  cost: { label: 'Cost', form: 'money' },
  costPerScan: { label: 'Cost per scan', form: 'money' },
  costPerUnique: { label: 'Cost per unique scan', form: 'money' },
  costPerLead: { label: 'Cost per lead', form: 'money' },
  costPerGoal: { label: 'Cost per goal', form: 'money' },
  returnOnCost: { label: 'Return on cost', form: 'ratio' },
} as const satisfies Record<string, { label: string; form: 'count' | 'share' | 'ratio' | 'money' }>
export type Measure = keyof typeof MEASURES
/** Its own names. */
export const MEASURE_NAMES = Object.keys(MEASURES) as readonly Measure[]

/** A part of something; no figure where there is nothing to part. */
const per = (whole: number | null, parts: number): number | null =>
  whole === null || parts === 0 ? null : whole / parts

/** What a measure comes to of some figures; null where there is no figure: nothing is divided by 0. */
export function measured(measure: Measure, figures: Figures): number | null {
  const { scans, uniques, leads, arrivals, goals, value, cost } = figures
  switch (measure) {
    case 'leadRate':
      return per(leads, scans)
    case 'arrivalRate':
      return per(arrivals, scans)
    case 'goalRate':
      return per(goals, scans)
    case 'valuePerScan':
      return per(value, scans)
    case 'costPerGoal':
      return per(cost, goals)
    // What came back beyond what was spent, of what was spent.
    case 'returnOnCost':
      return cost === null ? null : per(value - cost, cost)
    case 'costPerScan':
      return per(cost, scans)
    case 'costPerUnique':
      return per(cost, uniques)
    case 'costPerLead':
      return per(cost, leads)
    case 'scans':
    case 'uniques':
    case 'leads':
    case 'arrivals':
    case 'goals':
    case 'value':
    case 'cost':
      return figures[measure]
  }
}

/** What the rates are of, by measure. */
const HITS: Partial<Record<Measure, 'leads' | 'arrivals' | 'goals'>> = {
  leadRate: 'leads',
  arrivalRate: 'arrivals',
  goalRate: 'goals',
}

/** A rate as a part of scans: so many that had it, of so many; null of what is none. Somebody may answer or reach a goal more than once, so that each counts up to one a scan. */
export function shareOf(measure: Measure, figures: Figures): Counted | null {
  const of = HITS[measure]
  return of === undefined ? null : { hits: Math.min(figures[of], figures.scans), trials: figures.scans }
}

/** Between what a measure may lie by chance alone, with 95 %; null where it is no rate or there is none. */
export function intervalOf(measure: Measure, figures: Figures): Interval | null {
  const share = shareOf(measure, figures)
  return share && share.trials > 0 ? wilson(share.hits, share.trials) : null
}

/** Rates that rest on fewer scans are not ranked among others. */
export const RANKED_FROM = 5

/** Whether a figure rests on enough scans to stand among others in the order of their size. */
export const isRanked = (measure: Measure, { scans }: Figures): boolean =>
  MEASURES[measure].form === 'count' || measure === 'cost' || measure === 'value' || scans >= RANKED_FROM

/** The order of a ranking: the largest first, what is not ranked after it, what has no figure last. */
export function byMeasure(measure: Measure) {
  const rank = (figures: Figures) => {
    if (measured(measure, figures) === null) return 2
    return isRanked(measure, figures) ? 0 : 1
  }
  return (a: Figures, b: Figures): number =>
    rank(a) - rank(b) ||
    (measured(measure, b) ?? 0) - (measured(measure, a) ?? 0) ||
    b.scans - a.scans ||
    b.leads - a.leads ||
    b.goals - a.goals
}
