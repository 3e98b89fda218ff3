import { describe, expect, it } from 'vitest'
import { newQuestion, readForm, type Question } from '../forms/index.ts'
import { plainReaders } from '../tests/formArbitrary.ts'
import { readLeads } from './index.ts'

const choice = (key: string, en: string, de: string) => ({ key, label: { en, de } })
const CHOICES = [choice('a', 'Lark Holm, east', 'Lerche'), choice('b', 'Tern Sands', 'Seeschwalbe')]
const QUESTIONS: Question[] = [
  { ...newQuestion('short', 'name'), label: { en: 'Your name', de: 'Ihr Name' }, name: 'Name' },
  { ...newQuestion('some', 'some'), label: { en: 'Islands' }, choices: CHOICES, hasOther: true },
  { ...newQuestion('dropdown', 'drop'), label: { en: 'First' }, choices: CHOICES },
  { ...newQuestion('ranking', 'rank'), label: { en: 'Order' }, choices: CHOICES },
  { ...newQuestion('yesno', 'again'), label: { en: 'Again?' } },
  { ...newQuestion('date', 'day'), label: { en: 'Day' } },
  { ...newQuestion('rating', 'how'), label: { en: 'How' } },
]
const read = (text: string) => readLeads(text, QUESTIONS, { language: 'en', languages: ['en', 'de'] })
const answersOf = (text: string) =>
  read(text).lines.map(({ sent }) => {
    const { answers, faults } = readForm(QUESTIONS, new Map(sent), plainReaders)
    return { answers, faults: [...faults.keys()] }
  })

describe('answers in a table', () => {
  it('are found by the words of the questions in any language, or their short names, and read as a form would be', () => {
    const text = `Ihr Name;ISLANDS;First;Order;Again?;Day;How;Weather
Ada;"Lark Holm, east";Seeschwalbe;"Tern Sands, Lerche";ja;3.7.2026;4;fine
`
    expect(read(text)).toMatchObject({ left: ['Weather'], lines: [{ line: 2, at: '' }] })
    expect(answersOf(text)).toEqual([
      {
        answers: {
          name: 'Ada',
          some: { chosen: ['a'] },
          drop: { chosen: ['b'] },
          rank: { chosen: ['b', 'a'] },
          again: true,
          day: '2026-07-03',
          how: 4,
        },
        faults: [],
      },
    ])
  })

  it('keep what is no choice as another answer where there can be one, and say it is wrong where not', () => {
    const text = 'Islands,First,Again?\n"Lerche; Skerry, Moon",Moon,perhaps\n'
    expect(answersOf(text)).toEqual([
      { answers: { some: { chosen: ['a'], other: 'Skerry, Moon' } }, faults: ['drop', 'again'] },
    ])
  })

  it('pass over empty lines and cells, and take the time where there is one', () => {
    const { lines, taken } = read('time,Name\n2026-07-03T09:00Z,\n\n,Bo\n')
    expect([taken, lines.map(({ at, sent }) => [at, sent.length])]).toEqual([
      ['time', 'Name'],
      [
        ['2026-07-03T09:00Z', 0],
        ['', 1],
      ],
    ])
  })
})
