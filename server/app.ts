import { createServer, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Logger } from 'pino'
import type { Config } from './config/index.ts'
import { checkNightly, destinationChecker } from './checks/index.ts'
import { openDatabase } from './database/index.ts'
import { openDomains, recordFinder } from './domains/index.ts'
import { attempts, frontDoor, passes, seals, rehearsals as makeRehearsals } from './door/index.ts'
import { office } from './office/index.ts'
import { sheetReader } from './plan/index.ts'
import type { Reach } from './reach/index.ts'
import { startReader } from './results/index.ts'
import { limits as makeLimits, lookup as makeLookup } from './routing/index.ts'
import { announceScans, countLetThrough, dailySalts, enricher, liveHub, openPlaces, seenToday, startScanWriter } from './scans/index.ts'
import { collector as makeCollector, destinationSite, dnsStandIn, isStandInHost } from './standins/index.ts'
import { tagging as makeTagging } from './tagging/index.ts'
import { startHitSender, tagsOf } from './visitTags/index.ts'

/** A running Flimbo. */
export interface Flimbo {
  /** Ports as they were really opened: another than configured where that was 0. */
  readonly ports: { readonly office: number; readonly door: number; readonly standIn: number }
  /** Finishes open requests, writes queued scans, and closes the database. */
  close(): Promise<void>
}

function listen(server: Server, port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => {
      server.off('error', reject)
      resolve((server.address() as AddressInfo).port)
    })
  })
}

const GRACE_MS = 8000

/** Stops taking requests, lets open ones finish, and cuts what has not ended after eight seconds. */
function shut(server: Server, { atOnce = false } = {}): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => { resolve() })
    server.closeIdleConnections()
    // A busy connection would go on for ever: its next answer is its last.
    server.prependListener('request', (_request, response: ServerResponse) => { response.shouldKeepAlive = false })
    if (atOnce) server.closeAllConnections()
    else setTimeout(() => { server.closeAllConnections() }, GRACE_MS).unref()
  })
}

/** Where this machine itself finds what listens on `bind`. */
const loopback = (bind: string) => (bind === '0.0.0.0' || bind === '::' ? '127.0.0.1' : bind)

/** Starts both listeners, and the stand-ins where they are configured, on one database. */
export async function startFlimbo(config: Config, log: Logger, webDirectory: string): Promise<Flimbo> {
  const database = await openDatabase(config.databaseFile)
  const findPlace = await openPlaces()
  const writer = startScanWriter(config.databaseFile)
  const reader = startReader(config.databaseFile)
  // Looking a large plan over takes seconds; figures do not wait for it.
  const reviewer = startReader(config.databaseFile)
  const live = liveHub()
  const sheets = sheetReader()
  const limits = makeLimits({ count: countLetThrough(database.prepared), settled: () => writer.settled() })
  const tags = (workspaceId: number) => tagsOf(database.read, workspaceId)
  const lookup = makeLookup(database, limits, tags)
  const domains = await openDomains(database, config)
  const tagging = makeTagging(database, reader, live)
  const rehearsals = makeRehearsals()
  const salts = dailySalts(database, writer, (error) => { log.error({ error }, 'yesterday’s salt could not be destroyed yet') })
  announceScans(writer, live)
  const ports = { office: 0, door: 0, standIn: 0 }
  const dns = config.standIns ? await dnsStandIn(config.dnsStandInPort, loopback(config.bind)) : null
  const findRecords = recordFinder(config.dns ?? (dns ? `${loopback(config.bind)}:${String(dns.port)}` : null))
  const reach: Reach = { privateToo: config.checkPrivate, standIn: ({ hostname }) => (config.standIns && isStandInHost(hostname) ? { host: loopback(config.bind), port: ports.standIn } : null) }
  const checker = destinationChecker({ database, live, reach })
  const sender = startHitSender({ database, reach })
  const collector = config.standIns ? makeCollector() : null
  const stopNightly = checkNightly(database, checker, config.checkHour)

  const door = frontDoor({ config, domains, lookup, enrich: enricher(findPlace), salts, seen: seenToday(database.prepared), writer, rehearsals, passes: passes(), attempts: attempts(), seals: seals(), log })
  const application = office({ config, database, reader, lookup, limits, live, domains, tagging, reviewer, checker, findRecords, standInRecords: dns, sheets, tagsOf: tags, sender, collector, rehearsals, ports: () => ports, log, webDirectory })
  const officeServer = createServer(application)
  const standIn = collector && destinationSite(collector)

  ports.door = await listen(door, config.doorPort, config.bind)
  ports.office = await listen(officeServer, config.officePort, config.bind)
  if (standIn) ports.standIn = await listen(standIn, config.standInPort, config.bind)

  return {
    ports,
    async close() {
      stopNightly()
      await sender.stop()
      live.close()
      await Promise.all([shut(door), shut(officeServer), ...(standIn ? [shut(standIn, { atOnce: true })] : [])])
      await dns?.close()
      await sheets.close()
      await writer.close()
      await reader.close()
      await reviewer.close()
      await database.close()
    },
  }
}
