import type { MailServer } from '../config/index.ts'
import { createMailer, type Mailer } from './mailer.ts'

/** What hands mails to a mail server, opened when the first is to be sent, and anew where the server is another by then. */
export function currentMailer(server: () => MailServer | null) {
  let open: { mailer: Mailer; key: string } | null = null
  return {
    get(): Mailer | null {
      const now = server()
      const key = JSON.stringify(now)
      if (open && open.key !== key) {
        open.mailer.close()
        open = null
      }
      if (now) open ??= { mailer: createMailer(now), key }
      return open?.mailer ?? null
    },
    close() {
      open?.mailer.close()
    },
  }
}
