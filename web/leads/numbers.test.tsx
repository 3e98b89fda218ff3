import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { LeadNumbers } from '@flimbo/core/leads'
import { around, startOffice } from '../tests/office.tsx'
import { queryOf, rowOf, viewOf } from './filter.ts'
import { LeadsScreen } from './LeadsScreen.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const share = { value: 0.5, low: 0.2, high: 0.8 }
const row = (key: string, label: string, count: number) => ({ key, label, count, share })
const head = (question: string, title: string) => ({ question, title, answered: 4 })
const QUESTIONS: LeadNumbers['questions'] = [
  { ...head('boat', 'Boat'), kind: 'counts', rows: [row('a', 'Lark Holm', 2), row('b', 'Tern Sands', 0)] },
  {
    ...head('how', 'How was it?'),
    kind: 'values',
    spread: { count: 4, mean: 4, deviation: 0.8165, median: 4, least: 3, most: 5 },
    rows: [row('4', '4', 2)],
  },
  { ...head('best', 'Best'), kind: 'ranks', rows: [{ ...row('first.a', 'Lark Holm', 3), meanPlace: 1.25 }] },
  { ...head('why', 'Why?'), kind: 'words', rows: [row('windy', 'windy', 2)] },
  { ...head('mail', 'Mail'), kind: 'answered' },
]

function show(address: string, groups: LeadNumbers['groups'] = []) {
  const office = startOffice(({ path }) => {
    if (path.startsWith('/answered-forms'))
      return { rows: [{ pageId: 3, part: 'f', pageName: 'Survey', answers: 4 }] }
    if (path.startsWith('/lead-numbers')) return { total: 4, questions: QUESTIONS, groups }
    const figures = { scans: 8, uniques: 8, leads: 4, cost: null, before: null }
    const rows = [
      { keys: ['7'], ...figures },
      { keys: ['8'], ...figures, scans: 0 },
    ]
    const answer = { rows, rowsTotal: 2, total: figures, names: { piece: { 7: 'Poster', 8: 'Ticket' } } }
    return { answers: [answer] }
  })
  const router = createMemoryRouter(
    [
      {
        path: '/',
        element: <Outlet context={{ id: 1, zone: 'UTC' }} />,
        children: [{ path: 'leads', element: <LeadsScreen /> }],
      },
    ],
    { initialEntries: [address] },
  )
  render(<RouterProvider router={router} />, { wrapper: around })
  return office
}
const hrefOf = (name: string, inside: HTMLElement) =>
  within(inside).getByRole('link', { name }).getAttribute('href')

describe('leads in numbers', () => {
  it('have a bar each answer, which leads to the leads behind it', async () => {
    show('/leads?view=numbers')
    const boat = await screen.findByRole('table', { name: 'Boat' })
    expect(hrefOf('Lark Holm', boat)).toBe('/leads?page=3&question=boat&answer=a&as=Boat%3A+Lark+Holm')
    // Nobody is behind a bar of none.
    expect(within(boat).queryByRole('link', { name: 'Tern Sands' })).toBeNull()
    expect(within(boat).getAllByText('50.0 % (20.0 to 80.0 %)')).toHaveLength(2)
    // Student's t of 3 degrees of freedom is 3.182 (published tables): 4 ± 3.182 · 0.8165 / 2.
    screen.getByText('Mean 4 (2.7 to 5.3), median 4')
    within(screen.getByRole('table', { name: 'Best' })).getByText('1.25')
    expect(hrefOf('windy', screen.getByRole('list', { name: 'Words: Why?' }))).toBe('/leads?page=3&q=windy')
    screen.getByText('Not counted: it tells who somebody is, or is a file.')
  })

  it('are compared by what is chosen, cell by cell', async () => {
    const own = [{ ...head('boat', 'Boat'), kind: 'counts' as const, rows: [row('a', 'Lark Holm', 2)] }]
    const { asked } = show('/leads?view=numbers&by=city', [
      { key: 'DE\tBremen\tBremen', name: 'x', total: 4, questions: own },
    ])
    const boat = await screen.findByRole('table', { name: 'Boat, compared' })
    within(boat).getByText('Bremen, Germany')
    expect(hrefOf('2 (50%)', boat)).toBe(
      '/leads?page=3&country=DE&region=Bremen&city=Bremen&question=boat&answer=a&as=Boat%3A+Lark+Holm',
    )
    expect(asked.some(({ path }) => path.includes('by=city'))).toBe(true)
  })

  it('say how many leads a scan brings, and no figure where nothing was scanned', async () => {
    show('/leads?view=numbers')
    const table = await screen.findByRole('table', { name: 'Leads a scan' })
    // Newcombe 1998, method 3, of 4 of 8.
    expect(within(table).getAllByText('50.0 % (21.5 to 78.5 %)')).toHaveLength(2)
    within(table).getByText('no figure')
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'By' }))
    fireEvent.click(screen.getByRole('option', { name: 'Medium' }))
    const medium = await screen.findByRole('columnheader', { name: 'Medium' })
    expect(medium.tagName).toBe('TH')
  })

  it('narrow the list as their rows are named', () => {
    const query = (by: Parameters<typeof rowOf>[0], key: string) =>
      queryOf(1, viewOf(new URLSearchParams(rowOf(by, key))))
    const all = { campaignId: 1, held: 'no' }
    expect(query('piece', '7')).toEqual({ ...all, codeId: 7 })
    expect(query('month', '2028-02')).toEqual({ ...all, from: '2028-02-01', to: '2028-02-29' })
    expect(query('city', 'DE\t\tKiel')).toEqual({ ...all, country: 'DE', region: '', city: 'Kiel' })
    expect(query('city', '')).toEqual({ ...all, city: '' })
    expect(query('medium', '')).toEqual({ ...all, medium: '' })
  })
})
