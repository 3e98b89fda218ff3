import { USUAL_STATES } from '@flimbo/core/leads'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import { LeadStatesPart } from './LeadStatesPart.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

it('states of leads are named, added, moved and removed, but for the first, and saved at once', async () => {
  const { writes } = startOffice(() => ({ value: USUAL_STATES, version: 3 }))
  render(<LeadStatesPart />, { wrapper: around })
  await screen.findByLabelText('State 1')
  const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name })
  expect([
    button('Remove New').disabled,
    button('Move New down').disabled,
    button('Move Open up').disabled,
  ]).toEqual([true, true, true])
  fireEvent.click(button('Move Done up'))
  fireEvent.click(button('Remove Not usable'))
  fireEvent.click(button('Add state'))
  fireEvent.click(button('Save'))
  await screen.findAllByText('Write the name of the state.')
  expect(writes()).toEqual([])
  fireEvent.change(screen.getByLabelText('State 4'), { target: { value: 'To ring' } })
  fireEvent.change(screen.getByLabelText('State 1'), { target: { value: 'Just in' } })
  fireEvent.click(button('Save'))
  await waitFor(() => {
    expect(writes()[0]?.body).toEqual({
      version: 3,
      value: {
        states: [
          { key: 'new', name: 'Just in' },
          { key: 'done', name: 'Done' },
          { key: 'open', name: 'Open' },
          { key: 'state1', name: 'To ring' },
        ],
      },
    })
  })
})
