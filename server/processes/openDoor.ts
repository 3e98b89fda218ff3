import type { Server } from 'node:http'
import { join } from 'node:path'
import type { Logger } from 'pino'
import type { Config } from '../config/index.ts'
import { openReadOnly } from '../database/index.ts'
import { openDomains } from '../domains/index.ts'
import {
  createAttempts,
  frontDoor,
  applyForget,
  createPasses,
  pageVisits,
  rehearsals,
  seals,
  formKeys,
  formPace,
} from '../door/index.ts'
import { addressesOf, type DoorNews, type Forget, type Ports } from '../line/index.ts'
import { createSparingLog } from '../log/index.ts'
import { limits as makeLimits, lookup as makeLookup } from '../routing/index.ts'
import {
  announceScans,
  dailySalts,
  enricher,
  openPlaces,
  seenToday,
  startScanWriter,
  startUpkeep,
  storedLimits,
} from '../scans/index.ts'
import { goalShelf, references, siteKeys } from '../goals/index.ts'
import { answerFiles, confirmLinks, storedAnswers } from '../leads/index.ts'
import { pageShelf, passMaker } from '../pages/index.ts'
import { tagsOf } from '../visitTags/index.ts'
import { keyFor } from '../signing/index.ts'
import { storedSecret } from './storedSecret.ts'
import { closeServer } from './listening.ts'

interface Parts {
  readonly config: Config
  readonly log: Logger
  /** Shared by all front doors and the office, known to nobody else. */
  readonly secret: string
  /** Ports as they were really opened, by now. */
  readonly ports: () => Ports
  readonly tell: (news: DoorNews) => void
}

/** A front door that is ready to listen. */
export interface OpenDoor {
  readonly server: Server
  /** Resolves once the next scan sees what is stored now. */
  forget(what: Forget): Promise<void>
  /** Finishes open requests and writes queued scans. */
  close(): Promise<void>
}

/** Opens all that a front door needs, on a database that is there. */
export async function openDoor({ config, log, secret, ports, tell }: Parts): Promise<OpenDoor> {
  const reading = await openReadOnly(config.databaseFile)
  const findPlace = await openPlaces()
  const writer = startScanWriter(config.databaseFile)
  const complain = createSparingLog(log)
  const upkeep = startUpkeep(config.databaseFile, (message) => {
    complain(message, 'the database’s upkeep could not do its work; it tries again')
  })
  const limits = makeLimits(storedLimits(reading.prepared))
  const lookup = makeLookup(reading, limits, (workspaceId) => tagsOf(reading.read, workspaceId))
  const addresses = addressesOf(config, ports)
  const domains = await openDomains(reading, addresses)
  writer.onCounted((routeId, count) => {
    limits.learn(routeId, count)
  })
  announceScans(writer, (scans) => {
    tell({ scans })
  })

  const shelf = pageShelf(reading)
  const goals = goalShelf(reading)
  const files = join(config.dataDir, 'files')
  const walletPasses = passMaker()
  const doorSecret = storedSecret(config.dataDir)
  const server = frontDoor({
    shelf,
    walletPasses,
    visits: pageVisits(keyFor('visit', doorSecret)),
    formKeys: formKeys(keyFor('form', doorSecret)),
    formPace: formPace(),
    tellLead({ workspaceId, campaignId }) {
      tell({ scans: [], leads: [{ workspaceId, campaignId }] })
    },
    siteKeys: siteKeys(keyFor('site', doorSecret)),
    references: references(keyFor('reference', doorSecret)),
    goalShelf: goals,
    doorOrigin: () => addresses.door,
    confirmLinks: confirmLinks(keyFor('confirm', doorSecret)),
    answerFiles: answerFiles(config.dataDir),
    ...storedAnswers(reading.prepared),
    placeOf: (sum, suffix = '') => join(files, sum.slice(0, 2), `${sum}${suffix}`),
    originOf: (id) => domains.origin(id),
    config,
    domains,
    lookup,
    writer,
    enrich: enricher(findPlace),
    salts: dailySalts(reading, writer),
    seen: seenToday(reading.prepared),
    rehearsals: rehearsals(secret),
    passes: createPasses(keyFor('pass', secret)),
    seals: seals(keyFor('seal', secret)),
    attempts: createAttempts(),
    complain,
  })
  return {
    server,
    forget: (what) => applyForget({ lookup, domains, shelf, goalShelf: goals }, what),
    async close() {
      await closeServer(server)
      await writer.close()
      await walletPasses.close()
      await upkeep.close()
      await reading.close()
    },
  }
}
