import type { Condition } from '../conditions/index.ts'
import type { Answer, Lane, LaneOutcome, Life, Rules } from './rules.ts'

/** What became of routes and pages that were copied together; whatever is not in it stays as it is. */
export interface Renumbered {
  readonly routes: ReadonlyMap<number, number>
  readonly pages: ReadonlyMap<number, number>
}

/** A day `2026-07-01` in the copy; null where it is to have none. */
type ShiftDay = (day: string) => string | null

/** A moment `2026-07-01T09:00` on another day; empty where it is to have none. */
function momentOn(moment: string, shift: ShiftDay): string {
  if (moment === '') return ''
  const day = shift(moment.slice(0, 10))
  return day === null ? '' : day + moment.slice(10)
}

function copiedAnswer<A extends Answer>(answer: A, { pages }: Renumbered): A {
  return answer.kind === 'page' ? { ...answer, pageId: pages.get(answer.pageId) ?? answer.pageId } : answer
}

function copiedOutcome(outcome: LaneOutcome, renumbered: Renumbered): LaneOutcome {
  if (outcome.kind === 'route')
    return { ...outcome, routeId: renumbered.routes.get(outcome.routeId) ?? outcome.routeId }
  if (outcome.kind === 'split')
    return {
      ...outcome,
      variants: outcome.variants.map((each) => ({ ...each, leads: copiedAnswer(each.leads, renumbered) })),
    }
  return copiedAnswer(outcome, renumbered)
}

/** Windows in the copy; one that would lose its dates keeps them, since without them it would always hold. */
function copiedCondition(condition: Condition, shift: ShiftDay): Condition {
  if (condition.kind === 'all' || condition.kind === 'any')
    return { ...condition, of: condition.of.map((part) => copiedCondition(part, shift)) }
  if (condition.kind === 'not') return { ...condition, of: copiedCondition(condition.of, shift) }
  if (condition.kind !== 'window') return condition
  return {
    ...condition,
    from: momentOn(condition.from, shift) || condition.from,
    upTo: momentOn(condition.upTo, shift) || condition.upTo,
  }
}

function copiedLife(life: Life, renumbered: Renumbered, shift: ShiftDay, at: number): Life {
  const answer = (given: Answer | null) => given && copiedAnswer(given, renumbered)
  const isLimited = life.limit !== null || life.daily !== null
  return {
    ...life,
    startsAt: momentOn(life.startsAt, shift),
    endsAt: momentOn(life.endsAt, shift),
    countedFrom: isLimited ? at : life.countedFrom,
    before: answer(life.before),
    after: answer(life.after),
    full: answer(life.full),
    fullToday: answer(life.fullToday),
  }
}

/**
 * The rules of a route that is copied with the others of its campaign: they lead to the copies, their dates are
 * shifted, and limits count from the moment of the copy (`at`, UTC ms).
 *
 * @param shift a day in the copy; null clears the dates of a route's life, while windows of lanes keep theirs
 */
export function copyRules(rules: Rules, renumbered: Renumbered, shift: ShiftDay, at: number): Rules {
  const lane = (each: Lane): Lane => ({
    ...each,
    condition: copiedCondition(each.condition, shift),
    outcome: copiedOutcome(each.outcome, renumbered),
  })
  return {
    ...rules,
    lanes: rules.lanes.map(lane),
    life: rules.life && copiedLife(rules.life, renumbered, shift, at),
  }
}
