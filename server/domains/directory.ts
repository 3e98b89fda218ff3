import { hostOf } from '@flimbo/core/domains'
import type { Addresses } from '../line/index.ts'
import { tables, type DomainRow, type ReadOnly } from '../database/index.ts'

/** The front door's own address, which the configuration names. */
export const OWN_DOMAIN = 1

/** What the front door must know of the host a phone asked for. */
export type Doorway = Pick<DomainRow, 'id' | 'state' | 'home' | 'unknown' | 'unknownText'>

/** Every domain in memory, so that no scan waits for one to be looked up. */
export interface Domains {
  /** What answers a request's `Host`; the front door's own address where it is none of the domains. */
  of(host: string | undefined): Doorway
  /** Origin short links on a domain begin with. */
  origin(id: number): string
  /** The front door's own origin and those of all domains: no destination may lead there. */
  origins(): readonly string[]
  /** Origins that short links begin with, by the number of their domain. */
  originsById(): Readonly<Record<number, string>>
  /** Reads them anew after a change, before it is answered. */
  refresh(): Promise<void>
}

/** A domain is reached as the front door is: with its scheme and, where that is not the usual one, its port. */
function originOf(host: string, doorUrl: string): string {
  const { protocol, port } = new URL(doorUrl)
  return `${protocol}//${host}${port ? `:${port}` : ''}`
}

/** An address as the WHATWG URL Standard serialises it, so that it may stand in a header. */
const written = (address: string) => (address === '' ? '' : new URL(address).href)

/** The domains short links are on, read once and anew on `refresh`. */
export async function openDomains(
  { read }: Pick<ReadOnly, 'read'>,
  addresses: Pick<Addresses, 'door'>,
): Promise<Domains> {
  let byHost = new Map<string, Doorway>()
  let hosts = new Map<number, string>()
  let own: Doorway = { id: OWN_DOMAIN, state: 'ready', home: '', unknown: '', unknownText: '' }

  async function refresh(): Promise<void> {
    const rows = (await read.find(tables.domains)).map((row) => ({
      ...row,
      home: written(row.home),
      unknown: written(row.unknown),
    }))
    own = rows.find(({ id }) => id === OWN_DOMAIN) ?? own
    // Only what was proven answers, and what was and is removed, which says so; of a host that another workspace has
    // proven since, that one's.
    const answering = rows
      .filter(({ id, state }) => id !== OWN_DOMAIN && state !== 'waiting')
      .sort((a, b) => Number(a.state === 'ready') - Number(b.state === 'ready'))
    byHost = new Map(answering.map((row) => [row.host, row]))
    hosts = new Map(rows.flatMap(({ id, host }) => (id === OWN_DOMAIN ? [] : [[id, host] as const])))
  }
  await refresh()

  return {
    of(host) {
      if (host === undefined || byHost.size === 0) return own
      return byHost.get(host) ?? byHost.get(hostOf(host)) ?? own
    },
    origin(id) {
      const host = hosts.get(id)
      return host === undefined ? addresses.door : originOf(host, addresses.door)
    },
    originsById: () => ({
      [OWN_DOMAIN]: addresses.door,
      ...Object.fromEntries([...hosts].map(([id, host]) => [id, originOf(host, addresses.door)])),
    }),
    origins: () => [addresses.door, ...[...hosts.values()].map((host) => originOf(host, addresses.door))],
    refresh,
  }
}
