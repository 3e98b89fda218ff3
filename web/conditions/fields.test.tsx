import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Several } from './fields.tsx'

afterEach(cleanup)

const named: Record<string, string> = { DK: 'Denmark', LA: 'Laos', NL: 'Netherlands' }

/** The field as a screen shows it: a fresh list of the same values each time it is drawn. */
function field(chosen: string[], change = vi.fn()) {
  return (
    <Several
      label="Countries"
      values={[...chosen]}
      options={Object.keys(named)}
      nameOf={(code) => named[code] ?? code}
      change={change}
    />
  )
}
const input = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Countries' })
const type = (text: string) => {
  fireEvent.change(input(), { target: { value: text } })
}

describe('a field of several values', () => {
  it('keeps what is being typed when the screen is drawn anew, as it is when a draft was saved', () => {
    const change = vi.fn()
    const { rerender } = render(field(['DK'], change))
    input().focus()
    type('Nether')
    rerender(field(['DK'], change))
    expect(input().value).toBe('Nether')
    type(`${input().value}l`)
    fireEvent.keyDown(input(), { key: 'Enter' })
    expect(change).toHaveBeenCalledWith(['DK', 'NL'])
  })

  it('shows other values when they were changed elsewhere', () => {
    const { rerender } = render(field(['DK']))
    screen.getByText('Denmark')
    rerender(field(['LA']))
    screen.getByText('Laos')
    expect(screen.queryByText('Denmark')).toBeNull()
  })
})
