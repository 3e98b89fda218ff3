import { matchesAddress } from './addressPattern.ts'
import type { Goal } from './goal.ts'
import type { GoalHit, ViewHit } from './hits.ts'

/** A goal that was reached, as it is counted. */
export interface ReachedGoal {
  readonly goalId: number
  /** The same of what counts once. */
  readonly once: string
  /** The number of an order, which counts once for its goal, whichever scan it came from; empty where there is none. */
  readonly order: string
  /** Thousandths of the workspace's currency. */
  readonly valueMilli: number
}

/** Why a hit counts for nothing. */
export type GoalRefusal = 'unknown' | 'off' | 'unsigned' | 'currency'

export const GOAL_REFUSALS: Readonly<Record<GoalRefusal, string>> = {
  unknown: 'The campaign of this scan has no goal of this key. Add it under Goals.',
  off: 'This goal is turned off.',
  unsigned: 'This goal counts only when the site’s server sends it, signed.',
  currency: 'The value is in another currency than the workspace’s. Convert it first.',
}

interface Visit {
  readonly scanId: number
  /** Of the workspace: what its values are in. */
  readonly currency: string
}

const milli = (value: number | null | undefined) => Math.round((value ?? 0) * 1000)

/** The goals that a page reaches by its address. */
export function goalsOfView(
  { address, view }: ViewHit,
  goals: readonly Goal[],
  { scanId }: Pick<Visit, 'scanId'>,
): ReachedGoal[] {
  return goals
    .filter(({ kind, isOn, pattern }) => kind === 'address' && isOn && matchesAddress(pattern, address))
    .map(({ id, counts, value }) => ({
      goalId: id,
      once: counts === 'scan' ? `scan ${String(scanId)}` : `view ${String(scanId)} ${view}`,
      order: '',
      valueMilli: milli(value),
    }))
}

/** The goal that a hit names, or why it does not count. @param isSigned whether the site's server signed it */
export function goalOfHit(
  { goal: key, value, currency, order = '', event = '' }: GoalHit,
  goals: readonly Goal[],
  { scanId, currency: own }: Visit,
  isSigned: boolean,
): ReachedGoal | GoalRefusal {
  const goal = goals.find((each) => each.key === key && each.kind !== 'address')
  if (!goal) return 'unknown'
  if (!goal.isOn) return 'off'
  if (goal.signedOnly && !isSigned) return 'unsigned'
  if (currency !== undefined && currency !== own) return 'currency'
  const each = order === '' ? `event ${String(scanId)} ${event}` : `order ${order}`
  return {
    goalId: goal.id,
    once: goal.counts === 'scan' ? `scan ${String(scanId)}` : each,
    order,
    valueMilli: milli(value ?? goal.value),
  }
}
