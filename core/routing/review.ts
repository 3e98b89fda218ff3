import { momentOf } from '../time/index.ts'
import {
  casesOf,
  greatCircleKm,
  implies,
  isImpossible,
  leavesOf,
  whoInWords,
  type Condition,
  type Leaf,
} from '../conditions/index.ts'
import { readDestination } from './destination.ts'
import { addressInWords } from './inWords.ts'
import { scheduleGaps } from './scheduleGaps.ts'
import type { Lane, Rules } from './rules.ts'

/** One thing the review noticed: `wrong` is surely not meant, `look` may be. */
export interface ReviewFinding {
  readonly kind:
    | 'covered'
    | 'impossible'
    | 'never-taken'
    | 'circles'
    | 'window-over'
    | 'gap'
    | 'weights'
    | 'as-otherwise'
    | 'systems'
    | 'life-over'
  /** The lane it is about; null for the route. */
  readonly lane: string | null
  readonly weight: 'wrong' | 'look'
  readonly sentence: string
}

interface Reviewed {
  readonly destination: string
  readonly rules: Rules
  /** UTC milliseconds. */
  readonly now: number
  /** Real scans by exit since the lanes are as they are; without it nothing is said of practice. */
  readonly taken?: ReadonlyMap<string, number>
}

/** Fewer scans than this tell nothing about a lane that took none. Common practice, no published source. */
const TELLING_SCANS = 100

const nameOf = ({ name, condition }: Lane) => `“${name === '' ? whoInWords(condition) : name}”`

/** Whether a lane surely sends every scan it takes somewhere: a split whose variants all ended, and a route that may be gone, do not. */
const surelyLeads = ({ outcome }: Lane) =>
  outcome.kind === 'address' ||
  outcome.kind === 'message' ||
  outcome.kind === 'page' ||
  (outcome.kind === 'split' && outcome.variants.some(({ weight, ended }) => !ended && weight > 0))

/**
 * Reads a route over before anybody scans it. What is said is certain; there may be more that could not be
 * shown. In the order of the lanes, then of the route.
 */
export function reviewRoute({ destination, rules, now, taken }: Reviewed): ReviewFinding[] {
  const live = rules.lanes.filter(({ resting }) => !resting)
  return [
    ...live.flatMap((lane, i) =>
      laneFindings(lane, live.slice(0, i), live.slice(i + 1), { destination, now }),
    ),
    ...overlappingCircles(live),
    ...scheduleFindings(live),
    ...systemFindings(live, destination),
    ...lifeFindings(rules, now),
    ...practice(live, taken),
  ]
}

function laneFindings(
  lane: Lane,
  earlier: readonly Lane[],
  later: readonly Lane[],
  { destination, now }: Pick<Reviewed, 'destination' | 'now'>,
): ReviewFinding[] {
  const found: ReviewFinding[] = []
  const say = (kind: ReviewFinding['kind'], weight: ReviewFinding['weight'], sentence: string) =>
    found.push({ kind, lane: lane.id, weight, sentence })
  if (isImpossible(lane.condition))
    say(
      'impossible',
      'wrong',
      `No scan can ever take the lane ${nameOf(lane)}: its conditions shut each other out.`,
    )
  else {
    const covering = coveredBy(lane.condition, earlier.filter(surelyLeads))
    if (covering)
      say(
        'covered',
        'wrong',
        `The lane ${nameOf(lane)} is never reached: ${covering.map(nameOf).join(' and ')} ${covering.length === 1 ? 'takes' : 'take'} all of its scans before it. Move it up, or take it out.`,
      )
  }
  for (const leaf of leavesOf(lane.condition)) {
    if (leaf.kind === 'window' && leaf.upTo !== '' && momentOf(leaf.zone, leaf.upTo) <= now)
      say(
        'window-over',
        'look',
        `The time of the lane ${nameOf(lane)} is over. Remove the lane, or give it a new end.`,
      )
  }
  if (lane.outcome.kind === 'split') {
    const sum = lane.outcome.variants.reduce((total, { weight, ended }) => total + (ended ? 0 : weight), 0)
    if (sum === 0)
      say(
        'weights',
        'wrong',
        `The weights of ${nameOf(lane)} add up to 0, so the lane takes nobody. Give a variant a weight above 0.`,
      )
  }
  const others = later.filter(
    ({ outcome }) => outcome.kind !== 'address' || !sameAddress(outcome.address, destination),
  )
  if (
    lane.outcome.kind === 'address' &&
    sameAddress(lane.outcome.address, destination) &&
    others.length === 0
  )
    say('as-otherwise', 'look', `The lane ${nameOf(lane)} leads where everything else leads anyway.`)
  return found
}

function coveredBy(condition: Condition, earlier: readonly Lane[]): Lane[] | null {
  const used = new Set<Lane>()
  for (const each of casesOf(condition)) {
    const lane = isImpossible(each) ? null : earlier.find((candidate) => implies(each, candidate.condition))
    if (lane === undefined) return null
    if (lane) used.add(lane)
  }
  return used.size === 0 ? null : [...used]
}

function sameAddress(a: string, b: string): boolean {
  const [x, y] = [readDestination(a), readDestination(b)]
  return x.ok && y.ok && x.url.href === y.url.href
}

const circlesOf = ({ condition }: Lane) =>
  (condition.kind === 'all' ? condition.of : [condition]).filter(
    (part): part is Extract<Leaf, { kind: 'near' }> => part.kind === 'near',
  )

function overlappingCircles(lanes: readonly Lane[]): ReviewFinding[] {
  return lanes.flatMap((lane, i) =>
    lanes.slice(i + 1).flatMap((other) =>
      circlesOf(lane).flatMap((a) =>
        circlesOf(other).flatMap((b): ReviewFinding[] => {
          const apart = greatCircleKm(a, b)
          if (apart >= a.km + b.km || apart + b.km <= a.km) return []
          return [
            {
              kind: 'circles',
              lane: other.id,
              weight: 'look',
              sentence: `The circles about ${a.name || 'one place'} and ${b.name || 'another'} overlap: scans in both take the lane ${nameOf(lane)}, which comes first.`,
            },
          ]
        }),
      ),
    ),
  )
}

function scheduleFindings(lanes: readonly Lane[]): ReviewFinding[] {
  const gaps = scheduleGaps(lanes.map(({ condition }) => condition))
  if (gaps.length === 0) return []
  return [
    {
      kind: 'gap',
      lane: null,
      weight: 'look',
      sentence: `The schedule leaves gaps: ${gaps.slice(0, 3).join('; ')}${gaps.length > 3 ? `; and ${String(gaps.length - 3)} more` : ''}. Scans then go where everything else leads.`,
    },
  ]
}

/** Lanes that tell systems apart, where everybody else is sent to one of their pages: a page for one system is no page for the rest. */
function systemFindings(lanes: readonly Lane[], destination: string): ReviewFinding[] {
  const bySystem = lanes.filter(({ condition }) => leavesOf(condition).some(({ kind }) => kind === 'system'))
  if (bySystem.length < 2 || bySystem.length < lanes.length) return []
  const shared = bySystem.find(
    ({ outcome }) => outcome.kind === 'address' && sameAddress(outcome.address, destination),
  )
  if (!shared) return []
  return [
    {
      kind: 'systems',
      lane: shared.id,
      weight: 'look',
      sentence: `Everything else leads to ${addressInWords(destination)}, the page for ${nameOf(shared)}. Give the rest, computers among them, a page of their own.`,
    },
  ]
}

function lifeFindings({ life }: Rules, now: number): ReviewFinding[] {
  if (!life || life.endsAt === '' || momentOf(life.zone, life.endsAt) > now) return []
  return [
    {
      kind: 'life-over',
      lane: null,
      weight: 'look',
      sentence: 'The route’s end has passed: no lane takes any scan. Give it a new end, or none.',
    },
  ]
}

function practice(lanes: readonly Lane[], taken: Reviewed['taken']): ReviewFinding[] {
  if (!taken) return []
  const all = [...taken.values()].reduce((sum, scans) => sum + scans, 0)
  if (all < TELLING_SCANS) return []
  return lanes
    .filter(({ id }) => (taken.get(id) ?? 0) === 0)
    .map((lane) => ({
      kind: 'never-taken',
      lane: lane.id,
      weight: 'look',
      sentence: `None of the last ${all.toLocaleString('en-GB')} scans took the lane ${nameOf(lane)}.`,
    }))
}
