import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Retention } from '@flimbo/core/scans'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, conflict, refusal, startOffice } from '../tests/office.tsx'
import { KeepScansForm } from './KeepScansForm.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const BEFORE = Date.UTC(2025, 8, 1)
const session = { workspace: { id: 1, name: 'Saltmarsh Line', zone: 'UTC' } } as SignedIn

/** An office with so many scans that are too old, and what is stored there. */
function open(stored: Retention, scans: number, version = 1) {
  const office = startOffice(({ method, path, body }) => {
    if (method === 'PATCH' && (body as { version: number }).version < version)
      return conflict({ value: stored, version })
    if (method === 'PATCH') return { value: (body as { value: Retention }).value, version: 2 }
    if (path === '/settings/retention') return { value: stored, version: 1 }
    const folded = stored.months === null ? null : { before: BEFORE, scans: 1234 }
    return { folded, next: path.includes('months') ? { before: BEFORE, scans } : null }
  })
  show()
  return office
}
function show(): void {
  render(
    <SessionContext value={session}>
      <KeepScansForm />
    </SessionContext>,
    { wrapper: around },
  )
}
async function choose(name: string): Promise<void> {
  fireEvent.mouseDown(await screen.findByRole('combobox', { name: 'Keep single scans' }))
  fireEvent.click(await screen.findByRole('option', { name }))
}

describe('how long single scans are kept', () => {
  it('says how many would be folded, and asks before it saves', async () => {
    const office = open({ months: null }, 5678)
    await choose('14 months')
    await screen.findByText('Saving folds 5,678 scans before 1 Sept 2025.')
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    expect(office.writes()).toEqual([])
    fireEvent.click(await screen.findByRole('button', { name: 'Fold 5,678 scans' }))
    await waitFor(() => {
      expect(office.writes().map(({ body }) => body)).toEqual([{ value: { months: 14 }, version: 1 }])
    })
  })

  it('asks as well before it overwrites what somebody else saved meanwhile', async () => {
    const office = open({ months: null }, 5678, 2)
    await choose('14 months')
    await screen.findByText(/^Saving folds/)
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    fireEvent.click(await screen.findByRole('button', { name: 'Fold 5,678 scans' }))
    fireEvent.click(await screen.findByRole('button', { name: 'Overwrite with mine' }))
    expect(office.writes()).toHaveLength(1)
    fireEvent.click(await screen.findByRole('button', { name: 'Fold 5,678 scans' }))
    await waitFor(() => {
      expect(office.writes().at(-1)?.body).toEqual({ value: { months: 14 }, version: 2 })
    })
  })

  it('saves at once where nothing is so old', async () => {
    const office = open({ months: null }, 0)
    await choose('38 months')
    await screen.findByText('No scan is older than 1 Sept 2025: nothing is folded now.')
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(office.writes()).toHaveLength(1)
    })
  })

  it('is not saved while nobody knows how many scans that would fold', async () => {
    const office = startOffice(({ path }) => {
      if (path === '/settings/retention') return { value: { months: null }, version: 1 }
      if (!path.includes('months')) return { folded: null, next: null }
      return refusal('More is being asked just now than can be worked out.')
    })
    show()
    await choose('14 months')
    await screen.findByText('More is being asked just now than can be worked out.')
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true)
    expect(office.writes()).toEqual([])
  })

  it('says what is folded already, and that it stays so', async () => {
    open({ months: 5 }, 0)
    await screen.findByText('1,234 scans before 1 Sept 2025 are sums only.')
    expect(screen.getByRole('combobox', { name: 'Keep single scans' }).textContent).toBe('5 months')
    await choose('for ever')
    await screen.findByText(/what is folded cannot be unfolded/)
  })
})
