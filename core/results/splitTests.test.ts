import { describe, expect, it } from 'vitest'
import { NO_FIGURES, splitTests, verdictInWords, type AnswerRow } from './index.ts'

const row = (key: string, uniques: number, leads: number): AnswerRow => ({
  keys: [key],
  ...NO_FIGURES,
  scans: uniques,
  uniques,
  leads,
  before: null,
})
const names = {
  variant: {
    '3\tl1\ta': 'Timetable: Phones, in Bremen, Long page',
    '3\tl1\tb': 'Timetable: Phones, in Bremen, Short page',
    '3\tl2\ta': 'Timetable: otherwise, Only one',
  },
}

describe('split tests in the figures', () => {
  it('are each lane with its variants; what was not split, and one alone, is none', () => {
    const rows = [
      row('3\tl1\ta', 1000, 100),
      row('', 500, 5),
      row('3\tl1\tb', 900, 20),
      row('3\tl2\ta', 10, 1),
    ]
    const [test, ...others] = splitTests({ rows, names }, 0.05, 0.01)
    expect(others).toEqual([])
    expect(test?.name).toBe('Timetable: Phones, in Bremen')
    expect(test?.variants.map(({ name }) => name)).toEqual(['Long page', 'Short page'])
    expect(test?.verdict.variants[0]?.rate?.value).toBeCloseTo(0.1, 12)
    expect(test?.verdict.variants[0]?.chance).toBeGreaterThan(0.99)
  })

  it('count who answered twice as one visitor', () => {
    const rows = [row('3\tl1\ta', 10, 30), row('3\tl1\tb', 10, 0)]
    expect(splitTests({ rows, names }, 0.05, 0.01)[0]?.verdict.variants[0]?.rate?.value).toBe(1)
  })

  it('name no winner before the planned sample, and then the one there is', () => {
    const verdictOf = (rows: AnswerRow[], rate: number, lift: number) => {
      const [test] = splitTests({ rows, names }, rate, lift)
      return test ? verdictInWords(test.verdict, ['Long', 'Short']) : ''
    }
    expect(verdictOf([row('3\tl1\ta', 100, 90), row('3\tl1\tb', 100, 1)], 0.05, 0.01)).toMatch(
      /^Each variant needs [\d,]+ visitors; the fewest so far are 100/,
    )
    const enough = [row('3\tl1\ta', 5000, 2500), row('3\tl1\tb', 5000, 500)]
    expect(verdictOf(enough, 0.5, 0.2)).toBe('“Long” brings more leads than the others.')
    const same = [row('3\tl1\ta', 5000, 500), row('3\tl1\tb', 5000, 500)]
    expect(verdictOf(same, 0.5, 0.2)).toContain('none is clearly better')
  })
})
