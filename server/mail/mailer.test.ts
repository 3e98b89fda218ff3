import type { AddressInfo } from 'node:net'
import { createServer, type Server } from 'node:net'
import { SMTPServer, type SMTPServerOptions } from 'smtp-server'
import { afterEach, describe, expect, it } from 'vitest'
import type { MailServer } from '../config/index.ts'
import { createMailer, type Letter, type Mailer } from './mailer.ts'

const closing: (() => void)[] = []
afterEach(() => {
  for (const close of closing.splice(0)) close()
})

const LETTER: Letter = {
  to: { name: 'Łukasz “Boat” <x>', address: 'lukasz@mailbox.example' },
  fromName: 'Säälz, Line',
  subject: 'Grüße\r\nX-Evil: 1',
  text: 'text',
  html: '<p>html</p>',
}
function mailerFor(port: number, more: Partial<MailServer> = {}): Mailer {
  const mailer = createMailer({
    host: '127.0.0.1',
    port,
    tls: 'off',
    user: '',
    password: '',
    from: 'office@saltmarsh.example',
    bounce: 'bounces@saltmarsh.example',
    ...more,
  })
  closing.push(() => {
    mailer.close()
  })
  return mailer
}
/** A mail server of some manner, and what it was sent. */
async function server(options: SMTPServerOptions = {}) {
  const received: { sender: string; raw: string }[] = []
  const smtp = new SMTPServer({
    authOptional: true,
    hideSTARTTLS: true,
    ...options,
    onData(stream, { envelope: { mailFrom } }, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const sender = mailFrom === false ? '' : mailFrom.address
        received.push({ sender, raw: Buffer.concat(pieces).toString('utf8') })
        done(null, 'Taken')
      })
    },
  })
  smtp.on('error', () => undefined)
  await new Promise<void>((resolve) => {
    smtp.listen(0, '127.0.0.1', () => {
      resolve()
    })
  })
  closing.push(() => {
    smtp.close(() => undefined)
  })
  return { port: (smtp.server.address() as AddressInfo).port, received }
}
const plainServer = async (answer: (server: Server) => void): Promise<number> => {
  const plain = createServer()
  answer(plain)
  await new Promise<void>((resolve) => {
    plain.listen(0, '127.0.0.1', () => {
      resolve()
    })
  })
  closing.push(() => {
    plain.close()
  })
  return (plain.address() as AddressInfo).port
}

describe('a mailer', () => {
  it('keeps what is typed out of headers, names the bounce address to the server, and says the date it was asked', async () => {
    const { port, received } = await server()
    const at = Date.parse('2026-07-03T09:00:00Z')
    expect((await mailerFor(port).send(LETTER, 'k1', at)).kind).toBe('sent')
    const [{ sender = '', raw = '' } = {}] = received
    const head = raw.slice(0, raw.indexOf('\r\n\r\n'))
    expect(sender).toBe('bounces@saltmarsh.example')
    expect(head).not.toMatch(/^X-Evil/im)
    expect(head).toMatch(/^Message-ID: <k1@saltmarsh\.example>$/im)
    // RFC 5322, section 3.3.
    expect(head).toMatch(/^Date: Fri, 03 Jul 2026 09:00:00 \+0000$/im)
    // RFC 2047: whatever is no ASCII is encoded.
    expect(head).toMatch(/^[\t\r\n -~]*$/)
    expect(head).toMatch(/^Subject: =\?UTF-8\?/im)
  })

  it('signs in where it is told to, and says so without the password where that is wrong', async () => {
    const { port, received } = await server({
      authOptional: false,
      allowInsecureAuth: true,
      onAuth({ username, password }, _session, done) {
        if (username === 'flimbo' && password === 'right secret') done(null, { user: 1 })
        else done(new Error('535 no'))
      },
    })
    const good = mailerFor(port, { user: 'flimbo', password: 'right secret' })
    expect((await good.send(LETTER, 'k', 0)).kind).toBe('sent')
    const { kind, reply } = await mailerFor(port, { user: 'flimbo', password: 'wrong secret' }).send(
      LETTER,
      'k',
      0,
    )
    // It may be mended: the mail waits.
    expect([kind, reply]).toEqual(['failed', '127.0.0.1 does not take the user name and password.'])
    expect(received).toHaveLength(1)
  })

  it('sends nothing without encryption where that is wanted', async () => {
    const { port, received } = await server()
    const { kind, reply } = await mailerFor(port, { tls: 'starttls' }).send(LETTER, 'k', 0)
    expect([kind, received]).toEqual(['failed', []])
    expect(reply).not.toBe('')
  })

  it('tells what is refused for good from what may go later', async () => {
    const refusing = (responseCode: number) =>
      server({
        onRcptTo(_address, _session, done) {
          done(Object.assign(new Error('no'), { responseCode }))
        },
      })
    const outcome = async (code: number) =>
      (await mailerFor((await refusing(code)).port).send(LETTER, 'k', 0)).kind
    expect([await outcome(550), await outcome(553), await outcome(450), await outcome(421)]).toEqual([
      'refused',
      'refused',
      'failed',
      'failed',
    ])
  })

  it('says in a sentence that nobody answers, that something else does, or that the line is cut', async () => {
    const closed = await plainServer(() => undefined)
    closing.splice(0).forEach((close) => {
      close()
    })
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(await mailerFor(closed).send(LETTER, 'k', 0)).toMatchObject({
      kind: 'failed',
      reply: expect.stringMatching(/^127\.0\.0\.1 cannot be reached: /) as string,
    })
    const cut = await plainServer((plain) =>
      plain.on('connection', (socket) => {
        socket.destroy()
      }),
    )
    expect((await mailerFor(cut).send(LETTER, 'k', 0)).kind).toBe('failed')
    const web = await plainServer((plain) =>
      plain.on('connection', (socket) => {
        socket.on('error', () => undefined)
        socket.end('HTTP/1.1 400 Bad Request\r\n\r\n')
      }),
    )
    expect((await mailerFor(web).send(LETTER, 'k', 0)).kind).toBe('failed')
  })
})
