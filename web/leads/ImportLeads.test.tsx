import { newQuestion } from '@flimbo/core/forms'
import { emptyContent, newPart } from '@flimbo/core/pages'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import { ImportLeads } from './ImportLeads.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const NAME = { ...newQuestion('short', 'name'), label: { en: 'Your name' } }
const LIVE = { ...emptyContent('en', 'UTC'), parts: [{ ...newPart('form', 'f'), questions: [NAME] }] }

it('answers from a file are taken in for a piece, and what was not is said line by line', async () => {
  const { writes } = startOffice(({ method, path }) => {
    if (method === 'POST')
      return {
        stored: 1,
        known: 2,
        faults: [{ line: 3, question: 'Your name', sentence: 'Answer this question.' }],
      }
    if (path.startsWith('/pages?')) return { rows: [{ id: 3, name: 'Survey', campaignId: 1 }] }
    if (path.startsWith('/codes?')) return { rows: [{ id: 7, name: 'Table card' }] }
    return { id: 3, live: LIVE }
  })
  render(<ImportLeads campaignId={1} close={() => undefined} />, { wrapper: around })
  const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Take in' })
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Page with the form' }))
  fireEvent.click(await screen.findByRole('option', { name: 'Survey' }))
  const file = new File(['YOUR NAME,Weather\nAda,fine\n'], 'paper.csv', { type: 'text/csv' })
  fireEvent.change(screen.getByLabelText('File of answers'), { target: { files: [file] } })
  await screen.findByText(/1 line. Taken: YOUR NAME. Left out: Weather./)
  expect(button().disabled).toBe(true)
  const piece = screen.getByRole('combobox', { name: 'Piece they are counted for' })
  fireEvent.mouseDown(piece)
  fireEvent.click(await screen.findByRole('option', { name: 'Table card' }))
  fireEvent.click(button())
  await screen.findByText(/1 lead taken in, 2 were there already/)
  screen.getByText('Line 3, Your name: Answer this question.')
  await waitFor(() => {
    expect(writes()[0]?.body).toEqual({
      campaignId: 1,
      pageId: 3,
      part: 'f',
      codeId: 7,
      lines: [{ line: 2, at: '', sent: [['q.name', ['Ada']]] }],
    })
  })
})
