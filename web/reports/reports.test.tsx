import type { Report } from '@flimbo/core/reports'
import { DEFAULT_VIEW } from '@flimbo/core/results'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, conflict, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { AddToReport, ReportScreen, ReportsScreen } from './index.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const QUESTION = {
  ...{ kind: 'question', key: 'q1', title: 'Through which piece?', hasOwnPeriod: false, drawnAs: 'usual' },
  ...{ hasPatterns: false, rows: 10, value: { view: { ...DEFAULT_VIEW, by: ['piece'] } } },
}
const REPORT = {
  ...{
    id: 7,
    of: 'Summer',
    zone: 'UTC',
    version: 2,
    by: 'Anna',
    createdAt: 0,
    changedAt: 0,
    links: 0,
    mailings: 0,
  },
  content: {
    ...{ name: 'Monthly', clientId: null, campaignId: 3, styleId: null, period: { preset: '30' } },
    blocks: [QUESTION],
  },
} as unknown as Report
const LINK = {
  ...{ id: 4, address: 'https://office.example/shared-report/4.x', until: '2099-01-01', isOver: false },
  ...{ hasPassword: true, by: 'Anna', createdAt: 0, opened: 3, openedAt: 0 },
}

function show(path: string, answer: (asked: Asked) => unknown = () => undefined) {
  const office = startOffice((asked) => {
    const given = answer(asked)
    if (given !== undefined) return given
    if (asked.path === '/report-pages') return { markup: '<main><h1>Drawn</h1></main>' }
    if (asked.path === '/reports/7/links') return asked.method === 'GET' ? { rows: [LINK] } : LINK
    if (asked.path === '/reports/7/mailings') return { rows: [] }
    if (asked.path === '/reports/7') return { ...REPORT, version: asked.method === 'GET' ? 2 : 3 }
    if (asked.path.startsWith('/reports')) return asked.method === 'GET' ? { rows: [REPORT] } : REPORT
    return { rows: [], total: 0 }
  })
  const session = {
    workspace: { id: 1, name: 'Saltmarsh Line', zone: 'UTC' },
    clients: [{ id: 1, name: 'Own', domainId: null }],
  } as unknown as SignedIn
  const router = createMemoryRouter(
    [
      { path: '/reports', element: <ReportsScreen /> },
      { path: '/campaigns/3/reports', element: <ReportsScreen /> },
      { path: '/reports/:reportId', element: <ReportScreen /> },
      {
        path: '/results',
        element: <AddToReport value={{ campaignId: 3, view: DEFAULT_VIEW as never }} campaignId={3} />,
      },
    ],
    { initialEntries: [path] },
  )
  render(
    <SessionContext value={session}>
      <RouterProvider router={router} />
    </SessionContext>,
    { wrapper: around },
  )
  const writes = () => office.writes().filter((each) => each.path !== '/report-pages')
  return { writes, previews: () => office.asked.filter((each) => each.path === '/report-pages') }
}
const press = async (name: string | RegExp) => {
  fireEvent.click(await screen.findByRole('button', { name }))
}
const type = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
}

describe('the list of reports', () => {
  it('says of what each is, and deletes one only when asked twice', async () => {
    const { writes } = show('/reports')
    const table = await screen.findByRole('table', { name: 'Reports' })
    expect(within(table).getByRole('link', { name: 'Monthly' }).getAttribute('href')).toBe(
      '/campaigns/3/reports/7',
    )
    expect(within(table).getByText('1 question')).toBeDefined()
    await press('Delete')
    expect(writes()).toEqual([])
    fireEvent.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Delete' }))
    await waitFor(() => {
      expect(writes().map(({ method, path }) => [method, path])).toEqual([['DELETE', '/reports/7']])
    })
  })

  it('says what to do where there is none', async () => {
    show('/reports', ({ path }) => (path === '/reports' ? { rows: [] } : undefined))
    await screen.findByText('No report yet')
  })
})

describe('a report on its screen', () => {
  it('is drawn while it is written, and stored by Save alone', async () => {
    const { writes, previews } = show('/reports/7')
    await waitFor(() => {
      expect(previews()).toHaveLength(1)
    })
    const save = screen.getByRole('button', { name: 'Save' })
    expect(save).toHaveProperty('disabled', true)
    type('Title', 'Every month')
    await press('Add question')
    await waitFor(() => {
      expect(previews().at(-1)?.body).toMatchObject({
        name: 'Every month',
        blocks: [{ key: 'q1' }, { key: 'q2' }],
      })
    })
    expect(writes()).toEqual([])
    fireEvent.click(save)
    await waitFor(() => {
      expect(writes()[0]).toMatchObject({
        method: 'PATCH',
        path: '/reports/7',
        body: { version: 2, content: { name: 'Every month', campaignId: 3 } },
      })
    })
  })

  it('is put back as it was stored, and says what is missing before it is sent', async () => {
    const { writes } = show('/reports/7')
    await screen.findByRole('button', { name: 'Add text' })
    type('Title', ' ')
    await press('Save')
    await waitFor(() => {
      expect(screen.getAllByText('Give the report a name.').length).toBeGreaterThan(0)
    })
    expect(writes()).toEqual([])
    await press('Discard changes')
    expect(screen.getByLabelText('Title')).toHaveProperty('value', 'Monthly')
  })

  it('that somebody else saved meanwhile is overwritten only by choice', async () => {
    let tries = 0
    const { writes } = show('/reports/7', ({ method, path }) =>
      method === 'PATCH' && path === '/reports/7' && tries++ === 0
        ? conflict({ ...REPORT, version: 9 })
        : undefined,
    )
    await screen.findByRole('button', { name: 'Add text' })
    type('Title', 'Mine')
    await press('Save')
    await press('Overwrite with mine')
    await waitFor(() => {
      expect(writes().map(({ body }) => (body as { version: number }).version)).toEqual([2, 9])
    })
  })

  it('shows at its part what the server has against that', async () => {
    show('/reports/7', ({ method, path }) =>
      method === 'PATCH' && path === '/reports/7'
        ? refusal('This question is of another client.')
        : undefined,
    )
    await screen.findByRole('button', { name: 'Add text' })
    type('Title', 'Mine')
    await press('Save')
    await screen.findByText('This question is of another client.')
  })

  it('is not left behind unsaved without being asked', async () => {
    show('/reports/7')
    await screen.findByRole('button', { name: 'Add text' })
    type('Title', 'Mine')
    fireEvent.click(screen.getByRole('link', { name: 'All reports' }))
    const asked = within(await screen.findByRole('dialog', { name: 'Leave without saving?' }))
    fireEvent.click(asked.getByRole('button', { name: 'Cancel' }))
    expect(screen.getByLabelText('Title')).toHaveProperty('value', 'Mine')
    fireEvent.click(screen.getByRole('link', { name: 'All reports', hidden: true }))
    fireEvent.click(await screen.findByRole('button', { name: 'Discard changes', hidden: false }))
    await screen.findByRole('table', { name: 'Reports' })
  })

  it('is the list where its address is but half of one', async () => {
    show('/reports/abc')
    await screen.findByRole('table', { name: 'Reports' })
  })

  it('moves and removes its parts by button', async () => {
    const { previews } = show('/reports/7')
    await press('Add question')
    await press('Move up: Scans')
    await press('Through which piece?')
    await press('Remove from the report')
    await waitFor(() => {
      expect(previews().at(-1)?.body).toMatchObject({ blocks: [{ key: 'q2' }] })
    })
  })
})

describe('handing a report on', () => {
  it('by link: made with a password or none, and deleted', async () => {
    const { writes } = show('/reports/7')
    await press('Share by link')
    await screen.findByText(/Until 1 Jan 2099, with a password, opened 3 times/)
    type('Password, if any', 'low tide at noon')
    await press('Make a link')
    await waitFor(() => {
      expect(writes()[0]).toMatchObject({ path: '/reports/7/links', body: { password: 'low tide at noon' } })
    })
    await press(/^Delete the link/)
    await waitFor(() => {
      expect(writes().at(-1)).toMatchObject({ method: 'DELETE', path: '/report-links/4' })
    })
  })

  it('by mail: addresses however they are typed, and none that is not one', async () => {
    const { writes } = show('/reports/7')
    await press('Mail regularly')
    await screen.findByLabelText('Mail to')
    type('Mail to', 'bo@gull')
    const form = within(screen.getByRole('dialog'))
    fireEvent.click(form.getByRole('button', { name: 'Save' }))
    await screen.findByText('Give a whole e-mail address, such as you@example.com.')
    expect(writes()).toEqual([])
    type('Mail to', 'Bo@gull.example; cy@gull.example')
    fireEvent.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(writes()[0]).toMatchObject({
        path: '/reports/7/mailings',
        body: { every: 'month', at: '07:00', to: ['bo@gull.example', 'cy@gull.example'], files: ['pdf'] },
      })
    })
  })
})

describe('adding a question to a report', () => {
  it('makes a new one of it, in which all of the campaign goes with the report', async () => {
    const { writes } = show('/results')
    await press('Report')
    type('New report', 'Weekly')
    await press('Make')
    await waitFor(() => {
      expect(writes()[0]).toMatchObject({
        method: 'POST',
        path: '/reports',
        body: { name: 'Weekly', campaignId: 3, blocks: [{ kind: 'question', key: 'q1' }] },
      })
    })
    expect(JSON.stringify(writes()[0]?.body)).not.toContain('"value":{"campaignId"')
    await screen.findByText(/Added to/)
  })
})
