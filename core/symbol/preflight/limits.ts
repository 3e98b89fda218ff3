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
  const limits: Limit[] = []
  for (const [i, condition] of conditions.entries())
    limits.push(await findLimit(condition, subject, text, decoders, i + 1))
  return limits
}

async function findLimit(
  condition: Condition,
  subject: Subject,
  text: string,
  decoders: readonly Decoder[],
  seed: number,
): Promise<Limit> {
  const { name } = condition
  const [good, worst] = [condition.good(subject), condition.worst(subject)]
  const valueAt = (share: number) =>
    condition.byRatio ? good * (worst / good) ** share : good + (worst - good) * share
  const reads = (share: number) => {
    const spoilt = under(condition, valueAt(share), subject)
    return isRead(spoilt.subject, spoilt.view, text, decoders, seed)
  }
  if (!(await reads(0))) return { name, value: null, isEnd: false }
  if (await reads(1)) return { name, value: worst, isEnd: true }
  let [read, unread] = [0, 1]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (read + unread) / 2
    if (await reads(middle)) read = middle
    else unread = middle
  }
  return { name, value: valueAt(read), isEnd: false }
}
