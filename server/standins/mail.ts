import type { AddressInfo } from 'node:net'
import { simpleParser, type AddressObject } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import type { ReceivedMail, StandInManner } from '@flimbo/core/mail'

/** How many mails are remembered. */
const KEPT = 200
/** As large as mail servers commonly take; files that come with a mail are not kept. */
const BYTES_MAX = 25 << 20

/** What was received lately, the newest first, and what becomes of the next. */
export interface MailReceived {
  readonly rows: readonly ReceivedMail[]
  readonly manner: StandInManner
}

/** A stand-in for a mail server: it speaks SMTP (RFC 5321), delivers nothing, and keeps the latest mails. */
export interface MailStandIn {
  readonly port: number
  received(): MailReceived
  /** `refuse` says 550, `delay` says 451 to come again, `drop` keeps the mail and hangs up before it says so. */
  setManner(manner: StandInManner): void
  close(): Promise<void>
}

const textOf = (addresses: AddressObject | AddressObject[] | undefined) =>
  [addresses ?? []]
    .flat()
    .map(({ text }) => text)
    .join(', ')

/** A fault with the reply code that the other side is told (RFC 5321, section 4.2.3). */
const reply = (responseCode: number, message: string) => Object.assign(new Error(message), { responseCode })

/** Single addresses have their own fate, whatever the manner is: refuse@…, delay@…, drop@…. */
function fateOf(recipients: readonly string[], manner: StandInManner): StandInManner {
  const [local = ''] = recipients[0]?.split('@') ?? []
  return (['refuse', 'delay', 'drop'] as const).find((each) => each === local.toLowerCase()) ?? manner
}

async function read(raw: Buffer): Promise<Omit<ReceivedMail, 'number' | 'at' | 'sender' | 'recipients'>> {
  const mail = await simpleParser(raw)
  return {
    messageId: mail.messageId ?? '',
    from: textOf(mail.from),
    to: textOf(mail.to),
    replyTo: textOf(mail.replyTo),
    subject: mail.subject ?? '',
    text: mail.text ?? '',
    html: typeof mail.html === 'string' ? mail.html : '',
    attachments: mail.attachments.map(({ filename = '', contentType, size }) => ({
      name: filename,
      type: contentType,
      bytes: size,
    })),
    headers: mail.headerLines.map(({ key, line }): [string, string] => [key, line]),
  }
}

export async function mailStandIn(port: number, host: string): Promise<MailStandIn> {
  const mails: ReceivedMail[] = []
  let manner: StandInManner = 'take'
  let number = 0

  async function keep(raw: Buffer, sender: string, recipients: string[]): Promise<void> {
    const mail = await read(raw)
    mails.unshift({ ...mail, number: ++number, at: Date.now(), sender, recipients })
    mails.length = Math.min(mails.length, KEPT)
  }

  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    size: BYTES_MAX,
    onAuth(_auth, _session, done) {
      done(null, { user: 'stand-in' })
    },
    onData(stream, { envelope: { mailFrom, rcptTo } }, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => {
        pieces.push(piece)
      })
      stream.on('end', () => {
        const recipients = rcptTo.map(({ address }) => address)
        const fate = fateOf(recipients, manner)
        if (stream.sizeExceeded) done(reply(552, 'The mail is too large'))
        else if (fate === 'refuse') done(reply(550, 'No such mailbox here'))
        else if (fate === 'delay') done(reply(451, 'Try again later'))
        else
          keep(Buffer.concat(pieces), mailFrom === false ? '' : mailFrom.address, recipients).then(
            () => {
              // Who hangs up before the answer has taken the mail, and nobody knows.
              if (fate === 'drop') done(reply(421, 'Closing'))
              else done(null, 'Taken')
            },
            (error: unknown) => {
              done(error instanceof Error ? error : new Error(String(error)))
            },
          )
      })
    },
  })
  // Whoever hangs up in the middle ends that connection alone.
  server.on('error', () => undefined)
  await new Promise<void>((resolve, reject) => {
    server.server.once('error', reject)
    server.listen(port, host, () => {
      resolve()
    })
  })
  return {
    // It listens on a port: nothing else was asked for.
    port: (server.server.address() as AddressInfo).port,
    received: () => ({ rows: [...mails], manner }),
    setManner(next) {
      manner = next
    },
    close: () =>
      new Promise((resolve) => {
        server.close(() => {
          resolve()
        })
      }),
  }
}
