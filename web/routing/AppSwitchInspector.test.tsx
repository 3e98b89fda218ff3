import { NO_RULES } from '@flimbo/core/routing'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { AppSwitchInspector } from './AppSwitchInspector.tsx'
import type { Draft, DraftState } from './useDraft.ts'

afterEach(cleanup)

/** A draft that keeps what is made of it. */
function open(first: Draft = { destination: 'https://saltmarsh.example/', rules: NO_RULES }) {
  const now = { draft: first }
  const close = vi.fn()
  const edit = (change: (draft: Draft) => Draft) => {
    now.draft = change(now.draft)
  }
  // The screen reads no more of the state than this.
  render(<AppSwitchInspector state={{ draft: first, edit } as DraftState} close={close} />)
  return { now, close }
}
const type = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
}
const save = () => {
  fireEvent.click(screen.getByRole('button', { name: 'Make lanes' }))
}

describe('the app switch', () => {
  it('makes a lane of each address, as it is kept elsewhere', () => {
    const { now, close } = open()
    type('iPhone and iPad (iOS)', 'apps.example/one')
    type('Android', ' https://apps.example/two ')
    save()
    expect(now.draft.rules.lanes.map(({ outcome }) => outcome)).toEqual([
      { kind: 'address', address: 'https://apps.example/one' },
      { kind: 'address', address: 'https://apps.example/two' },
    ])
    expect(close).toHaveBeenCalled()
  })

  it('changes nothing while an address is wrong, and says which', () => {
    const { now, close } = open()
    type('Android', 'nowhere')
    save()
    expect(screen.getByLabelText('Android').getAttribute('aria-invalid')).toBe('true')
    type('Android', '')
    type('All others', '')
    save()
    screen.getByText('Give the address this leads to.')
    expect([now.draft.rules.lanes, close.mock.calls]).toEqual([[], []])
  })
})
