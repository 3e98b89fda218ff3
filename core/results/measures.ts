import { wilson, type Interval } from './proportion.ts'

/** What is counted of a group of scans, and what the pieces in it cost; null where that cannot be parted so. */
export interface Figures {
  readonly scans: number
  readonly uniques: number
  readonly leads: number
  /** In the workspace's currency. */
  readonly cost: number | null
}

/** What can be asked for, in the order in which people are offered it. */
export const MEASURES = {
  scans: { label: 'Scans', form: 'count' },
  uniques: { label: 'Unique scans', form: 'count' },
  leads: { label: 'Leads', form: 'count' },
  leadRate: { label: 'Leads per scan', form: 'share' },
  cost: { label: 'Cost', form: 'money' },
  costPerScan: { label: 'Cost per scan', form: 'money' },
  costPerUnique: { label: 'Cost per unique scan', form: 'money' },
  costPerLead: { label: 'Cost per lead', form: 'money' },
} as const satisfies Record<string, { label: string; form: 'count' | 'share' | 'money' }>
export type Measure = keyof typeof MEASURES
/** Its own names. */
export const MEASURE_NAMES = Object.keys(MEASURES) as readonly Measure[]

/** A part of something; no figure where there is nothing to part. */
const per = (whole: number | null, parts: number): number | null =>
  whole === null || parts === 0 ? null : whole / parts

/** What a measure comes to of some figures; null where there is no figure: nothing is divided by 0. */
export function measured(measure: Measure, figures: Figures): number | null {
  const { scans, uniques, leads, cost } = figures
  switch (measure) {
    case 'leadRate':
      return per(leads, scans)
    case 'costPerScan':
      return per(cost, scans)
    case 'costPerUnique':
      return per(cost, uniques)
    case 'costPerLead':
      return per(cost, leads)
    case 'scans':
    case 'uniques':
    case 'leads':
    case 'cost':
      return figures[measure]
  }
}

/**
 * Between what a measure may lie by chance alone, with 95 %; null where it is no rate or there is none. Somebody may
 * answer more than once, so that leads count up to one a scan.
 */
export function intervalOf(measure: Measure, { scans, leads }: Figures): Interval | null {
  return measure === 'leadRate' && scans > 0 ? wilson(Math.min(leads, scans), scans) : null
}

/** Rates that rest on fewer scans are not ranked among others. */
export const RANKED_FROM = 5

/** Whether a figure rests on enough scans to stand among others in the order of their size. */
export const isRanked = (measure: Measure, { scans }: Figures): boolean =>
  MEASURES[measure].form === 'count' || measure === 'cost' || scans >= RANKED_FROM

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
    b.leads - a.leads
}
