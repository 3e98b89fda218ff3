import type { WalletState } from '@flimbo/core/pages'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, startOffice } from '../tests/office.tsx'
import { WalletPart } from './WalletPart.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const STORED: WalletState['stored'] = {
  passType: 'pass.example.crew',
  teamId: 'ABCDE12345',
  organisation: 'Saltmarsh Line',
  expiresAt: Date.parse('2027-03-01T12:00Z'),
}
function show(stored: WalletState['stored']) {
  const office = startOffice(({ method }) => ({ version: method === 'GET' ? 4 : 5, stored }))
  // The part reads no more of a session than this.
  const session = { workspace: { zone: 'Europe/Berlin' } } as SignedIn
  render(
    <SessionContext value={session}>
      <WalletPart />
    </SessionContext>,
    { wrapper: around },
  )
  return office
}
const type = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
}
const press = (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }))
}
const pem = (kind: string) => `-----BEGIN ${kind}-----\nAAAA\n-----END ${kind}-----`

describe('the certificate of wallet passes', () => {
  it('is stored once all of it is there, and what is missing is said at its field', async () => {
    const { writes } = show(null)
    await screen.findByText(/pages offer no wallet pass/)
    press('Store certificate')
    await screen.findByText(/Write the identifier of the pass type/)
    expect(writes()).toEqual([])
    type('Organisation', 'Saltmarsh Line')
    type('Identifier of the pass type', 'pass.example.crew')
    type('Identifier of the team', 'ABCDE12345')
    type('Certificate (PEM)', pem('CERTIFICATE'))
    type('Private key (PEM)', pem('PRIVATE KEY'))
    type('Certificate of the authority (PEM)', pem('CERTIFICATE'))
    press('Store certificate')
    await waitFor(() => {
      expect(writes()[0]?.body).toMatchObject({
        version: 4,
        value: { teamId: 'ABCDE12345', keyPassword: '' },
      })
    })
    // The key stands on the screen no longer than it must.
    await waitFor(() => {
      expect(screen.getByLabelText<HTMLInputElement>('Private key (PEM)').value).toBe('')
    })
  })

  it('says how long it is good for, and is removed in one step', async () => {
    const { writes } = show(STORED)
    await screen.findByText(/good until 1 Mar 2027/)
    press('Remove certificate')
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ version: 4, value: null })
    })
  })
})
