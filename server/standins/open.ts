import type { Server } from 'node:http'
import type { ReceivedHit } from '@flimbo/core/visitTags'
import type { StandInQuestion } from '../line/index.ts'
import { collector } from './collector.ts'
import { destinationSite } from './destination-site.ts'
import { dnsStandIn } from './dns.ts'

/** The stand-ins as the office reaches them. They may be away: what is asked then is refused in a sentence. */
export interface StandIns {
  /** The collector's latest hits, the newest first. */
  received(): Promise<ReceivedHit[]>
  /** Sets records of the DNS stand-in, as somebody would at their provider. */
  setRecords(records: Omit<Extract<StandInQuestion, { ask: 'records' }>, 'ask'>): Promise<void>
}

/** The stand-ins' own side. */
export interface OpenStandIns {
  readonly server: Server
  readonly dnsPort: number
  answer(question: StandInQuestion): ReceivedHit[] | null
  close(): Promise<void>
}

/** Opens the destination site, the collector and the name server of the sample company. */
export async function openStandIns(dnsPort: number, host: string): Promise<OpenStandIns> {
  const collecting = collector()
  const dns = await dnsStandIn(dnsPort, host)
  return {
    server: destinationSite(collecting),
    dnsPort: dns.port,
    answer(question) {
      if (question.ask === 'received') return collecting.received()
      dns.set(question)
      return null
    },
    close: () => dns.close(),
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
  }
}
