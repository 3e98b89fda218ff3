import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import { OnPages } from './OnPages.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const piece = (codeId: number) => ({
  codeId,
  name: `Piece ${String(codeId)}`,
  opened: 1000 - codeId,
  followed: 5,
  taken: 4,
  played: 3,
  finished: 2,
})
const show = (count: number) => {
  const { asked } = startOffice(() => ({ rows: Array.from({ length: count }, (_each, i) => piece(i + 1)) }))
  const view = render(<OnPages scope={{ routeId: 3 }} from="2026-07-01" to="2026-07-30" zone="UTC" />, {
    wrapper: around,
  })
  return { asked, view }
}

describe('what scans did on pages', () => {
  it('is asked for the scope and the days of the screen, and shown by piece', async () => {
    const { asked } = show(1)
    const row = await screen.findByRole('row', { name: /^Piece 1/ })
    expect(
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['Piece 1', '999', '5', '4', '3', '2'])
    expect(asked[0]?.path).toBe('/page-events?routeId=3&from=2026-07-01&to=2026-07-30')
  })

  it('is of the fifty that were opened most, and says so', async () => {
    show(60)
    await screen.findByText(/The 50 pieces with the most openings, of 60/)
    expect(within(screen.getByRole('table')).getAllByRole('row')).toHaveLength(51)
  })

  it('leads from each figure to the rows behind it', async () => {
    const { asked } = show(2)
    fireEvent.click(await screen.findByRole('button', { name: '3, Piece 2, Began to play: show the rows' }))
    await screen.findByText('Only: Piece 2, Began to play')
    const query = new URLSearchParams(asked.at(-1)?.path.split('?')[1])
    expect(Object.fromEntries(query)).toMatchObject({ codeId: '2', count: 'played', counted: 'counted' })
    expect(query.has('routeId')).toBe(false)
    expect(document.activeElement?.getAttribute('aria-label')).toBe('The rows behind it')
  })

  it('is not there where nobody was shown a page', async () => {
    const { asked, view } = show(0)
    await vi.waitFor(() => {
      expect(asked).toHaveLength(1)
    })
    expect(view.container.textContent).toBe('')
  })
})
