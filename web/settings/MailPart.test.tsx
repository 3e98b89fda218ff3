import type { Mail, MailSetup, ReceivedMail } from '@flimbo/core/mail'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, startOffice } from '../tests/office.tsx'
import { MailPart } from './MailPart.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const SERVER = {
  host: 'mail.example',
  port: 587,
  from: 'a@a.example',
  bounce: 'b@a.example',
  isStandIn: false,
}
const mail = (id: number, more: Partial<Mail>): Mail => ({
  id,
  kind: 'answer',
  state: 'sent',
  at: Date.now(),
  address: 'ada@mailbox.example',
  subject: `Mail ${String(id)}`,
  attempts: 0,
  nextAt: null,
  settledAt: null,
  reply: '',
  campaignId: 1,
  leadId: 5,
  ...more,
})
const RECEIVED: ReceivedMail = {
  number: 1,
  at: Date.now(),
  sender: 'b@a.example',
  recipients: ['ada@mailbox.example'],
  messageId: '<x@a.example>',
  from: 'A',
  to: 'Ada',
  replyTo: '',
  subject: 'Received',
  text: 'The text',
  html: '<p>The HTML</p>',
  attachments: [{ name: 'report.pdf', type: 'application/pdf', bytes: 2048 }],
  headers: [['subject', 'Subject: Received']],
}

function show(server: MailSetup['server'], rows: Mail[] = []) {
  const office = startOffice(({ path }) => {
    if (path === '/mail')
      return { server, counts: { waiting: 1, sent: 0, refused: 1, 'given-up': 0, unconfirmed: 0 } }
    if (path.startsWith('/mail/received')) return { rows: [RECEIVED], manner: 'take' }
    return path.startsWith('/mails?') ? { rows, total: rows.length, page: 0, pageSize: 50 } : { id: 1 }
  })
  const session = { workspace: { zone: 'UTC' } } as SignedIn
  render(
    <MemoryRouter>
      <SessionContext value={session}>
        <MailPart />
      </SessionContext>
    </MemoryRouter>,
    { wrapper: around },
  )
  return office
}

describe('mail', () => {
  it('that is not set up says what to do, and sends nobody a test', async () => {
    show(null)
    await screen.findByText(/sets FLIMBO_SMTP_HOST/)
    expect(screen.queryByRole('button', { name: 'Send me a test mail' })).toBeNull()
    await screen.findByText(/No mail yet/)
  })

  it('says what became of each, and why; what was not sent is tried again or deleted', async () => {
    const { writes } = show(SERVER, [
      mail(1, {}),
      mail(2, { state: 'refused', reply: '550 No such mailbox' }),
      mail(3, { state: 'waiting', attempts: 2, reply: '451 Later' }),
      mail(4, { state: 'unconfirmed' }),
    ])
    const table = await screen.findByRole('table', { name: 'Mails' })
    within(table).getByText('Refused: 550 No such mailbox')
    within(table).getByText('Waiting, after 2 tries: 451 Later')
    expect(within(table).getAllByRole('button', { name: 'Delete' })).toHaveLength(3)
    fireEvent.click(within(table).getAllByRole('button', { name: 'Try again' })[0] as HTMLElement)
    await waitFor(() => {
      expect(writes()).toMatchObject([{ method: 'POST', path: '/mails/2/attempts' }])
    })
    fireEvent.click(screen.getByRole('button', { name: 'Send me a test mail' }))
    await screen.findByText('A test mail is on its way to you.')
  })

  it('shows what the stand-in received as it came, and what it does with the next', async () => {
    const { writes } = show({ ...SERVER, isStandIn: true })
    const shown = await screen.findByRole('group', { name: 'Mail' })
    within(shown).getByText('The text')
    fireEvent.click(within(shown).getByRole('button', { name: 'HTML' }))
    within(shown).getByText('<p>The HTML</p>')
    fireEvent.mouseDown(screen.getByRole('combobox', { name: 'It treats mails so' }))
    fireEvent.click(screen.getByRole('option', { name: 'Refuses them (550)' }))
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ manner: 'refuse' })
    })
  })
})
