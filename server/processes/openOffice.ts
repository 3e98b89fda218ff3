import { join } from 'node:path'
import { createServer, type Server } from 'node:http'
import type { Logger } from 'pino'
import { bodyReader } from '../api/index.ts'
import { checkNightly, destinationChecker } from '../checks/index.ts'
import type { Config } from '../config/index.ts'
import { openDatabase, tables } from '../database/index.ts'
import { openDomains, recordFinder } from '../domains/index.ts'
import { rehearsals as makeRehearsals } from '../door/index.ts'
import { fileLibrary } from '../files/index.ts'
import { createJobs, exporter, startOutbox } from '../jobs/index.ts'
import { siteKeys } from '../goals/index.ts'
import { answerFiles, confirmLinks, leadLetters, startLeadUpkeep } from '../leads/index.ts'
import { addressesOf, type DoorNews, type Doors, type Ports } from '../line/index.ts'
import { currentMailer, mailDelivery, testLetter } from '../mail/index.ts'
import { office } from '../office/index.ts'
import { sheetReader } from '../plan/index.ts'
import { printThreads } from '../print/index.ts'
import type { Reach } from '../reach/index.ts'
import { startReader } from '../reader/index.ts'
import {
  mailingEnds,
  mailingWork,
  reportDrawing as makeReportDrawing,
  reportLetters,
  reportLinks,
  reportMaker,
  startMailingReports,
} from '../reports/index.ts'
import { figuresAsker } from '../results/index.ts'
import { foldingJob, liveHub, packingJob, showPacking, startPacking } from '../scans/index.ts'
import { keyFor } from '../signing/index.ts'
import { isStandInHost, standInMailServer, type StandIns } from '../standins/index.ts'
import { tagging as makeTagging } from '../tagging/index.ts'
import { hitDelivery, tagsOf } from '../visitTags/index.ts'
import { startLookingForUnusual } from '../unusual/index.ts'
import { startWatching, unsubscribeLinks, watchLetters } from '../watches/index.ts'
import { loopback, closeServer } from './listening.ts'
import { storedSecret } from './storedSecret.ts'

interface Parts {
  readonly config: Config
  readonly log: Logger
  readonly secret: string
  readonly webDirectory: string
  readonly doors: Doors
  /** The stand-ins, where they run. */
  readonly standIns: StandIns | null
  /** Ports as they were really opened, by now. */
  readonly ports: () => Ports
}

/** The office, ready to listen. */
export interface OpenOffice {
  readonly server: Server
  /** Takes in what the front doors tell. */
  hear(news: DoorNews): void
  close(): Promise<void>
}

const REVIEWED_BYTES = 64 << 20

/** Opens all that the office needs, making the database where it is missing. */
export async function openOffice({
  config,
  log,
  secret,
  webDirectory,
  doors,
  standIns,
  ports,
}: Parts): Promise<OpenOffice> {
  const addresses = addressesOf(config, ports)
  const database = await openDatabase(config.databaseFile)
  const reader = startReader(config.databaseFile)
  // Looking a large plan over takes seconds; figures do not wait for it.
  // What is reviewed concerns the latest scans.
  const reviewer = startReader(config.databaseFile, { columnsBytes: REVIEWED_BYTES })
  const live = liveHub()
  const sheets = sheetReader()
  const bodies = bodyReader()
  const domains = await openDomains(database, addresses)
  const tagging = makeTagging(database, reader, live)
  const askFigures = figuresAsker({ read: database.read, reader, tagging })
  const { bind } = config
  const findRecords = recordFinder(
    () => config.dns ?? (standIns ? `${loopback(bind)}:${String(ports().dns)}` : null),
  )
  const reach: Reach = {
    privateToo: config.checkPrivate,
    standIn: ({ hostname }) =>
      standIns && isStandInHost(hostname) ? { host: loopback(bind), port: ports().standIn } : null,
  }
  const jobs = createJobs({ database, live, log, directory: join(config.dataDir, 'jobs') })
  const packing = startPacking(database.file, (error) => {
    log.error({ error }, 'scans could not be packed')
  })
  jobs.define(packingJob(packing))
  jobs.define(foldingJob(database, live, packing))
  const files = fileLibrary({
    database,
    directory: join(config.dataDir, 'files'),
    quotaBytes: config.filesQuotaBytes,
  })
  const threads = printThreads()
  const checker = destinationChecker({ database, live, reach, jobs })
  const mailServer = () => config.mail ?? (standIns ? standInMailServer(loopback(bind), ports().smtp) : null)
  const mailer = currentMailer(mailServer)
  const ownSecret = storedSecret(config.dataDir)
  const letters = leadLetters({
    database,
    addresses,
    links: confirmLinks(keyFor('confirm', ownSecret)),
  })
  const links = unsubscribeLinks(keyFor('unsubscribe', ownSecret))
  const ends = mailingEnds(keyFor('report-mails', ownSecret))
  const makeReport = reportMaker({ read: database.read, reader, askFigures })
  const reportDrawing = makeReportDrawing({ read: database.read, files })
  const reportsDirectory = join(config.dataDir, 'reports')
  const mailingParts = { database, jobs, live, makeReport, reportDrawing, directory: reportsDirectory }
  jobs.define(mailingWork(mailingParts))
  const outbox = startOutbox(database, [
    hitDelivery(database, reach),
    mailDelivery({
      database,
      live,
      mailer: () => mailer.get(),
      writers: {
        ...letters,
        ...watchLetters({ database, reader, addresses, links }),
        ...reportLetters({ database, addresses, ends, directory: reportsDirectory }),
        test: testLetter(database, () => addresses.office),
      },
    }),
  ])
  const stopNightly = checkNightly(database, checker, config.checkHour)
  // Some of what was taken back may have been scanned meanwhile.
  database.onTakenBack(() => {
    doors.forget({ what: 'all' }).catch((error: unknown) => {
      log.error({ error }, 'the front doors could not be told')
    })
  })

  const server = createServer(
    office({
      config,
      addresses,
      database,
      reader,
      reviewer,
      doors,
      live,
      domains,
      tagging,
      askFigures,
      checker,
      findRecords,
      sheets,
      bodies,
      outbox,
      mailServer,
      mailEnds: [links.endOf, ends.endOf],
      makeReport,
      reportDrawing,
      reportLinks: reportLinks(keyFor('reports', ownSecret)),
      siteKeys: siteKeys(keyFor('site', ownSecret)),
      jobs,
      files,
      exporter: exporter(jobs),
      printThreads: threads,
      standIns,
      ports,
      log,
      webDirectory,
      tagsOf: (workspaceId) => tagsOf(database.read, workspaceId),
      rehearsals: makeRehearsals(secret),
    }),
  )
  await files.tidy()
  const leadUpkeep = startLeadUpkeep({
    database,
    reader,
    files: answerFiles(config.dataDir),
    failed(error) {
      log.error({ error }, 'leads that are not kept any longer could not be removed; it is tried again')
    },
  })
  const watching = startWatching({ database, reader, live }, (error) => {
    log.error({ error }, 'what is watched could not be looked at; it is tried again')
  })
  const mailing = startMailingReports(mailingParts, (error) => {
    log.error({ error }, 'reports that are due could not be mailed; it is tried again')
  })
  const unusual = startLookingForUnusual({ database, reviewer, live }, (error) => {
    log.error({ error }, 'it could not be looked for what is unusual; it is tried again')
  })
  // Everything that jobs can be is known by now.
  await jobs.start()
  showPacking(packing, jobs, async () =>
    (await database.read.find(tables.workspaces, { select: { id: true } })).map(({ id }) => id),
  ).catch((error: unknown) => {
    log.error({ error }, 'the progress of packing could not be shown')
  })
  return {
    server,
    hear({ scans, leads = [] }) {
      for (const { workspaceId, campaignId } of leads) live.tell(workspaceId, { type: 'leads', campaignId })
      for (const { workspaceId, scans: lines } of scans)
        live.tell(workspaceId, { type: 'scans', scans: lines })
    },
    async close() {
      stopNightly()
      await leadUpkeep.stop()
      await watching.stop()
      await mailing.stop()
      await unusual.stop()
      await outbox.stop()
      mailer.close()
      await jobs.stop()
      await files.stop()
      live.close()
      await closeServer(server)
      await threads.close()
      await reportDrawing.close()
      await sheets.close()
      await bodies.close()
      await packing.close()
      await reader.close()
      await reviewer.close()
      await database.close()
    },
  }
}
