import { NO_FIGURES, type AnswerRow } from '../results/index.ts'

/** A row of an answer: so many scans, each of another visitor, and whatever else is said of it. */
export const answerRow = (
  keys: readonly string[],
  scans: number,
  more: Partial<AnswerRow> = {},
): AnswerRow => ({ keys: [...keys], ...NO_FIGURES, scans, uniques: scans, before: null, ...more })
