import type { Server } from 'node:http'
import type { StandInManner } from '@flimbo/core/mail'
import type { ReceivedHit } from '@flimbo/core/visitTags'
import type { StandInQuestion } from '../line/index.ts'
import { collector } from './collector.ts'
import { destinationSite } from './destination-site.ts'
import { dnsStandIn } from './dns.ts'
import { mailStandIn, type MailReceived } from './mail.ts'

/** The stand-ins as the office reaches them. They may be away: what is asked then is refused in a sentence. */
export interface StandIns {
  /** The collector's latest hits, the newest first. */
  received(): Promise<ReceivedHit[]>
  /** Sets records of the DNS stand-in, as somebody would at their provider. */
  setRecords(records: Omit<Extract<StandInQuestion, { ask: 'records' }>, 'ask'>): Promise<void>
  /** The mail stand-in's latest mails, the newest first. */
  mails(): Promise<MailReceived>
  /** Says what becomes of the next mails. */
  setManner(manner: StandInManner): Promise<void>
}

/** The stand-ins' own side. */
export interface OpenStandIns {
  readonly server: Server
  readonly dnsPort: number
  readonly smtpPort: number
  answer(question: StandInQuestion): ReceivedHit[] | MailReceived | null
  close(): Promise<void>
}

/** Opens the destination site, the collector, the name server and the mail server of the sample company. */
export async function openStandIns(
  ports: { readonly dns: number; readonly smtp: number },
  host: string,
  script: () => string,
): Promise<OpenStandIns> {
  const collecting = collector()
  const dns = await dnsStandIn(ports.dns, host)
  const mail = await mailStandIn(ports.smtp, host)
  return {
    server: destinationSite(collecting, script),
    dnsPort: dns.port,
    smtpPort: mail.port,
    answer(question) {
      if (question.ask === 'received') return collecting.received()
      if (question.ask === 'mails') return mail.received()
      if (question.ask === 'manner') mail.setManner(question.manner)
      else dns.set(question)
      return null
    },
    async close() {
      await dns.close()
      await mail.close()
    },
  }
}

/** The stand-ins by way of whatever carries questions to them. */
export function standInsBy(ask: (question: StandInQuestion) => Promise<unknown>): StandIns {
  return {
    // `answer` above gives this for this question.
    received: async () => (await ask({ ask: 'received' })) as ReceivedHit[],
    async setRecords(records) {
      await ask({ ask: 'records', ...records })
    },
    mails: async () => (await ask({ ask: 'mails' })) as MailReceived,
    async setManner(manner) {
      await ask({ ask: 'manner', manner })
    },
  }
}
