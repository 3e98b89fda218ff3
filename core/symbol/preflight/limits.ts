import type { Subject } from './camera.ts'
import { CONDITIONS, under, type Condition, type ConditionName } from './conditions.ts'
import { isRead, type Decoder } from './read.ts'

/** How far one condition may go. */
export interface Limit {
  readonly name: ConditionName
  /**
   * The last value at which the symbol is still read; null where it is not read even in good conditions. Distances
   * and radii in millimetres, tilt in degrees, blur and ink in modules, the rest as shares and counts.
   */
  readonly value: number | null
  /** Nothing harder was tried: it may stand more. */
  readonly isEnd: boolean
}

/** Halvings of the range of each condition: to a sixteenth of it. */
const HALVINGS = 4

/** Finds how much of each condition a symbol stands, by halving. */
export async function findLimits(
  subject: Subject,
  text: string,
  decoders: readonly Decoder[],
  conditions: readonly Condition[] = CONDITIONS,
): Promise<Limit[]> {
  const read = (condition: Condition, value: number, seed: number) => {
    const spoilt = under(condition, value, subject)
    return isRead(spoilt.subject, spoilt.view, text, decoders, seed)
  }
  // Good conditions are the same for all: where it is not read in them there is nothing to halve.
  const [first] = conditions
  if (first && !(await read(first, first.good(subject), 0)))
    return conditions.map(({ name }) => ({ name, value: null, isEnd: false }))
  const limits: Limit[] = []
  for (const [i, condition] of conditions.entries())
    limits.push(await findLimit(condition, subject, (value) => read(condition, value, i + 1)))
  return limits
}

async function findLimit(
  condition: Condition,
  subject: Subject,
  readAt: (value: number) => Promise<boolean>,
): Promise<Limit> {
  const { name } = condition
  const [good, worst] = [condition.good(subject), condition.worst(subject)]
  const valueAt = (share: number) =>
    condition.byRatio ? good * (worst / good) ** share : good + (worst - good) * share
  const isStood = () => readAt(worst)
  const whole = { name, value: worst, isEnd: true }
  if (condition.isMostlyStood && (await isStood())) return whole
  let [read, unread] = [0, 1]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (read + unread) / 2
    if (await readAt(valueAt(middle))) read = middle
    else unread = middle
  }
  // It stood everything that was tried: the worst may not be too much for it either.
  if (unread === 1 && !condition.isMostlyStood && (await isStood())) return whole
  return { name, value: valueAt(read), isEnd: false }
}
