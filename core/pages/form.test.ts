import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { pageSurroundings } from '../tests/pageSurroundings.ts'
import {
  newQuestion,
  readForm,
  valueName,
  type AnswerReaders,
  type Question,
  type QuestionKind,
  type QuestionOf,
} from '../forms/index.ts'
import { plainReaders } from '../tests/formArbitrary.ts'
import { drawPage, emptyContent, newPart, pageFaults, type FormVisit, type PartOf } from './index.ts'

interface Tag {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
}
const en = (text: string) => ({ en: text })
const ask = <K extends QuestionKind>(kind: K, id: string, more: Partial<QuestionOf<K>> = {}): Question =>
  ({ ...newQuestion(kind, id), label: en(`Q ${id}`), ...more }) as unknown as Question
const choice = (key: string) => ({ key, label: en(key.toUpperCase()) })

function drawn(
  questions: readonly Question[],
  more: Partial<PartOf<'form'>> = {},
  form?: (part: PartOf<'form'>) => FormVisit,
) {
  const part: PartOf<'form'> = { ...newPart('form', 'f'), ...more, questions: [...questions] }
  const content = { ...emptyContent('en', 'Europe/Berlin'), title: en('Page'), parts: [part] }
  const markup = drawPage(content, pageSurroundings('en', form ? { form } : {}))
  const tags: Tag[] = []
  let text = ''
  const parser = new Parser({
    onopentag: (name, attributes) => tags.push({ name, attributes }),
    ontext: (piece) => {
      text += piece
    },
  })
  parser.end(markup.replace(/<(style|script)[\s\S]*?<\/\1>/g, ''))
  return {
    text: text.replace(/\s+/g, ' '),
    find: (name: string) => tags.filter((tag) => tag.name === name).map(({ attributes }) => attributes),
    faults: pageFaults(content),
  }
}
/** A form that was sent and comes back. */
function back(questions: Question[], sent: Record<string, string[]>, readers: AnswerReaders = plainReaders) {
  const values = new Map(Object.entries(sent).map(([id, given]) => [valueName(id), given]))
  const { shown, faults } = readForm(questions, values, readers)
  return (): FormVisit => ({
    kind: 'asked',
    action: '/x/~t/f/f',
    key: 'k',
    sent: values,
    shown,
    faults,
    files: new Map(),
    step: 0,
    notice: 'check',
    seed: 's',
  })
}

describe('a form on a page', () => {
  it('labels each input, or each group of them, and has what phones fill in by themselves', () => {
    const { find } = drawn([
      ask('short', 'a'),
      ask('mail', 'b'),
      ask('phone', 'c'),
      ask('number', 'd'),
      ask('date', 'e', { first: '2026-07-01' }),
      ask('dropdown', 'g', { choices: [choice('x')] }),
      ask('yesno', 'h'),
    ])
    const ids = new Set([...find('input'), ...find('select')].map(({ id }) => id))
    for (const { for: of } of find('label').filter((label) => 'for' in label)) expect(ids).toContain(of)
    const input = (name: string) => find('input').find((each) => each.name === valueName(name))
    expect(input('b')).toMatchObject({ type: 'email', autocomplete: 'email' })
    expect(input('c')).toMatchObject({ type: 'tel', autocomplete: 'tel' })
    expect(input('d')).toMatchObject({ inputmode: 'decimal' })
    expect(input('e')).toMatchObject({ type: 'date', min: '2026-07-01' })
    expect(find('fieldset').map((group) => group['data-q'])).toEqual(['h'])
    expect(find('form')[0]).toMatchObject({ method: 'post' })
    expect(find('form')[0]).not.toHaveProperty('enctype')
    expect(drawn([ask('file', 'a')]).find('form')[0]?.enctype).toBe('multipart/form-data')
  })

  it('shows again what was sent, with what is wrong tied to its input, in words of its own where it has some', () => {
    const questions = [
      ask('short', 'a', { isRequired: true, wrong: en('We must know you.') }),
      ask('mail', 'b'),
      ask('some', 'c', { choices: [choice('x'), choice('y')], most: 1 }),
    ]
    const { find, text } = drawn(questions, {}, back(questions, { b: ['<ada>'], c: ['x', 'y'] }))
    for (const words of [
      'We must know you.',
      'Write a whole mail address',
      'Choose at most 1.',
      'Please look at the marked answers.',
    ])
      expect(text).toContain(words)
    const mail = find('input').find(({ name }) => name === 'q.b')
    expect(mail).toMatchObject({ value: '<ada>', 'aria-invalid': 'true', 'aria-describedby': 'f-b-f' })
    expect(find('p').some(({ id }) => id === 'f-b-f')).toBe(true)
    expect(find('input').filter(({ name, checked }) => name === 'q.c' && checked !== undefined)).toHaveLength(
      2,
    )
  })

  it('hides what is not asked as things are, and asks it when it is', () => {
    const branch = { match: 'all' as const, tests: [{ question: 'a', is: 'chosen' as const, of: ['yes'] }] }
    const questions = [ask('yesno', 'a'), ask('short', 'b', { branch })]
    const isHidden = ({ find }: ReturnType<typeof drawn>) =>
      find('div').find((each) => each['data-q'] === 'b')?.hidden !== undefined
    expect(isHidden(drawn(questions))).toBe(true)
    expect(isHidden(drawn(questions, {}, back(questions, { a: ['yes'] })))).toBe(false)
    const asked = (of: ReturnType<typeof drawn>) =>
      of.find('input').find(({ name }) => name === 'asked')?.value
    expect([asked(drawn(questions)), asked(drawn(questions, {}, back(questions, { a: ['yes'] })))]).toEqual([
      'a',
      'a,b',
    ])
  })

  it('asks a section at a time where it says so, and carries the others along', () => {
    const section = (id: string): Question => ({ ...newQuestion('section', id), title: en(`Section ${id}`) })
    const questions = [section('s'), ask('short', 'a'), section('t'), ask('short', 'b')]
    const visit = back(questions, { a: ['one'], b: ['two'] })
    const first = drawn(questions, { steps: 'steps' }, visit)
    expect([first.text.includes('Section s'), first.text.includes('Section t')]).toEqual([true, false])
    expect(first.find('input').find(({ name }) => name === 'q.b')).toMatchObject({
      type: 'hidden',
      value: 'two',
    })
    const second = drawn(questions, { steps: 'steps' }, () => ({
      ...(visit() as Extract<FormVisit, { kind: 'asked' }>),
      step: 1,
    }))
    expect(second.text).toContain('Step 2 of 2')
    expect(second.find('button').map(({ value }) => value)).toEqual(['send', 'back'])
  })

  it('says why it asks nothing, and thanks with the answers as text', () => {
    const questions = [ask('short', 'a', { name: 'Name' })]
    const shut = (state: 'early' | 'closed' | 'full', more: Partial<PartOf<'form'>> = {}) =>
      drawn(questions, more, () => ({ kind: 'shut', state })).text
    expect(shut('early', { opens: '2026-07-03T09:00' })).toContain('This form opens on July 3, 2026')
    expect(shut('early', { before: en('In summer.') })).toContain('In summer.')
    expect([shut('closed'), shut('full')].map((text) => /closed|No more answers/.exec(text)?.[0])).toEqual([
      'closed',
      'No more answers',
    ])
    const done = drawn(questions, { thanks: en('Dear {name}') }, () => ({
      kind: 'done',
      answers: { a: '<b>Ada</b>' },
    }))
    expect([
      done.find('b'),
      done.text.includes('Dear <b>Ada</b>') || done.text.includes('Dear &lt;b&gt;'),
    ]).toEqual([[], true])
  })

  it('is not published with questions that lack something or that nobody is asked', () => {
    const faults = (questions: Question[], more: Partial<PartOf<'form'>> = {}) =>
      drawn(questions, more).faults.map(({ path }) => path)
    expect(faults([])).toContain('questions')
    expect(faults([{ ...newQuestion('one', 'a') }])).toEqual(
      expect.arrayContaining(['questions.0.label', 'questions.0.choices']),
    )
    const self = { match: 'all' as const, tests: [{ question: 'a', is: 'answered' as const }] }
    expect(faults([ask('short', 'a', { branch: self })])).toContain('questions.0.branch')
    expect(faults([ask('short', 'a')], { opens: '2026-07-02T00:00', closes: '2026-07-01T00:00' })).toContain(
      'closes',
    )
    expect(faults([ask('short', 'a')], { after: 'address' })).toContain('thanksAddress')
  })
})
