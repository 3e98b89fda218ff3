export {
  MARK_KINDS,
  resultsApi,
  resultsQuery,
  resultsQueryFields,
  resultsSummary,
  savedQuestion,
  savedValue,
  timeMark,
} from './contract.ts'
export type { ResultsSummary, SavedQuestion, SavedValue, TimeMark } from './contract.ts'
export { chancesOfBeing, difference, trialsNeeded, wilson } from './proportion.ts'
export type { Counted, Interval } from './proportion.ts'
export { compareRates, FALSE_DISCOVERIES } from './compare.ts'
export type { Comparison } from './compare.ts'
export { adjustedForMany } from './falseDiscovery.ts'
export { fisherTest } from './fisher.ts'
export { funnelRows } from './funnel.ts'
export type { FunnelRow, FunnelStep } from './funnel.ts'
export { FEW_VISITORS, missingVisits, SUITE_HOURS } from './missingVisits.ts'
export type { MissingFacts, MissingReason, MissingVerdict } from './missingVisits.ts'
export { countInterval, whatNext } from './whatNext.ts'
export type { Earning, EarningPiece, WhatNext, WorthBy } from './whatNext.ts'
export { countAt, median, robustDeviation, stabilised, STABLE_95 } from './robust.ts'
export { meanInterval, spreadOf, studentT } from './mean.ts'
export type { Spread } from './mean.ts'
export { splitTests } from './splitTests.ts'
export type { SplitTest, TestedVariant } from './splitTests.ts'
export { splitVerdict, verdictInWords } from './splitVerdict.ts'
export type { SplitVerdict, VariantVerdict } from './splitVerdict.ts'
export { countInto, emptyBuckets } from './countInto.ts'
export type { BucketCount, QuarterCounts } from './countInto.ts'
export {
  addFigures,
  byMeasure,
  intervalOf,
  isRanked,
  measured,
  MEASURE_NAMES,
  MEASURES,
  NO_FIGURES,
  RANKED_FROM,
  shareOf,
} from './measures.ts'
export type { Figures, Measure } from './measures.ts'
export {
  AGAINST,
  answer,
  CELLS_MAX,
  CROSSED_MAX,
  daysAgainst,
  isOfOther,
  QUESTIONS_MAX,
  ROWS_MAX,
  heldAgainst,
} from './question.ts'
export type { Against, Answer, AnswerRow, Answers, Asked, HeldAgainst, Question } from './question.ts'
export { rankRows } from './rankRows.ts'
export type { KeyedFigures } from './rankRows.ts'
export { DEFAULT_PRESET, daysOf, periodBetween, presetNamed, PRESETS } from './period.ts'
export type { Period, Preset } from './period.ts'
export {
  againstName,
  isForecast,
  namingQuestions,
  partedBy,
  viewAgainst,
  viewQuestions,
} from './viewQuestions.ts'
export { DEFAULT_VIEW, period, readView, writeView } from './view.ts'
export type { QuestionView } from './view.ts'
