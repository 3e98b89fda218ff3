import type { Figures } from './measures.ts'
import { wilson, type Interval } from './proportion.ts'

/** What may come after a scan, in the order in which it does. */
export const FUNNEL_STEPS = ['scans', 'opened', 'arrivals', 'leads', 'goals'] as const
export type FunnelStep = (typeof FUNNEL_STEPS)[number]

export interface FunnelRow {
  readonly step: FunnelStep
  readonly count: number
  /** Of all scans, with its 95 % interval (Wilson); null of the scans themselves, and where there are none. */
  readonly share: Interval | null
}

/**
 * How far scans got: shown a page, arrived on the site, answered a form, reached a goal. A step that nobody got to is
 * left out, but for the first; each is a part of all scans, since some ways lead past a step.
 *
 * @param opened scans that were shown a page; null where that is not known
 */
export function funnelRows(
  figures: Pick<Figures, 'scans' | 'arrivals' | 'leads' | 'goals'>,
  opened: number | null,
): FunnelRow[] {
  const { scans } = figures
  return FUNNEL_STEPS.flatMap((step): FunnelRow[] => {
    const count = step === 'opened' ? (opened ?? 0) : figures[step]
    if (step === 'scans') return [{ step, count, share: null }]
    if (count === 0) return []
    // Somebody may answer twice: no more than every scan can have got there.
    return [{ step, count, share: scans > 0 ? wilson(Math.min(count, scans), scans) : null }]
  })
}
