import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  newQuestion,
  type Answer,
  type Question,
  type QuestionKind,
  type QuestionOf,
} from '../forms/index.ts'
import { questionCounter, wordsIn, type QuestionNumbers } from './index.ts'

const EN = { language: 'en', languages: ['en'] }
const ask = <K extends QuestionKind>(kind: K, more: Partial<QuestionOf<K>> = {}): Question =>
  ({ ...newQuestion(kind, 'q'), label: { en: 'Q' }, ...more }) as unknown as Question
const CHOICES = ['a', 'b', 'c'].map((key) => ({ key, label: { en: key.toUpperCase() } }))

function count(question: Question, answers: readonly (Answer | undefined)[]): QuestionNumbers {
  const counter = questionCounter(question, EN)
  if (!counter) throw new Error('Nobody answers a section.')
  for (const answer of answers) counter.add(answer)
  return counter.numbers()
}
const counts = (numbers: QuestionNumbers) =>
  'rows' in numbers ? Object.fromEntries(numbers.rows.map(({ key, count: n }) => [key, n])) : {}

describe('answers in numbers', () => {
  it('count each choice, those that nobody made too, of all who answered', () => {
    const numbers = count(ask('some', { choices: CHOICES, hasOther: true }), [
      { chosen: ['a', 'b'] },
      { chosen: ['a'], other: 'neither' },
      undefined,
    ])
    expect([numbers.answered, counts(numbers)]).toEqual([2, { a: 2, b: 1, c: 0, other: 1 }])
  })

  // Newcombe, Statistics in Medicine 17 (1998), from memory: 81 of 263, 15 of 148, 0 of 20, 1 of 29.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('give the share of %i of %i its interval', (yes, all, low, high) => {
    const numbers = count(
      ask('yesno'),
      Array.from({ length: all }, (_, i) => i < yes),
    )
    const row = 'rows' in numbers ? numbers.rows[0] : undefined
    expect(row?.key).toBe('yes')
    expect(row?.share.low).toBeCloseTo(low, 4)
    expect(row?.share.high).toBeCloseTo(high, 4)
  })

  it('show every step of ratings and scales, and what they come to', () => {
    const rating = count(ask('rating'), [5, 5, 4, 1, undefined])
    expect([counts(rating), rating.kind === 'values' && rating.spread]).toEqual([
      { 1: 1, 2: 0, 3: 0, 4: 1, 5: 2 },
      expect.objectContaining({ mean: 3.75, median: 4.5, count: 4 }),
    ])
    expect(Object.keys(counts(count(ask('scale'), [7])))).toHaveLength(11)
    expect(Object.keys(counts(count(ask('rating', { steps: 7 }), [7])))).toHaveLength(7)
  })

  it('gather numbers into stretches, in which each lies once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e5, max: 1e5, noNaN: true }), { minLength: 1, maxLength: 60 }),
        (values) => {
          const numbers = count(ask('number'), values)
          const rows = 'rows' in numbers ? numbers.rows : []
          expect(rows.reduce((sum, row) => sum + row.count, 0)).toBe(values.length)
          expect(new Set(rows.map(({ key }) => key)).size).toBe(rows.length)
        },
      ),
      { examples: [[[0, 5e-324]], [[0, 0.5, 0.5 + 2 ** -53]], [[-1e308, 0.5, 1e308]]] },
    )
  })

  it('rank by the mean place, and count who put each first', () => {
    const numbers = count(ask('ranking', { choices: CHOICES }), [
      { chosen: ['b', 'a', 'c'] },
      { chosen: ['b', 'c', 'a'] },
      { chosen: ['a', 'b', 'c'] },
    ])
    expect(numbers.kind === 'ranks' && numbers.rows.map(({ key, count: n }) => [key, n])).toEqual([
      ['first.b', 2],
      ['first.a', 1],
      ['first.c', 0],
    ])
    expect(numbers.kind === 'ranks' && numbers.rows[0]?.meanPlace).toBeCloseTo(4 / 3)
  })

  it('list words, each once an answer, the most frequent first', () => {
    const numbers = count(ask('long'), ['Windy, windy deck!', 'The deck was full', 'WINDY 2026'])
    expect(counts(numbers)).toEqual({ windy: 2, deck: 2, full: 1 })
    expect([...wordsIn('海は静かだった', 'ja')].length).toBeGreaterThan(1)
  })

  it('say of names and addresses only how many there are', () => {
    for (const kind of ['short', 'mail', 'phone'] as const)
      expect(count(ask(kind), ['Ada', undefined])).toEqual({
        question: 'q',
        title: 'Q',
        answered: 1,
        kind: 'answered',
      })
  })
})
