import { WEEKDAYS, minutesOf, withinHours } from '../time/index.ts'
import { leavesOf, type Condition } from '../conditions/index.ts'

const STEP = 5
const DAY = 1440

const time = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
const moment = (minute: number) => `${WEEKDAYS[Math.floor(minute / DAY) % 7] ?? ''} ${time(minute % DAY)}`

/**
 * The parts of a week that no weekly hours of some conditions cover, in words, where two or more of them
 * keep hours by the same clock and so make a schedule. To five minutes. Empty where there is no schedule, no gap,
 * or two clocks.
 */
export function scheduleGaps(conditions: readonly Condition[]): string[] {
  const hours = conditions.flatMap(leavesOf).filter((leaf) => leaf.kind === 'hours')
  if (hours.length < 2 || new Set(hours.map(({ zone }) => zone)).size > 1) return []
  const sets = hours.map(({ days, from, upTo }) => [new Set(days), minutesOf(from), minutesOf(upTo)] as const)
  const covered = (minute: number) =>
    sets.some(([days, from, upTo]) =>
      withinHours({ weekday: Math.floor(minute / DAY) + 1, minute: minute % DAY }, days, from, upTo),
    )
  const gaps: { from: number; upTo: number }[] = []
  for (let minute = 0; minute < 7 * DAY; minute += STEP) {
    if (covered(minute)) continue
    const last = gaps.at(-1)
    if (last?.upTo === minute) last.upTo = minute + STEP
    else gaps.push({ from: minute, upTo: minute + STEP })
  }
  // A gap over the end of the week is one with that at its beginning.
  const [first, last] = [gaps[0], gaps.at(-1)]
  if (gaps.length > 1 && first?.from === 0 && last?.upTo === 7 * DAY) {
    gaps.shift()
    last.upTo += first.upTo
  }
  return gaps.map(({ from, upTo }) => `${moment(from)} to ${moment(upTo)}`)
}
