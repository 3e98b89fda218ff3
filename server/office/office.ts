import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import compression from 'compression'
import express, { type Express } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { openApiDocument } from '@flimbo/core/api'
import { failures, notFound, ownOriginOnly, type Bodies, type Mounts } from '../api/index.ts'
import { findReached } from '../access/index.ts'
import { campaignsEndpoints } from '../campaigns/index.ts'
import { checksEndpoints, type DestinationChecker } from '../checks/index.ts'
import { codesEndpoints, codeSelection, codeViewer, teamEndpoints } from '../codes/index.ts'
import type { Config, MailServer } from '../config/index.ts'
import type { Database } from '../database/index.ts'
import { domainsEndpoints, type Domains, type FindRecords } from '../domains/index.ts'
import { createAttempts, type Rehearsals } from '../door/index.ts'
import { filesEndpoints, type FileLibrary } from '../files/index.ts'
import { houseStylesEndpoints } from '../houseStyles/index.ts'
import { jobsEndpoints, jobViewer, type Exporter, type Jobs, type Outbox } from '../jobs/index.ts'
import type { Addresses, Doors, Ports } from '../line/index.ts'
import { pageResultsEndpoints, pagesEndpoints, pageStylesEndpoints, walletEndpoints } from '../pages/index.ts'
import { phoneEndpoints } from '../phone/index.ts'
import { planEndpoints, type SheetReader } from '../plan/index.ts'
import { type Reader } from '../reader/index.ts'
import { printEndpoints, type PrintThreads } from '../print/index.ts'
import {
  reportLinkEndpoints,
  reportMailingEndpoints,
  reportsEndpoints,
  SHARED_REPORT_PATH,
  sharedReports,
  type MakeReport,
  type ReportDrawing,
  type ReportLinks,
} from '../reports/index.ts'
import { keptEndpoints, resultsEndpoints, type AskFigures } from '../results/index.ts'
import { routesEndpoints, type TagsOf } from '../routing/index.ts'
import { goalsEndpoints, type SiteKeys } from '../goals/index.ts'
import { leadsEndpoints } from '../leads/index.ts'
import { endingMails, mailEndpoints, UNSUBSCRIBE_PATH, type FindEnd } from '../mail/index.ts'
import { retentionEndpoints, rowFiles, scansEndpoints, type LiveHub } from '../scans/index.ts'
import type { StandIns } from '../standins/index.ts'
import { staticCodesEndpoints } from '../staticCodes/index.ts'
import { taggingEndpoints, type Tagging } from '../tagging/index.ts'
import { visitTagsEndpoints } from '../visitTags/index.ts'
import { unusualEndpoints } from '../unusual/index.ts'
import { watchesEndpoints } from '../watches/index.ts'
import { findEndpoint, sessions as makeSessions, workspaceEndpoints } from '../workspace/index.ts'
import { application } from './static.ts'

/** Answers in JSON are compressed from this size on; files and streams go as they are. */
const COMPRESSED_BYTES = 1024

export interface OfficeParts {
  readonly config: Config
  readonly addresses: Addresses
  readonly database: Database
  readonly reader: Reader
  /** Another reading thread, for what takes long. */
  readonly reviewer: Reader
  readonly doors: Doors
  readonly live: LiveHub
  readonly domains: Domains
  readonly tagging: Tagging
  readonly askFigures: AskFigures
  readonly checker: DestinationChecker
  readonly findRecords: FindRecords
  readonly sheets: SheetReader
  readonly tagsOf: TagsOf
  readonly outbox: Outbox
  /** The mail server that is used by now; null while there is none. */
  readonly mailServer: () => MailServer | null
  /** What links in mails end. */
  readonly mailEnds: readonly FindEnd[]
  readonly makeReport: MakeReport
  readonly reportDrawing: ReportDrawing
  readonly reportLinks: ReportLinks
  readonly siteKeys: SiteKeys
  readonly jobs: Jobs
  readonly files: FileLibrary
  readonly exporter: Exporter
  readonly printThreads: PrintThreads
  /** The stand-ins, where they run. */
  readonly standIns: StandIns | null
  readonly rehearsals: Rehearsals
  readonly bodies: Bodies
  readonly ports: () => Ports
  readonly log: Logger
  /** Directory of the built application. */
  readonly webDirectory: string
}

/** Where the port is chosen by the system, there is no certificate for it. */
const isSecure = ({ officeUrl }: Pick<Config, 'officeUrl'>) => officeUrl?.startsWith('https:') === true

/** The strictest policy the built application works under: own scripts and styles, pictures it makes itself. */
function contentSecurity({ config, ports }: Pick<OfficeParts, 'config' | 'ports'>) {
  const nonce = (_request: unknown, response: unknown) =>
    `'nonce-${(response as { locals: { nonce: string } }).locals.nonce}'`
  // One decoder is WebAssembly: the worker that measures symbols may run that, and no page may.
  const runs = (request: IncomingMessage, response: ServerResponse) =>
    request.url?.startsWith('/assets/proof-worker') ? "'wasm-unsafe-eval'" : nonce(request, response)
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", runs],
        styleSrc: ["'self'", nonce],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        frameSrc: config.standIns ? [() => `http://localhost:${String(ports().standIn)}`] : ["'none'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: isSecure(config) ? undefined : false,
  })
}

/** The office: the application and its API. Phones never reach it. */
export function office(parts: OfficeParts): Express {
  const { config, database, log } = parts
  const app = express()
  app.disable('x-powered-by')
  app.set('query parser', 'simple')
  app.set('trust proxy', config.trust ?? false)
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64')
    next()
  })
  app.use(contentSecurity(parts))
  app.use(
    '/api',
    compression({
      threshold: COMPRESSED_BYTES,
      filter: (_request, response) => /\bjson\b/.test(String(response.getHeader('Content-Type'))),
    }),
  )
  app.use('/api', api(parts))
  app.use(UNSUBSCRIBE_PATH, endingMails(database, parts.mailEnds))
  app.use(
    SHARED_REPORT_PATH,
    sharedReports({ ...parts, attempts: createAttempts(), isSecure: isSecure(config) }),
  )
  app.use(application(parts.webDirectory))
  app.use(failures(log))

  function api({ webDirectory: _web, ...given }: OfficeParts) {
    const rest = {
      ...given,
      selection: codeSelection(given),
      viewer: codeViewer(given),
      jobView: jobViewer(given.database, given.jobs),
      rowFiles: rowFiles(given.database.file),
    }
    const sessions = makeSessions(database, {
      secure: isSecure(config),
      ended: (session) => {
        given.live.endSession(session)
      },
    })
    const router = express.Router()
    router.use((_request, response, next) => {
      response.set('Cache-Control', 'no-store')
      next()
    })
    router.use(ownOriginOnly(parts.addresses))
    const mounts: Mounts = {
      router,
      endpoints: [],
      bodies: given.bodies,
      whoAsks: (request) => sessions.whoAsks(request),
      findReached: findReached(database.read),
      standIns: config.standIns,
    }
    workspaceEndpoints(mounts, { ...rest, sessions })
    findEndpoint(mounts, database)
    campaignsEndpoints(mounts, rest)
    routesEndpoints(mounts, rest)
    pagesEndpoints(mounts, rest)
    pageStylesEndpoints(mounts, rest)
    pageResultsEndpoints(mounts, rest)
    walletEndpoints(mounts, rest)
    codesEndpoints(mounts, rest)
    teamEndpoints(mounts, rest)
    printEndpoints(mounts, rest)
    staticCodesEndpoints(mounts, rest)
    jobsEndpoints(mounts, rest)
    filesEndpoints(mounts, rest)
    houseStylesEndpoints(mounts, rest)
    scansEndpoints(mounts, rest)
    retentionEndpoints(mounts, rest)
    leadsEndpoints(mounts, rest)
    mailEndpoints(mounts, rest)
    watchesEndpoints(mounts, rest)
    resultsEndpoints(mounts, rest)
    goalsEndpoints(mounts, rest)
    unusualEndpoints(mounts, rest)
    keptEndpoints(mounts, database)
    reportsEndpoints(mounts, rest)
    reportLinkEndpoints(mounts, rest)
    reportMailingEndpoints(mounts, rest)
    taggingEndpoints(mounts, rest)
    domainsEndpoints(mounts, rest)
    planEndpoints(mounts, rest)
    checksEndpoints(mounts, rest)
    visitTagsEndpoints(mounts, rest)
    phoneEndpoints(mounts, rest)
    const document = openApiDocument(mounts.endpoints, { title: 'Flimbo', version: '0.1.0' })
    router.get('/openapi.json', (_request, response) => {
      response.json(document)
    })
    router.use(notFound)
    router.use(failures(log))
    return router
  }
  return app
}
