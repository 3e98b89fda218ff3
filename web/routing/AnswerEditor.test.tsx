import type { Answer } from '@flimbo/core/routing'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import { AnswerEditor } from './AnswerEditor.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const now: { answer: Answer | null } = { answer: null }
function Editor() {
  const [answer, setAnswer] = useState<Answer | null>(null)
  now.answer = answer
  return <AnswerEditor label="Leads to" answer={answer} change={setAnswer} plain="nothing" />
}

it('leads to a page even where it was not known yet which pages there are', async () => {
  startOffice(({ path }) =>
    path.startsWith('/pages') ? { rows: [{ id: 7, name: 'Stop 1', campaignId: 1 }] } : {},
  )
  render(
    <MemoryRouter>
      <Editor />
    </MemoryRouter>,
    { wrapper: around },
  )
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Leads to' }))
  fireEvent.click(screen.getByRole('option', { name: 'a page or file' }))
  expect(now.answer).toEqual({ kind: 'page', pageId: 0 })
  await screen.findByRole('link', { name: 'Edit this page' })
  expect(now.answer).toEqual({ kind: 'page', pageId: 7 })
})
