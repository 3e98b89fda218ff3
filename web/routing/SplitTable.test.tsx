import type { ExitTally, Lane } from '@flimbo/core/routing'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import { cleanup, render, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import { SplitTable } from './SplitTable.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const leads = { kind: 'address' as const, address: 'https://saltmarsh.example/' }
const variant = (id: string, ended = false) => ({ id, name: id.toUpperCase(), weight: 1, leads, ended })
const LANE: Lane = {
  id: 'l',
  name: '',
  condition: EVERY_SCAN,
  outcome: { kind: 'split', variants: [variant('a'), variant('b'), variant('old', true)] },
  resting: false,
}
const exits = (scans: number): ExitTally[] =>
  ['a', 'b', 'old'].map((id) => ({ exit: 'l', variant: id, scans, uniques: scans }))

function show(scans: number, brought: Readonly<Record<string, number>>) {
  const { asked } = startOffice(() => ({
    rows: [
      ...Object.entries(brought).map(([id, count]) => ({ exit: 'l', variant: id, leads: count })),
      { exit: 'other lane', variant: 'a', leads: 999 },
    ],
  }))
  render(
    <SplitTable lane={LANE} place={2} exits={exits(scans)} routeId={5} period={{ from: '2026-07-01' }} />,
    {
      wrapper: around,
    },
  )
  return { asked }
}
const cells = (name: string) =>
  within(screen.getByRole('row', { name: new RegExp(`^${name}`) }))
    .getAllByRole('cell')
    .map(({ textContent }) => textContent)

describe('what came of a split test', () => {
  it('shows leads and rates of each variant, and names no winner before the planned sample', async () => {
    const { asked } = show(200, { a: 10, b: 60 })
    await screen.findByText('60')
    expect(asked[0]?.path).toBe('/routes/5/variant-leads?from=2026-07-01')
    const [, , , , count, rate, ahead, chance] = cells('B')
    expect([count, rate?.startsWith('30.0 % ('), ahead?.startsWith('25.0 % ('), chance]).toEqual([
      '60',
      true,
      true,
      '100.0 %',
    ])
    // 5 % expected, 1 % to detect: the sample is thousands, whatever the chance is by now.
    screen.getByText(/No winner is named before\./)
    expect(cells('OLD').slice(5)).toEqual(['–', '–', '–'])
  })

  it('names the winner once the sample is there', async () => {
    show(20_000, { a: 1000, b: 1600 })
    await screen.findByText('1,600')
    screen.getByText('“B” brings more leads than the others.')
  })

  it('names none where the sample is there and they are alike', async () => {
    show(20_000, { a: 1000, b: 1003 })
    await screen.findByText('1,003')
    screen.getByText('Each variant has the visitors it needs, and none is clearly better.')
  })
})
