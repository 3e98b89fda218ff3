import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { leadQueries } from './queries.ts'

let flimbo: Running
let file: string
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  // Leads of the sample are of the first campaign, and of its first piece.
  await flimbo.code((await flimbo.campaign()).id)
  file = flimbo.file
})
afterAll(() => flimbo.close())

interface Sample {
  readonly email: string
  readonly phone: string
  readonly personMark: string
  readonly workspaceId: number
}
const sample = fc.record<Sample>({
  email: fc.constantFrom('', '', 'a@x.example', 'b@x.example', 'c@x.example'),
  phone: fc.constantFrom('', '', '+491', '+492', '+493'),
  personMark: fc.constantFrom('', '', '', 'g:1', 'g:2', 's:1'),
  workspaceId: fc.constantFrom(1, 1, 1, 2),
})

/** Who is one person, by going from each to all that share something with them, again and again. */
function personOf(all: readonly Sample[], first: number): number[] {
  const isParted = (at: number) => all[at]?.personMark.startsWith('s:') === true
  if (isParted(first)) return []
  const met = new Set([first])
  const shares = (a: Sample, b: Sample) =>
    a.workspaceId === b.workspaceId &&
    ((a.email !== '' && a.email === b.email) ||
      (a.phone !== '' && a.phone === b.phone) ||
      (a.personMark !== '' && a.personMark === b.personMark))
  for (const at of met)
    for (const [other, each] of all.entries()) {
      const from = all[at]
      if (from && !isParted(other) && shares(from, each)) met.add(other)
    }
  met.delete(first)
  return [...met].sort((a, b) => a - b)
}

describe('persons', () => {
  it('are those that share an address, a number or a mark, through as many answers as there are', () => {
    const database = new Sqlite(file)
    database.pragma('synchronous = OFF')
    fc.assert(
      fc.property(fc.array(sample, { minLength: 1, maxLength: 12 }), (all) => {
        database.exec('DELETE FROM leads')
        const ids = all.map(({ personMark, ...given }) => {
          const id = storeLead(file, given)
          database.prepare('UPDATE leads SET personMark = ? WHERE id = ?').run(personMark, id)
          return id
        })
        const queries = leadQueries(database)
        for (const [at, id] of ids.entries()) {
          const found = queries.leadsOfPerson(id, 100).map((lead) => ids.indexOf(lead.id))
          expect(found.sort((a, b) => a - b)).toEqual(personOf(all, at))
        }
      }),
      { numRuns: 40 },
    )
    database.close()
  })
})

describe('answers that leads are found by', () => {
  const answers = fc.record(
    {
      choice: fc.record({
        chosen: fc.subarray(['a', 'b', 'c']),
        other: fc.option(fc.constantFrom('x', 'a'), { nil: undefined }),
      }),
      yes: fc.boolean(),
      number: fc.oneof(fc.integer({ min: -5, max: 5 }), fc.double({ min: -5, max: 5, noNaN: true })),
      text: fc.constantFrom('a', 'yes', '3', '%', "it's"),
    },
    { requiredKeys: [] },
  )
  type Sampled = typeof answers extends fc.Arbitrary<infer A> ? A : never
  const keys = {
    choice: ['a', 'b', 'other', 'first.a', 'first.c'],
    yes: ['yes', 'no'],
    number: ['3', '-5..0', '0..2.5-', '-5..5'],
    text: ['a', 'yes', '3', '%', "it's"],
  } as const

  /** Whether an answer is meant, said once more in other words. */
  function isMeant(given: Sampled, question: keyof typeof keys, key: string): boolean {
    const { choice, yes, number, text } = given
    if (question === 'text') return text === key
    if (question === 'yes') return yes !== undefined && (yes ? 'yes' : 'no') === key
    if (question === 'choice') {
      if (!choice) return false
      if (key === 'other') return choice.other !== undefined || choice.chosen.includes('other')
      return key.startsWith('first.') ? choice.chosen[0] === key.slice(6) : choice.chosen.includes(key)
    }
    if (number === undefined) return false
    if (key === '3') return number === 3
    if (key === '-5..0') return number <= 0
    return key === '-5..5' || (number >= 0 && number < 2.5)
  }

  it('are just those that gave them, whatever they are kept as', () => {
    const database = new Sqlite(file)
    database.pragma('synchronous = OFF')
    fc.assert(
      fc.property(fc.array(answers, { minLength: 1, maxLength: 6 }), (all) => {
        database.exec('DELETE FROM leads')
        const ids = all.map((given) => storeLead(file, { answers: given }))
        const queries = leadQueries(database)
        for (const question of ['choice', 'yes', 'number', 'text'] as const)
          for (const answer of keys[question]) {
            const query = {
              workspaceId: 1,
              start: 0,
              end: Number.MAX_SAFE_INTEGER,
              held: 'no' as const,
              question,
              answer,
            }
            const wanted = ids.filter((_id, i) => isMeant(all[i] ?? {}, question, answer))
            expect([question, answer, queries.leadsAfter(query, 0, 100)]).toEqual([question, answer, wanted])
          }
      }),
      { numRuns: 40 },
    )
    database.close()
  })
})
