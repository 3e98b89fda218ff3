import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { USUAL_STATES, type Lead, type LeadSummary } from '@flimbo/core/leads'
import { SessionContext } from '../session/index.ts'
import { around, startOffice, type Asked } from '../tests/office.tsx'
import { queryOf, viewOf } from './filter.ts'
import { LeadsScreen } from './LeadsScreen.tsx'
import { changesBack } from './useLeadChange.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

describe('what a list of leads is narrowed to', () => {
  const view = (text: string) => viewOf(new URLSearchParams(text))
  it('stands in the address, and what is not understood there narrows nothing', () => {
    expect(queryOf(1, view('q= boat &state=open&page=3&code=4&tag=a'))).toEqual({
      campaignId: 1,
      held: 'no',
      q: 'boat',
      state: 'open',
      pageId: 3,
      codeId: 4,
      tag: 'a',
    })
    expect(queryOf(1, view('q=&state=Lost!&page=x&code=-1&held=perhaps'))).toEqual({
      campaignId: 1,
      held: 'no',
    })
  })
})

describe('a change of leads', () => {
  it('is taken back with one request for all that were alike, and only what was set', () => {
    const was = (id: number, state: LeadSummary['state'], assignedTo: number | null = null) => ({
      id,
      state,
      assignedTo,
      tags: [],
      personMark: '',
    })
    expect(changesBack([was(1, 'new'), was(2, 'open', 7), was(3, 'new', 8)], { state: 'done' })).toEqual([
      { ids: [1, 3], set: { state: 'new' } },
      { ids: [2], set: { state: 'open' } },
    ])
    expect(changesBack([was(1, 'new', 7)], { assignedTo: null })).toEqual([
      { ids: [1], set: { assignedTo: 7 } },
    ])
  })
})

const summary = (id: number, more: Partial<LeadSummary> = {}): LeadSummary => ({
  id,
  version: 1,
  at: Date.parse('2026-07-01T10:00:00Z'),
  title: `Visitor ${String(id)}`,
  email: 'ada@a.example',
  phone: '',
  state: 'new',
  assignedTo: null,
  tags: [],
  campaignId: 1,
  campaignName: 'Summer',
  pageId: 3,
  pageName: 'Season pass',
  codeId: 4,
  codeName: 'Poster',
  city: 'Kiel',
  country: 'DE',
  held: null,
  personMark: '',
  ...more,
})
const whole = (id: number, more: Partial<Lead> = {}): Lead => ({
  ...summary(id),
  confirmBy: null,
  confirmedAt: null,
  mails: [],
  routeId: 5,
  routeName: 'Pass form',
  scanId: 6,
  language: 'de',
  region: '',
  device: 'phone',
  system: 'iOS',
  utm: { source: 'pier', term: '' },
  answers: [{ question: 'a', title: 'Boat', text: 'Lark <b>', file: null }],
  consents: [{ title: 'News', words: 'Send me news.', language: 'en' }],
  notes: [{ id: 1, at: 0, by: 'Jonas', text: 'Rang back' }],
  others: [],
  ...more,
})

function show(
  answer: (asked: Asked) => unknown,
  address = '/leads',
  campaign: object | null = { id: 1, zone: 'UTC' },
) {
  const office = startOffice(answer)
  const router = createMemoryRouter(
    [
      {
        path: '/',
        element: <Outlet context={campaign} />,
        children: [{ path: 'leads', element: <LeadsScreen /> }],
      },
    ],
    { initialEntries: [address] },
  )
  const session = {
    state: 'signed-in',
    person: { id: 9, name: 'Anna', role: 'admin' },
    workspace: { id: 1, zone: 'UTC' },
  }
  render(
    <SessionContext value={session as never}>
      <RouterProvider router={router} />
    </SessionContext>,
    { wrapper: around },
  )
  return office
}
const answers =
  (rows: LeadSummary[], lead: Lead = whole(1)) =>
  ({ method, path }: Asked) => {
    if (method === 'POST' && path === '/lead-changes')
      return { were: rows.map(({ id, state, assignedTo, tags }) => ({ id, state, assignedTo, tags })) }
    if (path.startsWith('/leads?'))
      return {
        rows,
        total: rows.length,
        page: 0,
        pageSize: 50,
        states: { new: rows.length, open: 0, done: 0, unusable: 0 },
      }
    if (path === '/people') return { rows: [{ id: 9, name: 'Anna' }] }
    if (path === '/lead-states') return { value: STATES, version: 1 }
    if (path.startsWith('/watches')) return { rows: [] }
    return lead
  }
const STATES = { ...USUAL_STATES, states: [...USUAL_STATES.states, { key: 'ring', name: 'To ring' }] }
const press = (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }))
}

describe('the inbox', () => {
  it('says what to do where nobody answered yet', async () => {
    show(answers([]))
    await screen.findByText('Nobody has answered yet')
    expect(screen.getByRole('link', { name: 'Go to the pages' }).getAttribute('href')).toBe(
      '/campaigns/1/pages',
    )
  })

  it('shows the person who was chosen by keyboard: what they said, agreed to, and the way they came', async () => {
    show(answers([summary(1), summary(2)]))
    await screen.findByText('Visitor 2')
    fireEvent.keyDown(document.body, { key: 'j' })
    const person = await screen.findByRole('complementary', { name: 'Visitor 1' })
    await within(person).findByText('Lark <b>')
    within(person).getByText('Send me news.')
    within(person).getByText('Rang back')
    const stops = within(within(person).getByRole('list', { name: 'How they came' })).getAllByRole('listitem')
    expect(stops.map(({ textContent }) => textContent)).toEqual([
      'PiecePostersource pier',
      expect.stringContaining('PlaceKiel, Germany'),
      expect.stringContaining('Devicephone, iOS'),
      'RoutePass form',
      'PageSeason pass',
      expect.stringMatching(/^Answer1 Jul 2026/),
    ])
  })

  it('says what they were mailed since, in its order, and what waits for their address to be confirmed', async () => {
    const at = Date.parse('2026-07-01T10:00:00Z')
    const mail = (kind: 'confirm' | 'answer', state: 'sent' | 'refused' | 'unconfirmed', reply = '') => ({
      kind,
      state,
      at,
      settledAt: state === 'sent' ? at + 60_000 : null,
      reply,
    })
    const mails = [mail('answer', 'unconfirmed'), mail('confirm', 'sent')]
    show(answers([summary(1)], whole(1, { mails, confirmBy: at + 86_400_000 })), '/leads?lead=1')
    const way = await screen.findByRole('list', { name: 'How they came' })
    const texts = within(way)
      .getAllByRole('listitem')
      .map(({ textContent }) => textContent)
    expect(texts.slice(-3)).toEqual([
      'MailAsked by mail whether the address is theirs1 Jul 2026, 10:01',
      'AddressNot confirmedCan be until 2 Jul 2026, 10:00',
      'MailThanked by mailUntil confirmed',
    ])
    cleanup()
    const refused = whole(1, { mails: [mail('answer', 'refused', '550 No such mailbox')], confirmedAt: at })
    show(answers([summary(1)], refused), '/leads?lead=1')
    await screen.findByText('Refused: 550 No such mailbox')
    screen.getByText('Confirmed')
  })

  it('sets many at once, says so, and takes it back', async () => {
    const { writes } = show(answers([summary(1), summary(2, { state: 'open' })]))
    await screen.findByText('Visitor 2')
    fireEvent.click(screen.getAllByRole('checkbox')[0] as HTMLElement)
    const region = await screen.findByRole('region', { name: 'Selected leads' })
    within(region).getByText('2 leads selected')
    fireEvent.click(within(region).getByRole('button', { name: 'Done' }))
    await screen.findByText('2 leads set to done.')
    expect(writes()[0]?.body).toEqual({ ids: [1, 2], set: { state: 'done' } })
    press('Undo')
    await waitFor(() => {
      expect(
        writes()
          .slice(1)
          .map(({ body }) => body),
      ).toEqual([
        { ids: [1], set: { state: 'new' } },
        { ids: [2], set: { state: 'open' } },
      ])
    })
  })

  it('has the states of the workspace, and joins those who are one person', async () => {
    const { writes } = show(answers([summary(1), summary(2)]))
    await screen.findByText('Visitor 2')
    await screen.findByRole('button', { name: /^To ring/ })
    fireEvent.click(screen.getAllByRole('checkbox')[0] as HTMLElement)
    press('Same person')
    await screen.findByText('2 leads joined as one person.')
    expect(writes()[0]?.body).toEqual({
      ids: [1, 2],
      set: { personMark: expect.stringMatching(/^g:[0-9a-f]{16}$/) as string },
    })
  })

  it('parts one that is somebody else, and joins it again', async () => {
    const { writes } = show(
      answers([summary(1)], whole(1, { personMark: 's:1', others: [summary(2)] })),
      '/leads?lead=1',
    )
    fireEvent.click(await screen.findByRole('button', { name: /^Not the same: Visitor 2/ }))
    await waitFor(() => {
      expect(writes()[0]?.body).toMatchObject({ ids: [2] })
    })
    press('Join again')
    await waitFor(() => {
      expect(writes()[1]?.body).toEqual({ ids: [1], set: { personMark: '' } })
    })
  })

  it('is of all campaigns where no one is chosen, each lead with its own', async () => {
    const { asked } = show(answers([summary(1)]), '/leads', null)
    await screen.findByText('Visitor 1')
    screen.getByRole('columnheader', { name: 'Campaign' })
    expect(screen.queryByRole('button', { name: 'Numbers' })).toBeNull()
    expect(asked.find(({ path }) => path.startsWith('/leads?'))?.path).not.toContain('campaignId')
  })

  it('is narrowed to a form and a piece by choice, which stands in the address and is found again', async () => {
    const { asked } = show(({ method, path }) => {
      if (path.startsWith('/answered-forms'))
        return { rows: [{ pageId: 3, part: 'f', pageName: 'Season pass', answers: 2 }] }
      if (path.startsWith('/codes?')) return { rows: [{ id: 4, name: 'Poster' }] }
      if (path === '/codes/9') return { id: 9, name: 'Old banner' }
      return answers([summary(1)])({ method, path, body: undefined })
    }, '/leads?code=9')
    await screen.findByText('Visitor 1')
    const piece = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Piece' })
    await waitFor(() => {
      expect(piece().value).toBe('Old banner')
    })
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Form on' }))
    fireEvent.click(await screen.findByRole('option', { name: 'Season pass' }))
    await waitFor(() => {
      expect(
        asked.some(
          ({ path }) => path.startsWith('/leads?') && /pageId=3/.test(path) && /codeId=9/.test(path),
        ),
      ).toBe(true)
    })
    fireEvent.change(piece(), { target: { value: 'pos' } })
    await waitFor(() => {
      expect(asked.some(({ path }) => path.startsWith('/codes?') && path.includes('q=pos'))).toBe(true)
    })
  })

  it('takes one that was held, which is not held again', async () => {
    const held = { ...summary(1), held: 'quick' as const }
    const { writes } = show(answers([held], whole(1, { held: 'quick' })), '/leads?held=yes&lead=1')
    await screen.findByText(/It came quicker than anybody reads the form/)
    press('Take it')
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ ids: [1], set: { isHeld: false } })
    })
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull()
  })

  it('erases a person only after it was said what goes', async () => {
    const { writes } = show(answers([summary(1)], whole(1, { others: [summary(2)] })), '/leads?lead=1')
    fireEvent.click(await screen.findByRole('button', { name: 'Erase this person' }))
    const dialog = await screen.findByRole('dialog', { name: 'Erase this person?' })
    within(dialog).getByText(/^2 answers with this mail address/)
    expect(writes()).toEqual([])
    fireEvent.click(within(dialog).getByRole('button', { name: 'Erase' }))
    await waitFor(() => {
      expect(writes()[0]?.path).toBe('/leads/1/erase')
    })
  })

  it('has what was typed in the query, and downloads the same leads', async () => {
    const { asked, writes } = show(answers([summary(1)]))
    await screen.findByText('Visitor 1')
    fireEvent.change(screen.getByLabelText('Find in answers'), { target: { value: 'boat' } })
    await waitFor(() => {
      expect(asked.some(({ path }) => path.includes('q=boat'))).toBe(true)
    })
    press('Download…')
    fireEvent.click(screen.getByRole('checkbox', { name: 'Piece' }))
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Choices' }))
    fireEvent.click(screen.getByRole('option', { name: 'A column each' }))
    press('Download')
    await waitFor(() => {
      expect(writes()[0]).toMatchObject({
        path: '/lead-files',
        body: { campaignId: 1, held: 'no', q: 'boat', look: { format: 'csv', choices: 'split' } },
      })
    })
    const { columns } = (writes()[0]?.body as { look: { columns: string[] } }).look
    expect([columns.includes('code'), columns.includes('city')]).toEqual([false, true])
  })
})
