import { Resolver } from 'node:dns/promises'
import type { FoundRecords, WantedRecords } from '@flimbo/core/domains'

/** Codes by which a name server says that there is no such record, rather than nothing at all. */
const NONE = new Set(['ENOTFOUND', 'ENODATA', 'NXDOMAIN'])

async function values(asked: Promise<string[]>): Promise<string[] | null> {
  try {
    return await asked
  } catch (error) {
    return NONE.has(String((error as { code?: unknown }).code)) ? [] : null
  }
}

export type FindRecords = (wanted: WantedRecords) => Promise<FoundRecords>

/** Looks records up in the DNS: by the machine's own name servers, or by one the configuration names. */
export function recordFinder(serverNow: () => string | null): FindRecords {
  return async (wanted) => {
    const resolver = new Resolver({ timeout: 2000, tries: 2 })
    const server = serverNow()
    if (server !== null) resolver.setServers([server])
    const [cname, txt] = await Promise.all([
      values(resolver.resolveCname(wanted.cname.name)),
      values(resolver.resolveTxt(wanted.txt.name).then((records) => records.map((parts) => parts.join('')))),
    ])
    return { cname, txt }
  }
}
