import type { Dimension } from '../dimensions/index.ts'
import { day } from '../formats/index.ts'
import { isRanked, MEASURES, RANKED_FROM, type Measure } from '../results/index.ts'
import { PLACE_NOTE } from '../scans/index.ts'
import { dayIn } from '../time/index.ts'
import type { MadeQuestion } from './made.ts'

const PLACES: ReadonlySet<Dimension> = new Set(['country', 'region', 'city', 'distance'])
const COSTS: ReadonlySet<Measure> = new Set([
  'cost',
  'costPerScan',
  'costPerUnique',
  'costPerLead',
  'costPerGoal',
  'returnOnCost',
])
const GOALS: ReadonlySet<Measure> = new Set([
  'arrivals',
  'arrivalRate',
  'goals',
  'goalRate',
  'value',
  'valuePerScan',
  'costPerGoal',
  'returnOnCost',
])

/** How the figures of some questions were counted, as far as that concerns them. */
export function methodSentences(questions: readonly MadeQuestion[]): string[] {
  if (questions.length === 0) return []
  const isAsked = (measures: ReadonlySet<Measure>) => questions.some(({ what }) => measures.has(what))
  const isBy = (dimensions: ReadonlySet<Dimension>) =>
    questions.some(({ by }) => by.some((each) => dimensions.has(each)))
  const zones = new Set(questions.map(({ zone }) => zone))
  const hasRates = questions.some(({ what }) => MEASURES[what].form === 'share')
  const hasFew = questions.some(({ what, answer }) => answer.rows.some((row) => !isRanked(what, row)))
  const folded = questions.find(({ answer }) => answer.leavesOutFolded)
  return [
    `Days are those of ${[...zones].join(' and ')}; weeks begin on Monday (ISO 8601).`,
    'A scan is one request for a short link by a person’s device. Link previews, crawlers and test scans are not among them.',
    'A unique scan is the first of a day by one visitor at one piece: over more days they are sums of daily uniques.',
    ...(hasRates ? ['Beside a rate stands the interval in which it lies with 95 % (Wilson 1927).'] : []),
    ...(hasFew ? [`Rates of fewer than ${String(RANKED_FROM)} scans are not ranked among the others.`] : []),
    ...(isAsked(COSTS) ? ['Costs are those of whole print runs, whatever the days.'] : []),
    ...(isAsked(GOALS)
      ? ['Arrivals and goals are those that a site reported with the reference of a scan.']
      : []),
    ...(isBy(PLACES) ? [PLACE_NOTE] : []),
    ...(folded?.rowsSince
      ? [
          `Scans before ${day(dayIn(folded.zone, folded.rowsSince))} are kept as sums, which are not parted by everything.`,
        ]
      : []),
    ...(questions.some(({ expected }) => expected.length > 0)
      ? [
          'What was expected is worked out of the same days of earlier weeks and of the season; 95 of 100 days lie within the band.',
        ]
      : []),
  ]
}
