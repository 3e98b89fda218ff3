import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answerTo, anyForm, asSent, plainReaders } from '../tests/formArbitrary.ts'
import {
  anonymise,
  faultWords,
  fillAnswers,
  formState,
  newQuestion,
  rankName,
  question as questionSchema,
  readAnswer,
  readForm,
  readNumber,
  reviewForm,
  sectionsOf,
  shuffled,
  STARTING_FORMS,
  startingForm,
  unreachable,
  valueName,
  walkForm,
  type Answer,
  type AnswerTest,
  type Asked,
  type Question,
  type QuestionKind,
  type QuestionOf,
} from './index.ts'
import { wordsFor } from '../words/index.ts'

/** A form and answers that its questions take, asked or not. */
const answered = anyForm.chain((questions) =>
  fc.record({
    questions: fc.constant(questions),
    answers: fc.record(Object.fromEntries(questions.map((each) => [each.id, answerTo(each)]))),
  }),
)

describe('what is asked', () => {
  it('is the same whatever order the answers come in, and what is not asked is neither answered nor missed', () => {
    fc.assert(
      fc.property(answered, fc.infiniteStream(fc.nat(1)), ({ questions, answers }, coins) => {
        const sent = asSent(questions, answers)
        const read = readForm(questions, sent, plainReaders)
        const turned = new Map([...sent].sort(() => (coins.next().value ? 1 : -1)))
        expect(readForm(questions, turned, plainReaders)).toEqual(read)
        for (const id of [...read.faults.keys(), ...Object.keys(read.answers)])
          expect(read.shown).toContain(id)
        // What was sent for questions that are not asked changes nothing.
        const asked = new Map([...sent].filter(([name]) => read.shown.has(name.split('.')[1] ?? '')))
        expect(readForm(questions, asked, plainReaders)).toEqual(read)
      }),
    )
  })

  it('takes every answer that a question takes, and gives it back', () => {
    fc.assert(
      fc.property(answered, ({ questions, answers }) => {
        const read = readForm(questions, asSent(questions, answers), plainReaders)
        for (const each of questions) {
          if (!read.shown.has(each.id) || each.kind === 'section') continue
          const given = answers[each.id]
          if (given === undefined) expect(read.answers[each.id]).toBeUndefined()
          else expect([read.answers[each.id], read.faults.get(each.id)]).toEqual([given, undefined])
          const isMissed = 'isRequired' in each && each.isRequired && given === undefined
          expect(read.faults.has(each.id)).toBe(isMissed)
        }
      }),
    )
  })

  it('is read back as it is kept', () => {
    fc.assert(
      fc.property(anyForm, (questions) => {
        for (const each of questions)
          expect(questionSchema.parse(JSON.parse(JSON.stringify(each)))).toEqual(each)
      }),
    )
  })

  it('is what somebody can reach: nobody who answers is ever asked what the review calls unreachable', () => {
    fc.assert(
      fc.property(answered, ({ questions, answers }) => {
        const never = new Set(unreachable(questions))
        const { shown } = walkForm(questions, (each) => answers[each.id])
        // Answers that a question does not do without are given, or there would be nothing to say.
        const isWhole = questions.every(
          (each) =>
            !shown.has(each.id) ||
            !('isRequired' in each) ||
            !each.isRequired ||
            answers[each.id] !== undefined,
        )
        if (isWhole) for (const id of never) expect(shown).not.toContain(id)
      }),
      { numRuns: 300 },
    )
  })
})

const asked = <K extends QuestionKind>(kind: K, more: Partial<QuestionOf<K>> = {}) =>
  ({ ...newQuestion(kind, 'q'), ...more }) as unknown as Asked
const choice = (key: string) => ({ key, label: { en: key } })
const CHOICES = { choices: ['a', 'b', 'c'].map(choice) }
const sentAs = (...values: string[]) => new Map([[valueName('q'), values]])
const read = (question: Asked, ...values: string[]) => readAnswer(question, sentAs(...values), plainReaders)

describe('an answer', () => {
  it.each<[string, Asked, string[], string]>([
    ['of a text that is too long', asked('short', { longest: 3 }), ['four'], 'tooLong'],
    ['that is no mail address', asked('mail'), ['anna at saltmarsh'], 'mail'],
    ['that is no telephone number', asked('phone'), ['12'], 'phone'],
    ['that is no number', asked('number'), ['many'], 'number'],
    ['that is not whole', asked('number'), ['1.5'], 'whole'],
    ['of too many decimals', asked('number', { decimals: 1 }), ['1.55'], 'decimals'],
    ['below the least', asked('number', { least: 5 }), ['4'], 'least'],
    ['above the most', asked('number', { most: 5 }), ['6'], 'most'],
    ['of a day that is not in the calendar', asked('date'), ['2026-02-30'], 'date'],
    ['of a day too early', asked('date', { first: '2026-07-02' }), ['2026-07-01'], 'dateFirst'],
    ['of a day too late', asked('date', { last: '2026-07-02' }), ['2026-07-03'], 'dateLast'],
    ['that is none of the choices', asked('one', CHOICES), ['z'], 'choice'],
    ['of two choices where one is asked for', asked('one', CHOICES), ['a', 'b'], 'choice'],
    ['of too few choices', asked('some', { ...CHOICES, least: 2 }), ['a'], 'leastChoices'],
    ['of too many choices', asked('some', { ...CHOICES, most: 2 }), ['a', 'b', 'c'], 'mostChoices'],
    ['“Other” with nothing written in', asked('one', { ...CHOICES, hasOther: true }), ['other'], 'other'],
    ['off the scale', asked('scale'), ['11'], 'choice'],
    ['off the rating', asked('rating', { steps: 3 }), ['4'], 'choice'],
    ['that is neither yes nor no', asked('yesno'), ['perhaps'], 'choice'],
    ['that is left out', asked('short', { isRequired: true }), [' '], 'missing'],
    ['of consent that is not given', asked('consent'), [], 'disagreed'],
  ])('%s is refused, and every language says why', (_name, question, values, code) => {
    const { fault } = read(question, ...values)
    expect(fault?.code).toBe(code)
    for (const language of ['en', 'ar', 'pl'])
      if (fault) expect(faultWords(fault, wordsFor([language]).words, language)).not.toMatch(/[{}]|undefined/)
  })

  it('of a ranking gives each place once', () => {
    const ranking = asked('ranking', CHOICES)
    const places = (...given: string[]) => {
      const sent = new Map(given.map((place, i) => [rankName('q', 'abc'[i] ?? ''), [place]]))
      return readAnswer(ranking, sent, plainReaders)
    }
    expect(places('2', '1', '3')).toEqual({ answer: { chosen: ['b', 'a', 'c'] } })
    expect(places('1', '1', '3').fault?.code).toBe('rank')
    expect(places('1', '', '').fault?.code).toBe('rank')
    expect(places('', '', '')).toEqual({ answer: undefined })
  })

  it('of a file is of a kind and a size that are taken', () => {
    const file = { key: 'k', name: 'a', type: 'image/png', bytes: 2_000_001 }
    const readers = { ...plainReaders, file: () => file }
    const with_ = (more: Partial<QuestionOf<'file'>>) => readAnswer(asked('file', more), new Map(), readers)
    expect(with_({ takes: 'pictures' })).toEqual({ answer: file })
    expect(with_({ takes: 'documents' }).fault?.code).toBe('fileType')
    expect(with_({ takes: 'both', largest: 2 }).fault?.code).toBe('fileSize')
  })

  it('keeps what is written in, and leaves control characters out', () => {
    const other = asked('one', { ...CHOICES, hasOther: true })
    const sent = new Map([
      [valueName('q'), ['other']],
      ['q.q.other', [' By \u0000boat ']],
    ])
    expect(readAnswer(other, sent, plainReaders)).toEqual({ answer: { chosen: [], other: 'By boat' } })
  })
})

// Decimal and group signs: Unicode CLDR, by the runtime's Intl.
describe('numbers as people write them', () => {
  it.each<[string, string, number | null]>([
    ['1,5', 'de', 1.5],
    ['1.500', 'de', 1500],
    ['1.500,25', 'de', 1500.25],
    ['1,500', 'en', 1500],
    ['1,500.25', 'en', 1500.25],
    ['1.5', 'de', 1.5],
    ['1 234', 'fr', 1234],
    ['1’234.5', 'de-CH', 1234.5],
    ['−3', 'en', -3],
    ['٣٫٥', 'ar', 3.5],
    ['1.2.3', 'en', null],
    ['1,2,3', 'en', null],
    ['12e3', 'en', null],
    ['', 'en', null],
    ['Infinity', 'en', null],
  ])('%s in %s', (text, language, value) => {
    expect(readNumber(text, language)).toBe(value)
  })

  it('are read back as each language writes them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -9_999_999, max: 9_999_999 }),
        fc.constantFrom('de', 'en', 'fr', 'de-CH', 'pl', 'ar-EG'),
        (n, language) => {
          const value = n / 100
          const text = new Intl.NumberFormat(language, { minimumFractionDigits: 2 }).format(value)
          expect(readNumber(text.replace(/[\u200e\u200f\u061c]/g, ''), language)).toBe(value)
        },
      ),
    )
  })
})

describe('the review of a form', () => {
  const yesno = (id: string, more: Partial<QuestionOf<'yesno'>> = {}): Question => ({
    ...newQuestion('yesno', id),
    ...more,
  })
  const chosen = (about: string, ...of: string[]) => ({ question: about, is: 'chosen' as const, of })
  const when = (...tests: ReturnType<typeof chosen>[]) => ({ match: 'all' as const, tests })
  const sentences = (questions: Question[]) => reviewForm(questions).map(({ id, path }) => [id, path])

  it('has nothing to say of what everybody can be asked', () => {
    expect(reviewForm([yesno('a'), yesno('b', { branch: when(chosen('a', 'yes')) })])).toEqual([])
  })
  it('refuses loops: conditions that ask about the question itself or a later one', () => {
    const loop = [
      yesno('a', { branch: when(chosen('b', 'yes')) }),
      yesno('b', { branch: when(chosen('a', 'yes')) }),
    ]
    expect(sentences(loop)).toEqual([['a', 'branch']])
    expect(sentences([yesno('a', { branch: when(chosen('a', 'yes')) })])).toEqual([['a', 'branch']])
  })
  it('finds what nobody is ever asked, through sections and over several questions', () => {
    const section: Question = { ...newQuestion('section', 's'), branch: when(chosen('a', 'yes')) }
    const never = yesno('c', { branch: when(chosen('a', 'no')) })
    expect(unreachable([yesno('a'), section, never])).toEqual(['c'])
    expect(
      unreachable([yesno('a'), section, yesno('b'), yesno('d', { branch: when(chosen('b', 'no')) })]),
    ).toEqual([])
    const low = { question: 'n', is: 'most' as const, than: 2 }
    const high = { question: 'n', is: 'least' as const, than: 3 }
    const scale: Question = newQuestion('scale', 'n')
    expect(unreachable([scale, yesno('x', { branch: { match: 'all', tests: [low, high] } })])).toEqual(['x'])
    expect(unreachable([scale, yesno('x', { branch: { match: 'any', tests: [low, high] } })])).toEqual([])
    expect(unreachable([scale, yesno('x', { branch: { match: 'none', tests: [low, high] } })])).toEqual([])
    const must: Question = { ...newQuestion('scale', 'n'), isRequired: true }
    expect(unreachable([must, yesno('x', { branch: { match: 'none', tests: [low, high] } })])).toEqual(['x'])
  })
  it('tells days and words apart as it does numbers', () => {
    const from = { question: 'd', is: 'from' as const, day: '2026-07-03' }
    const until = { question: 'd', is: 'until' as const, day: '2026-07-02' }
    const date: Question = { ...newQuestion('date', 'd'), isRequired: true }
    const asked = (question: Question, match: 'all' | 'none', ...tests: AnswerTest[]) =>
      unreachable([question, yesno('x', { branch: { match, tests } })])
    expect(asked(date, 'all', from, until)).toEqual(['x'])
    expect(asked(date, 'none', from, until)).toEqual(['x'])
    expect(asked(date, 'all', from, { ...until, day: '2026-07-03' })).toEqual([])
    expect(asked({ ...newQuestion('date', 'd'), last: '2026-07-01' }, 'all', from)).toEqual(['x'])
    const says = (text: string) => ({ question: 's', is: 'says' as const, text })
    const short: Question = { ...newQuestion('short', 's'), isRequired: true }
    expect(asked(short, 'all', says('boat'), says('Tern'))).toEqual([])
    expect(asked(short, 'none', says('boat'), says('Tern'))).toEqual([])
    expect(
      walkForm([short, yesno('x', { branch: { match: 'all', tests: [says('TERN')] } })], ({ id }) =>
        id === 's' ? 'by the tern' : undefined,
      ).shown,
    ).toContain('x')
    for (const test of [{ ...from, question: 's' }, says('')])
      expect(sentences([short, yesno('x', { branch: { match: 'all', tests: [test] } })])).toEqual([
        ['x', 'branch'],
      ])
  })
  it('says what is gone, what does not fit, and what leaves nothing', () => {
    const one: Question = { ...newQuestion('one', 'a'), choices: [choice('x')] }
    expect(sentences([one, yesno('b', { branch: when(chosen('a', 'gone')) })])).toEqual([['b', 'branch']])
    expect(sentences([yesno('b', { branch: when(chosen('gone', 'x')) })])).toEqual([['b', 'branch']])
    expect(sentences([{ ...newQuestion('number', 'n'), least: 5, most: 4 }])).toEqual([['n', 'most']])
    expect(sentences([{ ...newQuestion('some', 'n'), choices: [choice('x')], least: 2 }])).toEqual([
      ['n', 'least'],
    ])
    expect(sentences([newQuestion('section', 's')])).toEqual([['s', '']])
    const named = (id: string) => yesno(id, { name: 'Boat' })
    expect(sentences([named('a'), named('b')])).toEqual([['b', 'name']])
  })
})

it('a starting form is one that can be asked as it is', () => {
  for (const { key } of STARTING_FORMS) expect(reviewForm(startingForm(key, 'de').questions)).toEqual([])
})

describe('when a form takes answers', () => {
  const dates = { opens: '', closes: '', limit: null }
  // Central European Summer Time ended on 25 October 2026 at 3:00 (IANA tz): 2:30 comes twice.
  it.each<[string, { opens?: string; closes?: string; limit?: number }, string, number, string]>([
    ['has no bounds', {}, '2026-07-01T00:00Z', 0, 'open'],
    ['has not opened yet', { opens: '2026-07-01T09:00' }, '2026-07-01T06:59Z', 0, 'early'],
    ['opens to the minute', { opens: '2026-07-01T09:00' }, '2026-07-01T07:00Z', 0, 'open'],
    ['closes to the minute', { closes: '2026-07-01T09:00' }, '2026-07-01T07:00Z', 0, 'closed'],
    [
      'closes in winter time after the change',
      { closes: '2026-10-25T03:30' },
      '2026-10-25T02:29Z',
      0,
      'open',
    ],
    ['is closed then', { closes: '2026-10-25T03:30' }, '2026-10-25T02:30Z', 0, 'closed'],
    ['has room for one more', { limit: 5 }, '2026-07-01T00:00Z', 4, 'open'],
    ['is full', { limit: 5 }, '2026-07-01T00:00Z', 5, 'full'],
  ])('%s', (_name, bounds, now, answers, state) => {
    expect(formState({ ...dates, ...bounds }, 'Europe/Berlin', Date.parse(now), answers)).toBe(state)
  })
})

describe('answers without what tells who answered', () => {
  it('keep what figures are made of, and nothing that was written, called or sent', () => {
    fc.assert(
      fc.property(answered, ({ questions, answers }) => {
        const given = Object.fromEntries(
          Object.entries(answers).filter((entry): entry is [string, Answer] => entry[1] !== undefined),
        )
        const kept = anonymise(questions, given)
        const kindOf = new Map(questions.map(({ id, kind }) => [id, kind]))
        for (const [id, answer] of Object.entries(kept)) {
          expect(typeof answer).not.toBe('string')
          expect(answer).toEqual(given[id])
          expect(['short', 'long', 'mail', 'phone', 'date', 'file', 'hidden']).not.toContain(kindOf.get(id))
        }
        expect(anonymise(questions, kept)).toEqual(kept)
      }),
    )
  })

  it('lose what was written in beside the choices, and what no question is known of', () => {
    const one: Question = { ...newQuestion('one', 'a'), choices: [choice('x')] }
    expect(anonymise([one], { a: { chosen: ['x'], other: 'My name is Ada' }, gone: 5 })).toEqual({
      a: { chosen: ['x'] },
    })
  })
})

describe('sections of a form', () => {
  it('hold what follows until the next; what comes before the first stands in none', () => {
    const section = (id: string): Question => newQuestion('section', id)
    const yes = (id: string): Question => newQuestion('yesno', id)
    const ids = (questions: Question[]) =>
      sectionsOf(questions).map(({ section: own, questions: all }) => [
        own?.id ?? '',
        all.map(({ id }) => id).join(''),
      ])
    expect(ids([yes('a'), section('s'), yes('b'), yes('c'), section('t')])).toEqual([
      ['', 'a'],
      ['s', 'bc'],
      ['t', ''],
    ])
    expect(ids([section('s')])).toEqual([['s', '']])
    expect(ids([])).toEqual([])
  })

  it('are asked as a whole or not at all', () => {
    const when = (of: string) => ({
      match: 'all' as const,
      tests: [{ question: 'a', is: 'chosen' as const, of: [of] }],
    })
    const questions: Question[] = [
      newQuestion('yesno', 'a'),
      { ...newQuestion('section', 's'), branch: when('yes') },
      newQuestion('short', 'b'),
      newQuestion('section', 't'),
      newQuestion('short', 'c'),
    ]
    const shown = (answer: boolean | undefined) =>
      [...walkForm(questions, ({ id }) => (id === 'a' ? answer : undefined)).shown].join('')
    expect([shown(true), shown(false), shown(undefined)]).toEqual(['asbtc', 'atc', 'atc'])
  })
})

describe('words with answers in them', () => {
  const around = { language: 'en', languages: ['en'], words: wordsFor(['en']).words.forms }
  const questions: Question[] = [
    { ...newQuestion('short', 'a'), name: 'Name' },
    { ...newQuestion('one', 'b'), name: 'boat', choices: [{ key: 'x', label: { en: 'Lark' } }] },
  ]
  it('are filled by short names; what names nothing stays, and an answer is never filled again', () => {
    const answers: Record<string, Answer> = { a: '{boat}', b: { chosen: ['x'], other: 'Tern' } }
    expect(fillAnswers('Dear {name}, {Boat} {gone} {', questions, answers, around)).toBe(
      'Dear {boat}, Lark, Tern {gone} {',
    )
    expect(fillAnswers('{name}', questions, {}, around)).toBe('')
  })
})

it('what is shuffled stays whole, in one order for a seed, and every order comes about', () => {
  const things = ['a', 'b', 'c'].map((key) => ({ key }))
  const order = (seed: string) =>
    shuffled(things, seed)
      .map(({ key }) => key)
      .join('')
  fc.assert(
    fc.property(fc.string(), (seed) => {
      expect(order(seed)).toBe(order(seed))
      expect(order(seed).split('').sort()).toEqual(['a', 'b', 'c'])
    }),
  )
  const counts = new Map<string, number>()
  for (let i = 0; i < 6000; i++) counts.set(order(String(i)), (counts.get(order(String(i))) ?? 0) + 1)
  expect(counts.size).toBe(6)
  for (const count of counts.values()) expect(Math.abs(count - 1000)).toBeLessThan(150)
})
