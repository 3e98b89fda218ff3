import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { Notices, WatchButton, WatchesPart } from './index.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const WATCH = {
  id: 4,
  of: 'code',
  refId: 7,
  name: 'Pier poster',
  campaignId: 1,
  what: 'silent',
  every: 'once',
  n: 3,
  toldAt: null,
}
function show(element: React.ReactElement, answer: (asked: Asked) => unknown) {
  const office = startOffice(answer)
  const session = { workspace: { zone: 'UTC' } } as SignedIn
  render(
    <MemoryRouter>
      <SessionContext value={session}>{element}</SessionContext>
    </MemoryRouter>,
    { wrapper: around },
  )
  return office
}
const choose = (label: string, option: string) => {
  fireEvent.mouseDown(screen.getByRole('combobox', { name: label }))
  fireEvent.click(screen.getByRole('option', { name: option }))
}
const add = () => {
  fireEvent.click(screen.getByRole('button', { name: 'Add' }))
}

describe('what is watched', () => {
  it('is added with the number it wants, and said to want one where it is missing', async () => {
    const { writes } = show(<WatchButton scope={{ codeId: 7 }} name="this piece" />, ({ method }) =>
      method === 'GET' ? { rows: [] } : WATCH,
    )
    fireEvent.click(await screen.findByRole('button', { name: 'Watch' }))
    choose('Tell me of', 'No scan for some days')
    add()
    await screen.findByText('Give a number from 1 on.')
    expect(writes()).toEqual([])
    fireEvent.change(screen.getByLabelText('Days'), { target: { value: '3' } })
    add()
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ codeId: 7, what: 'silent', every: 'once', n: 3 })
    })
    choose('Tell me of', 'A summary')
    choose('How often', 'Every hour')
    add()
    await waitFor(() => {
      expect(writes()[1]?.body).toEqual({ codeId: 7, what: 'summary', every: 'hour', n: null })
    })
  })

  it('says why something cannot be watched for', async () => {
    show(<WatchButton scope={{ codeId: 7 }} name="this piece" />, ({ method }) =>
      method === 'GET' ? { rows: [] } : refusal('It was scanned already.'),
    )
    fireEvent.click(await screen.findByRole('button', { name: 'Watch' }))
    choose('Tell me of', 'The first scan')
    add()
    await screen.findByText('It was scanned already.')
  })

  it('is listed and removed where it was added, and with all others', async () => {
    const { writes } = show(
      <>
        <WatchButton scope={{ codeId: 7 }} name="this piece" />
        <WatchesPart />
      </>,
      () => ({ rows: [WATCH] }),
    )
    const table = await screen.findByRole('table', { name: 'What you are told' })
    within(table).getByText('no scan for 3 days')
    expect(within(table).getByRole('link').getAttribute('href')).toBe('/campaigns/1/results?code=7')
    fireEvent.click(screen.getByRole('button', { name: 'Watching (1)' }))
    fireEvent.click(screen.getByRole('button', { name: 'Remove: no scan for 3 days' }))
    await waitFor(() => {
      expect(writes()).toMatchObject([{ method: 'DELETE', path: '/watches/4' }])
    })
  })

  it('stands on the desk when it happened, until it is taken off', async () => {
    const { writes } = show(<Notices />, ({ method }) =>
      method === 'GET'
        ? {
            rows: [
              { id: 9, at: Date.now(), sentence: 'It happened.', campaignId: 1, of: 'campaign', refId: 1 },
            ],
          }
        : {},
    )
    const link = await screen.findByRole('link', { name: 'It happened.' })
    expect(link.getAttribute('href')).toBe('/campaigns/1/results')
    fireEvent.click(screen.getByRole('button', { name: 'Take all off the desk' }))
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ ids: [9] })
    })
  })
})
