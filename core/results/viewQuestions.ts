import {
  filterEntries,
  isOfKind,
  withoutDimension,
  type Dimension,
  type Filters,
} from '../dimensions/index.ts'
import { daysBetween, unitFor } from '../time/index.ts'
import { isOfOther, ROWS_MAX, type Against, type HeldAgainst, type Question } from './question.ts'
import type { QuestionView } from './view.ts'

/** Rows of an answer that a screen or a report draws. */
const DRAWN_ROWS = 500

/** Dimensions whose keys are numbers of things. */
const NUMBERED: ReadonlySet<Dimension> = new Set(['client', 'campaign', 'route', 'piece', 'lane', 'variant'])

/** What a view parts its figures by: time in pieces that suit the days, where it says nothing. */
export const partedBy = (
  { by }: Pick<QuestionView, 'by'>,
  days: { readonly from: string; readonly to: string },
): readonly Dimension[] => (by.length > 0 ? by : [unitFor(daysBetween(days.from, days.to))])

/**
 * The two questions that a view asks: for the sum of what its filters take, and for its parts. What it is parted by is
 * chosen on it: all of that stays there to be seen.
 */
export const viewQuestions = (
  { what, filters }: Pick<QuestionView, 'what' | 'filters'>,
  by: readonly Dimension[],
): [Question, Question] => [
  { what, by: [], filters, top: 1 },
  { what, by: [...by], filters: withoutDimension(filters, ...by), top: DRAWN_ROWS },
]

/** Questions whose answers name the keys of filters, where these are numbers. */
export const namingQuestions = (filters: Filters): Question[] =>
  filterEntries(filters)
    .filter(([name]) => NUMBERED.has(name))
    .map(([name, keys]) => ({
      what: 'scans',
      by: [name],
      filters: isOfKind(name, 'piece') ? { [name]: keys } : {},
      top: ROWS_MAX,
    }))

const AGAINST_NAMES: Readonly<Record<Against, string | null>> = {
  none: null,
  before: 'days before',
  year: 'year before',
  campaign: 'other campaign',
  campaignFromStart: 'other campaign',
}

/** What figures are held against, by its name; null where it is nothing. */
export const againstName = (against: Against, before: HeldAgainst | null): string | null =>
  before && (before.campaign ?? AGAINST_NAMES[against])

/** What a view is held against in a campaign; nothing while the other campaign is not chosen, or where none can be. */
export function viewAgainst(
  { against, otherCampaignId }: Pick<QuestionView, 'against' | 'otherCampaignId'>,
  campaignId: number | undefined,
): { readonly against: Against; readonly otherCampaignId?: number } {
  if (!isOfOther(against)) return { against }
  return campaignId === undefined || otherCampaignId === null || otherCampaignId === campaignId
    ? { against: 'none' }
    : { against, otherCampaignId }
}

/** Whether it is known what was expected of what a view asks: a forecast is one of scans a day, of all there are. */
export const isForecast = (
  { what, against, filters }: Pick<QuestionView, 'what' | 'against' | 'filters'>,
  by: readonly Dimension[],
): boolean =>
  by.length === 1 &&
  by[0] === 'day' &&
  what === 'scans' &&
  against === 'none' &&
  filterEntries(filters).length === 0
