import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { FoldedNote } from './FoldedNote.tsx'

afterEach(cleanup)

/** The first of November in Berlin. */
const SINCE = Date.UTC(2025, 9, 31, 23)
describe('the note of scans that have no rows', () => {
  it.each([
    ['of days before', SINCE, '2025-10-31', null, true],
    ['not of days since', SINCE, '2025-11-01', null, false],
    ['of days that are compared with days before', SINCE, '2026-01-01', '2025-10-31', true],
    ['not where all have rows', null, '2020-01-01', null, false],
  ])('stands beside figures %s', (_what, rowsSince, from, before, isShown) => {
    render(<FoldedNote rowsSince={rowsSince} zone="Europe/Berlin" first={before ?? from} isLeftOut={false} />)
    expect(screen.queryByText(/^Scans before 1 Nov 2025 are kept as sums only/) !== null).toBe(isShown)
  })
})
