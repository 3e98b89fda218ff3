import { cleanup, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, startOffice } from '../tests/office.tsx'
import { NewLeads } from './NewLeads.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

function show(count: number) {
  startOffice(() => ({
    rows: Array.from({ length: count }, (_, i) => ({
      campaignId: i + 1,
      campaignName: `Campaign ${String(i + 1)}`,
      count: i + 1,
      latestAt: Date.now() - 60_000,
    })),
  }))
  const session = { workspace: { zone: 'UTC' } } as SignedIn
  render(
    <MemoryRouter>
      <SessionContext value={session}>
        <NewLeads />
      </SessionContext>
    </MemoryRouter>,
    { wrapper: around },
  )
}

it('new leads stand on the desk by campaign, each with the way to them, and no more than can be read', async () => {
  show(8)
  const link = await screen.findByRole('link', { name: 'Campaign 1: 1 new lead' })
  expect(link.getAttribute('href')).toBe('/campaigns/1/leads?state=new')
  expect(screen.getByRole('link', { name: 'All leads' }).getAttribute('href')).toBe('/leads')
  screen.getByText('and 2 more campaigns')
})
