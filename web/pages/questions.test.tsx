import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import fc from 'fast-check'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { newQuestion, QUESTION_KINDS, type Question } from '@flimbo/core/forms'
import { around } from '../tests/office.tsx'
import { keyedRow, withQuestion, withQuestionCopy } from './editQuestions.ts'
import { NumberInput } from './NumberInput.tsx'
import { QuestionsField } from './QuestionsField.tsx'

afterEach(cleanup)

const said = (text: string) => ({ en: text })
const YESNO: Question = { ...newQuestion('yesno', 'a'), label: said('By boat?') }
const SHORT: Question = { ...newQuestion('short', 'b'), label: said('Which boat?') }

/** The questions of a form, as they are edited. */
function show(given: readonly Question[], faults: Readonly<Record<string, string>> = {}) {
  let questions = given
  function Editor() {
    const [all, setAll] = useState(given)
    questions = all
    return (
      <QuestionsField
        questions={all}
        path="questions"
        editing={{
          language: 'en',
          languages: ['en'],
          faultAt: (path) => faults[path],
          fileOf: () => undefined,
          learn: () => undefined,
        }}
        change={setAll}
      />
    )
  }
  render(<Editor />, { wrapper: around })
  return () => questions
}
const press = (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }))
}

describe('the questions of a form', () => {
  it('begin with a form of ours, or with a question of any kind', async () => {
    const questions = show([])
    press('Survey')
    expect(questions().map(({ kind }) => kind)).toEqual(['section', 'yesno', 'scale', 'section', 'mail'])
    expect(screen.queryByRole('group', { name: 'Begins with' })).toBeNull()
    press('Add question')
    const menu = await screen.findByRole('menu')
    expect(within(menu).getAllByRole('menuitem')).toHaveLength(QUESTION_KINDS.length)
    fireEvent.click(within(menu).getByRole('menuitem', { name: 'Date' }))
    // After the one that was open.
    expect(questions()[1]).toMatchObject({ kind: 'date', id: 'q6' })
  })

  it('are moved, copied with a key of their own, and removed', () => {
    const questions = show([YESNO, SHORT])
    press('Move down: By boat?')
    expect(questions().map(({ id }) => id)).toEqual(['b', 'a'])
    press('Duplicate: By boat?')
    expect(questions().map(({ id }) => id)).toEqual(['b', 'a', 'q3'])
    press('Remove: By boat?')
    expect(questions().map(({ id }) => id)).toEqual(['b', 'a'])
  })

  it('are asked on conditions of those before them, in words', async () => {
    const questions = show([YESNO, SHORT])
    press(/^Which boat\?/)
    press('Add condition')
    expect(questions()[1]?.branch).toEqual({
      match: 'all',
      tests: [{ question: 'a', is: 'chosen', of: ['yes'] }],
    })
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Must be' }))
    fireEvent.click(await screen.findByRole('option', { name: 'is not answered' }))
    expect(questions()[1]?.branch.tests).toEqual([{ question: 'a', is: 'empty' }])
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Asked when' }))
    fireEvent.click(await screen.findByRole('option', { name: 'none of these holds' }))
    expect(questions()[1]?.branch.match).toBe('none')
    press('Remove condition 1')
    expect(questions()[1]?.branch).toEqual({ match: 'all', tests: [] })
    await waitFor(() => {
      screen.getByText('Asked always.')
    })
  })

  it('are rehearsed: who answers so is asked what, in the order of the form', async () => {
    show([
      YESNO,
      { ...SHORT, branch: { match: 'all', tests: [{ question: 'a', is: 'chosen', of: ['yes'] }] } },
    ])
    const rehearsal = within(screen.getByRole('group', { name: 'Rehearsal' }))
    const asked = () => rehearsal.getAllByRole('listitem').map(({ textContent }) => textContent)
    expect(asked()).toEqual(['By boat?'])
    rehearsal.getByText('Not asked: Which boat?')
    fireEvent.mouseDown(rehearsal.getByRole('combobox', { name: 'By boat?' }))
    fireEvent.click(await screen.findByRole('option', { name: 'Yes' }))
    expect(asked()).toEqual(['By boat?', 'Which boat?'])
    fireEvent.click(rehearsal.getByRole('button', { name: 'Clear' }))
    expect(asked()).toEqual(['By boat?'])
  })

  it('are asked by days and by words of those before them', async () => {
    const questions = show([
      { ...newQuestion('date', 'd'), label: said('When?') },
      { ...newQuestion('short', 's'), label: said('What?') },
      YESNO,
    ])
    press(/^By boat\?/)
    press('Add condition')
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Must be' }))
    fireEvent.click(await screen.findByRole('option', { name: 'contains these words' }))
    fireEvent.change(screen.getByLabelText('Words'), { target: { value: 'boat' } })
    expect(questions()[2]?.branch.tests).toEqual([{ question: 's', is: 'says', text: 'boat' }])
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Answer to' }))
    fireEvent.click(await screen.findByRole('option', { name: 'When?' }))
    expect(questions()[2]?.branch.tests).toMatchObject([{ question: 'd', is: 'from' }])
  })

  it('have no condition to add where none is before them', () => {
    show([YESNO])
    expect(screen.queryByRole('button', { name: 'Add condition' })).toBeNull()
  })

  it('say where something is missing, also in those that are not open', () => {
    show([YESNO, SHORT], {
      'questions.1.label': 'Write the question.',
      'questions.0.branch': 'Nobody is asked.',
    })
    screen.getByText('Something is missing here')
    screen.getByText('Nobody is asked.')
  })
})

describe('keys of questions and choices', () => {
  it('are never used twice, whatever is added, copied and removed', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('add', 'copy', 'remove'), { maxLength: 30 }), (steps) => {
        let questions: Question[] = [YESNO]
        for (const step of steps) {
          const id = questions[0]?.id ?? ''
          if (step === 'add') ({ questions } = withQuestion(questions, 'short', id))
          else if (step === 'copy' && id !== '') ({ questions } = withQuestionCopy(questions, id))
          else questions = questions.slice(1)
        }
        expect(new Set(questions.map((each) => each.id)).size).toBe(questions.length)
      }),
    )
    const of = { key: { type: 'key', label: '' } } as never
    expect(keyedRow(of, { key: '' }, [{ key: 'c2' }, { key: 'c1' }])).toEqual({ key: 'c3' })
  })
})

describe('a field of a number', () => {
  it('takes a number or nothing, with either decimal sign, and keeps what is neither', () => {
    const given: (number | null)[] = []
    render(<NumberInput label="Most" value={null} change={(value) => given.push(value)} />)
    const field = screen.getByLabelText('Most')
    for (const text of ['1,5', '-3', 'x', '']) fireEvent.change(field, { target: { value: text } })
    expect(given).toEqual([1.5, -3, null])
    fireEvent.change(field, { target: { value: 'many' } })
    screen.getByText('Write a number, or nothing.')
    expect((field as HTMLInputElement).value).toBe('many')
  })
})
