import type { MailServer } from '../config/index.ts'

/** The mail stand-in, as a mail server is configured; null while it is not there yet. */
export const standInMailServer = (host: string, port: number): MailServer | null =>
  port === 0
    ? null
    : {
        host,
        port,
        tls: 'off',
        user: '',
        password: '',
        from: 'office@saltmarsh.example',
        bounce: 'bounces@saltmarsh.example',
      }
