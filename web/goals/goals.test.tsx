import type { Campaign } from '@flimbo/core/campaigns'
import type { GoalRow, GoalSite } from '@flimbo/core/goals'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { afterEach, expect, it, vi } from 'vitest'
import { around, conflict, startOffice, type Asked } from '../tests/office.tsx'
import { GoalsScreen } from './index.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const GOAL: GoalRow = {
  ...{ id: 4, campaignId: 1, name: 'Order', kind: 'sent', key: 'order', pattern: '', selector: '' },
  ...{ value: null, counts: 'each', signedOnly: false, isOn: true, version: 2 },
  ...{ reached: 12, worth: 468, lastAt: null },
}
const SITE: GoalSite = {
  ...{ value: { honoursSignals: true, origins: [], secretNumber: 0 }, version: 0, lastAt: null },
  script: 'https://go.saltmarsh.example/~goals/1.x.js',
  image: 'https://go.saltmarsh.example/~goals/1.x.gif',
  call: 'https://go.saltmarsh.example/~goals/1.x/calls',
}
// Only what the screen reads of it.
const CAMPAIGN = { id: 1, zone: 'Europe/Berlin', version: 3, referenceHours: 0 } as Campaign

function open(path: string, answer: (asked: Asked) => unknown = () => undefined) {
  const office = startOffice((asked) => {
    const own = answer(asked)
    if (own !== undefined) return own
    if (asked.path.startsWith('/goals?')) return { rows: [GOAL], currency: 'EUR' }
    if (asked.path === '/goal-site') return SITE
    if (asked.path.startsWith('/site-pages'))
      return { rows: [{ page: 'a.example/x', views: 3, scans: 2, medianSeconds: 75 }], rowsTotal: 1 }
    return { rows: [], total: 0, page: 0, pageSize: 25 }
  })
  const router = createMemoryRouter(
    [
      {
        path: '/campaigns/1',
        element: <Outlet context={CAMPAIGN} />,
        children: [{ path: 'goals', element: <GoalsScreen /> }],
      },
    ],
    { initialEntries: [path] },
  )
  render(<RouterProvider router={router} />, { wrapper: around })
  return office
}

it('goals are listed with what came of them; that redirects carry no reference is said', async () => {
  const { writes } = open('/campaigns/1/goals')
  await screen.findByText('Goals are counted only while sites know a scan. Choose for how long.')
  expect(screen.getByText('No site has reported yet.', { exact: false })).toBeTruthy()
  await screen.findByText('1 min 15 s')
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Sites that scans lead to' }))
  fireEvent.click(await screen.findByRole('option', { name: 'know a scan for a week' }))
  await waitFor(() => {
    expect(writes()[0]).toMatchObject({ path: '/campaigns/1', body: { version: 3, referenceHours: 168 } })
  })
})

it('a goal is changed from the version that was seen; one that somebody else changed is not overwritten unasked', async () => {
  let isOvertaken = true
  const { writes } = open('/campaigns/1/goals?goal=4', ({ method }) => {
    if (method !== 'PATCH') return undefined
    if (isOvertaken) return conflict({ ...GOAL, name: 'Theirs', version: 5 })
    return { ...GOAL, version: 6 }
  })
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Ours' } })
  fireEvent.click(screen.getByRole('button', { name: 'Save' }))
  await screen.findByRole('alert')
  isOvertaken = false
  expect(writes().map(({ body }) => (body as { version: number }).version)).toEqual([2])
})

it('a new goal shows what is missing at its field before anything is sent', async () => {
  const { writes } = open('/campaigns/1/goals?goal=new', ({ method, path }) =>
    method === 'POST' && path === '/goals' ? { ...GOAL, id: 9 } : undefined,
  )
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Thanks' } })
  fireEvent.click(screen.getByRole('button', { name: 'Save' }))
  await screen.findByText('Give the address that is reached, such as /order/thanks.')
  expect(writes()).toEqual([])
  fireEvent.change(screen.getByLabelText('Address of the page'), { target: { value: '/thanks' } })
  fireEvent.submit(screen.getByLabelText('Name').closest('form') as HTMLFormElement)
  await waitFor(() => {
    expect(writes()[0]).toMatchObject({
      body: { campaignId: 1, value: { name: 'Thanks', key: 'thanks', pattern: '/thanks', value: null } },
    })
  })
})

it('what the site needs is shown with the key of the goal', async () => {
  open('/campaigns/1/goals?goal=4')
  await screen.findByText('What the site needs')
  expect(screen.getByText(/flimboGoals.push\(\{ goal: 'order'/)).toBeTruthy()
  expect(screen.getByText(/application\/jwt/)).toBeTruthy()
})

it('a goal that was changed is not left unsaved unasked: not for another one either; one that was added is', async () => {
  const other = { ...GOAL, id: 5, name: 'Seats', key: 'seats' }
  const { writes } = open('/campaigns/1/goals?goal=4', ({ method, path }) => {
    if (method === 'POST') return { ...GOAL, id: 6 }
    return path.startsWith('/goals?') ? { rows: [GOAL, other], currency: 'EUR' } : undefined
  })
  const name = () => screen.findByLabelText<HTMLInputElement>('Name')
  fireEvent.change(await name(), { target: { value: 'Order, half' } })
  fireEvent.click(screen.getByRole('button', { name: 'Seats' }))
  const asked = within(await screen.findByRole('dialog', { name: 'Leave without saving?' }))
  fireEvent.click(asked.getByRole('button', { name: 'Cancel' }))
  expect((await name()).value).toBe('Order, half')
  fireEvent.click(screen.getByRole('button', { name: 'Add goal', hidden: true }))
  fireEvent.click(await screen.findByRole('button', { name: 'Discard changes' }))
  await waitFor(async () => {
    expect((await name()).value).toBe('')
  })
  fireEvent.change(await name(), { target: { value: 'Seats' } })
  fireEvent.change(screen.getByLabelText('Address of the page'), { target: { value: '/seats' } })
  fireEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => {
    expect(writes()).toHaveLength(1)
  })
  expect(screen.queryByRole('dialog', { name: 'Leave without saving?' })).toBeNull()
})
