import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import express, { type Request, type Response, type Router } from 'express'
import { LRUCache } from 'lru-cache'
import { html, type Markup } from '@flimbo/core/fields'
import {
  PLAIN_REPORT_LOOK,
  REPORT_FILE_NAMES,
  REPORT_FILES,
  readStoredReport,
  reportCss,
  reportFileName,
  type MadeReport,
  type ReportFile,
} from '@flimbo/core/reports'
import type { Writing } from '@flimbo/core/pages'
import { acceptedLanguages } from '@flimbo/core/scans'
import { dayIn } from '@flimbo/core/time'
import { fill, secondsIn, wordsFor, type Spoken } from '@flimbo/core/words'
import { attach, Refusal, sendPublicPage } from '../api/index.ts'
import { tables, type Database, type ReportLinkRow } from '../database/index.ts'
import type { createAttempts } from '../door/index.ts'
import { isPassword } from '../workspace/index.ts'
import { FILE_ENDINGS, FILE_TYPES, type ReportDrawing } from './drawing.ts'
import { SHARED_REPORT_PATH, type ReportLinks } from './links.ts'
import type { MakeReport } from './make.ts'

/** Where the fonts of a page lie. */
export const SHARED_FONTS_PATH = `${SHARED_REPORT_PATH}fonts/`
const FONTS = ['latin', 'latin-ext'] as const
/** However often it is opened, a report is made once in so long. */
const FRESH_MS = 60_000
const MADE_MAX = 40
/** Of what is said in place of a report. */
const OWN_CSS = reportCss(PLAIN_REPORT_LOOK, SHARED_FONTS_PATH)
const PASSWORD_LONGEST = 200
/** Whoever comes while very many passwords are being looked at is asked to wait so long. */
const BUSY_SECONDS = 60
/** Stands in a page that was drawn for many where the nonce of each answer belongs; nobody can write it. */
const NONCE_MARK = randomUUID()

interface Parts {
  readonly database: Database
  readonly makeReport: MakeReport
  readonly reportDrawing: ReportDrawing
  readonly reportLinks: ReportLinks
  readonly attempts: ReturnType<typeof createAttempts>
  readonly isSecure: boolean
}

/** The words a reader is spoken to in. */
const spokenTo = ({ headers }: Pick<Request, 'headers'>): Spoken =>
  wordsFor(acceptedLanguages(headers['accept-language'] ?? '').map(({ tag }) => tag))
const waitFor =
  (seconds: number) =>
  ({ language, words }: Spoken): string =>
    fill(words.password.wait, { time: secondsIn(language, seconds) })

const fontFile = (range: (typeof FONTS)[number]) =>
  readFileSync(
    createRequire(import.meta.url).resolve(
      `@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${range}-wght-normal.woff2`,
    ),
  )

/** Reports for those who were handed a link: read-only, without signing in, without script. */
export function sharedReports(parts: Parts): Router {
  const { database, makeReport, reportDrawing, reportLinks, attempts, isSecure } = parts
  const { read } = database
  const router = express.Router()
  /** Reports that were made a moment ago, by link and the report's version. */
  const made = new LRUCache<string, Promise<MadeReport>>({ max: MADE_MAX, ttl: FRESH_MS })
  const pages = new LRUCache<string, Promise<{ readonly markup: string }>>({ max: MADE_MAX, ttl: FRESH_MS })
  const drawn = new LRUCache<string, Promise<Uint8Array>>({ max: MADE_MAX, ttl: FRESH_MS })

  const say = (response: Response, status: number, title: string, body: Markup, writing?: Writing) => {
    sendPublicPage(response, { status, title, body, css: OWN_CSS, ...(writing ? { writing } : {}) })
  }
  const over = (request: Request, response: Response) => {
    const spoken = spokenTo(request)
    const { over: title, askAgain } = spoken.words.reports
    say(response, 410, title, html`<p>${askAgain}</p>`, spoken)
  }

  /** A thing that several wait for, or had a moment ago; what failed is made anew. */
  function kept<T extends object>(
    cache: LRUCache<string, Promise<T>>,
    key: string,
    make: () => Promise<T>,
  ): Promise<T> {
    const there = cache.get(key)
    if (there) return there
    const making = make()
    cache.set(key, making)
    making.catch(() => cache.delete(key))
    return making
  }

  /** The link that a token names; null where it is over. */
  async function linkOf(token: string): Promise<ReportLinkRow | null> {
    const id = reportLinks.idOf(token)
    const link = id === null ? null : await read.findOneBy(tables.reportLinks, { id })
    return link && link.endsAt > Date.now() ? link : null
  }

  const cookieName = (id: number) => `flimbo-report-${String(id)}`
  function hasPass(request: Request, { id, passwordHash }: ReportLinkRow): boolean {
    if (passwordHash === '') return true
    const cookies = (request.headers.cookie ?? '').split(/; */)
    const own = cookies.find((each) => each.startsWith(`${cookieName(id)}=`))
    return reportLinks.isPass(own?.slice(cookieName(id).length + 1) ?? '', id, passwordHash, Date.now())
  }

  function askPassword(
    request: Request,
    response: Response,
    status: number,
    sentence: (spoken: Spoken) => string = () => '',
  ): void {
    const spoken = spokenTo(request)
    const { title, label, goOn } = spoken.words.password
    const fault = sentence(spoken)
    say(
      response,
      status,
      title,
      html`${fault !== '' && html`<p class="fault" role="alert">${fault}</p>`}
        <form method="post">
          <p>
            <label>
              ${label}<br />
              <input name="password" type="password" autocomplete="off" required autofocus />
            </label>
          </p>
          <p><button>${goOn}</button></p>
        </form>`,
      spoken,
    )
  }

  /** A report as it is now, with its workspace and what it was made under. */
  async function reportOf({ id, reportId }: ReportLinkRow) {
    const row = await read.findOneByOrFail(tables.reports, { id: reportId })
    const workspace = await read.findOneByOrFail(tables.workspaces, { id: row.workspaceId })
    const key = `${String(id)}/${String(row.version)}`
    const content = readStoredReport(row.content)
    return { key, workspace, report: await kept(made, key, () => makeReport(workspace, content, Date.now())) }
  }

  router.get('/fonts/:file', (request, response, next) => {
    const range = FONTS.find((each) => `${each}.woff2` === request.params.file)
    if (!range) {
      next()
      return
    }
    // A preview asks for it out of a frame that has no origin.
    response.set({
      'Access-Control-Allow-Origin': '*',
      'Cache-Control': 'public, max-age=31536000, immutable',
    })
    response.type('font/woff2').send(fontFile(range))
  })

  router.use((_request, response, next) => {
    response.set({ 'Cache-Control': 'no-store', 'Referrer-Policy': 'no-referrer', 'X-Robots-Tag': 'noindex' })
    next()
  })

  async function showPage(token: string, request: Request, response: Response): Promise<void> {
    const link = await linkOf(token)
    if (!link) {
      over(request, response)
      return
    }
    if (!hasPass(request, link)) {
      askPassword(request, response, 401)
      return
    }
    const { key, workspace, report } = await reportOf(link)
    const { nonce } = response.locals as { nonce: string }
    const files = REPORT_FILES.map(
      (file) => html`<a href="${SHARED_REPORT_PATH}${token}/${file}">${REPORT_FILE_NAMES[file]}</a>`,
    )
    const before = html`<nav aria-label="Download">${files}</nav>`.markup
    const order = { nonce: NONCE_MARK, fonts: SHARED_FONTS_PATH, before }
    const { markup } = await kept(pages, key, async () => ({
      markup: await reportDrawing.page(workspace.id, report, order),
    }))
    const { id } = link
    if (request.method === 'GET')
      await database.writeAside((manager) =>
        manager.update(tables.reportLinks, { id }, { opened: () => 'opened + 1', openedAt: Date.now() }),
      )
    response.type('html').send(markup.replace(NONCE_MARK, nonce))
  }

  async function sendFile(token: string, file: ReportFile, request: Request, response: Response) {
    const link = await linkOf(token)
    if (!link || !hasPass(request, link)) {
      response.redirect(303, SHARED_REPORT_PATH + token)
      return
    }
    const { key, workspace, report } = await reportOf(link)
    const bytes = await kept(drawn, `${key}/${file}`, () => reportDrawing.file(workspace.id, report, file))
    attach(
      response,
      FILE_TYPES[file],
      reportFileName(report, dayIn(report.zone, report.madeAt), FILE_ENDINGS[file]),
    )
    response.end(bytes)
  }

  async function takePassword(token: string, request: Request, response: Response): Promise<void> {
    const link = await linkOf(token)
    if (!link) {
      over(request, response)
      return
    }
    const { id, passwordHash } = link
    // Whatever is sent, only a text can be a password.
    const { password } = (request.body ?? {}) as { password?: unknown }
    const given = typeof password === 'string' ? password.slice(0, PASSWORD_LONGEST) : ''
    if (passwordHash !== '') {
      const wait = attempts.take(id, request.ip ?? '', Date.now())
      if (wait > 0) {
        askPassword(request, response, 429, waitFor(Math.ceil(wait / 1000)))
        return
      }
      const isRight = await attempts.inTurn(() => isPassword(given, passwordHash))
      if (isRight !== true) {
        // Very many are being looked at.
        if (isRight === null) askPassword(request, response, 503, waitFor(BUSY_SECONDS))
        else askPassword(request, response, 403, ({ words }) => words.password.wrong)
        return
      }
      attempts.giveBack(id, request.ip ?? '')
      response.cookie(cookieName(id), reportLinks.pass(id, passwordHash, Date.now()), {
        path: SHARED_REPORT_PATH + token,
        httpOnly: true,
        sameSite: 'lax',
        secure: isSecure,
        encode: String,
      })
    }
    response.redirect(303, SHARED_REPORT_PATH + token)
  }

  /** What a report cannot be shown for is said in words. */
  const inWords = (work: (request: Request, response: Response) => Promise<void>) =>
    ((request, response, next) => {
      work(request, response).catch((error: unknown) => {
        if (!(error instanceof Refusal) || response.headersSent) next(error)
        else say(response, error.problem.status, 'This report cannot be shown', html`<p>${error.message}</p>`)
      })
    }) satisfies express.RequestHandler
  const tokenOf = ({ params }: Request) => String(params.token)

  router.get(
    '/:token',
    inWords((request, response) => showPage(tokenOf(request), request, response)),
  )
  router.post(
    '/:token',
    express.urlencoded({ extended: false, limit: '4kb', parameterLimit: 5 }),
    inWords((request, response) => takePassword(tokenOf(request), request, response)),
  )
  for (const file of REPORT_FILES)
    router.get(
      `/:token/${file}`,
      inWords((request, response) => sendFile(tokenOf(request), file, request, response)),
    )
  router.use(over)
  // What cannot be read, such as a body that is too large, is the sender's to mend.
  router.use(((error: unknown, request, response, next) => {
    const { status } = (error ?? {}) as { status?: unknown }
    if (typeof status !== 'number' || status < 400 || status >= 500 || response.headersSent) next(error)
    else {
      const spoken = spokenTo(request)
      say(response, status, spoken.words.pages.malformed.title, html``, spoken)
    }
  }) satisfies express.ErrorRequestHandler)
  return router
}
