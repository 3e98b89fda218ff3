import { createTransport } from 'nodemailer'
import type { MailServer } from '../config/index.ts'

/** A mail as it is handed to the mail server. */
export interface Letter {
  readonly to: { readonly name: string; readonly address: string }
  /** Whom it comes from, by name; the address is always the mail server's own. */
  readonly fromName: string
  readonly replyTo?: string | undefined
  readonly subject: string
  readonly text: string
  readonly html: string
  /** Where its reader ends what it was sent for, where there is such a place. */
  readonly unsubscribe?: string | undefined
  readonly attachments?: readonly Attachment[]
}

/** A file that goes with a mail. */
export interface Attachment {
  readonly name: string
  readonly type: string
  readonly bytes: Buffer
}

/** What became of a mail: taken; refused for good; or not sent this time. With what the mail server said. */
export interface MailOutcome {
  readonly kind: 'sent' | 'refused' | 'failed'
  readonly reply: string
}

export interface Mailer {
  /** @param key the left side of its Message-ID */
  send(letter: Letter, key: string, at: number): Promise<MailOutcome>
  close(): void
}

const CONNECT_MS = 10_000
const SILENT_MS = 30_000
const AT_ONCE = 4
const REPLY_MAX = 300

interface SmtpFault {
  readonly code?: string
  readonly responseCode?: number
  readonly response?: string
  readonly message?: string
}

/** What went wrong, in one line: never with what we signed in by. */
function outcomeOf(error: SmtpFault, host: string): MailOutcome {
  const { code = '', responseCode = 0, response = '', message = '' } = error
  const said = response.replace(/\s+/g, ' ').slice(0, REPLY_MAX)
  // Only what is said of this mail is final (RFC 5321, section 4.2.1): a server that lets nobody in may do so later.
  if (responseCode >= 500 && (code === 'EENVELOPE' || code === 'EMESSAGE'))
    return { kind: 'refused', reply: said }
  if (code === 'EAUTH') return { kind: 'failed', reply: `${host} does not take the user name and password.` }
  if (said !== '') return { kind: 'failed', reply: said }
  const why = message.replace(/\s+/g, ' ').slice(0, REPLY_MAX)
  return { kind: 'failed', reply: `${host} cannot be reached: ${why}` }
}

/** RFC 8058 wants an address under https for one click. */
function unsubscribeHeaders(address: string | undefined): Record<string, string> {
  if (address === undefined) return {}
  return {
    'List-Unsubscribe': `<${address}>`,
    ...(address.startsWith('https:') ? { 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' } : {}),
  }
}

/** Hands mails to a mail server (SMTP, RFC 5321), over connections that are used again. */
export function createMailer(server: MailServer): Mailer {
  const { host, port, tls, user, password, from, bounce } = server
  const transport = createTransport({
    pool: true,
    maxConnections: AT_ONCE,
    host,
    port,
    secure: tls === 'tls',
    ignoreTLS: tls === 'off',
    requireTLS: tls === 'starttls',
    ...(user === '' ? {} : { auth: { user, pass: password } }),
    connectionTimeout: CONNECT_MS,
    greetingTimeout: CONNECT_MS,
    socketTimeout: SILENT_MS,
    // Nothing that somebody wrote may make this machine read a file or ask an address.
    disableFileAccess: true,
    disableUrlAccess: true,
  })
  const domain = from.slice(from.lastIndexOf('@') + 1)
  return {
    async send({ to, fromName, replyTo, subject, text, html, unsubscribe, attachments = [] }, key, at) {
      try {
        const { response } = await transport.sendMail({
          from: { name: fromName, address: from },
          to,
          envelope: { from: bounce, to: to.address },
          ...(replyTo === undefined || replyTo === '' ? {} : { replyTo }),
          subject,
          text,
          html,
          attachments: attachments.map(({ name, type, bytes }) => ({
            filename: name,
            contentType: type,
            content: bytes,
          })),
          date: new Date(at),
          messageId: `<${key}@${domain}>`,
          headers: {
            // RFC 3834: nobody's absence note answers it.
            'Auto-Submitted': 'auto-generated',
            ...unsubscribeHeaders(unsubscribe),
          },
        })
        return { kind: 'sent', reply: response.replace(/\s+/g, ' ').slice(0, REPLY_MAX) }
      } catch (error) {
        // Whatever is thrown by it looks like this, or has none of these.
        return outcomeOf(error as SmtpFault, host)
      }
    },
    close() {
      transport.close()
    },
  }
}
