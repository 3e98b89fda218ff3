import type { IncomingMessage, ServerResponse } from 'node:http'
import { errors, jwtVerify } from 'jose'
import type { z } from 'zod'
import { readUrl } from '@flimbo/core/api'
import {
  GOAL_REFUSALS,
  goalHit,
  goalOfHit,
  goalsOfView,
  mayReport,
  siteHit,
  siteScript,
  type GoalHit,
  type GoalRefusal,
  type ReachedGoal,
  type ViewHit,
} from '@flimbo/core/goals'
import { apartAfter } from '@flimbo/core/scans'
import {
  GOALS_PATH,
  siteBase,
  type GoalShelf,
  type Reference,
  type References,
  type SiteKeys,
} from '../goals/index.ts'
import type { ScanWriter } from '../scans/index.ts'
import { factsOf, type ArrivalParts } from './readArrival.ts'
import type { FormPace } from './formPace.ts'
import { readBody } from './readBody.ts'

export interface GoalParts extends Pick<ArrivalParts, 'config' | 'enrich' | 'rehearsals'> {
  readonly siteKeys: SiteKeys
  readonly references: References
  readonly goalShelf: GoalShelf
  readonly writer: Pick<ScanWriter, 'keepSite'>
  readonly formPace: FormPace
  /** Where the front door is found from outside. */
  readonly doorOrigin: () => string
}

const BODY_BYTES_MAX = 8192
/** Nobody does so much on a site after one scan within minutes. */
const HITS_MAX = 500
/** Nobody reaches a goal so often after one scan within minutes. */
const GOAL_TIMES_MAX = 20
/** A signed call is good for so long: clocks differ. */
const CALL_SECONDS = 600
const SCRIPT_SECONDS = 3600
const PAGE_MAX = 300

/** The smallest picture there is: one clear pixel (GIF89a). */
const PIXEL = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')

type Answer = { readonly counted: number } | { readonly status: number; readonly sentence: string }
const refused = (status: number, sentence: string): Answer => ({ status, sentence })
const UNKNOWN_SITE = refused(404, 'This address is of no site. Copy it anew from Settings › Goals on sites.')
const BAD_REFERENCE = refused(403, 'The reference of the scan is not good, or not good any more.')
const TOO_OFTEN = refused(429, 'This scan has reported too much.')
const UNREADABLE = refused(400, 'This could not be read. See docs/goals.md for what is sent.')

/** Answers what sites report, and gives them the script they report with. */
export async function answerGoals(
  parts: GoalParts,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  query: string,
): Promise<void> {
  const [, key = '', what = ''] =
    /^([A-Za-z0-9._-]+?)(\.js|\.gif|\/calls)?$/.exec(path.slice(GOALS_PATH.length)) ?? []
  const workspaceId = parts.siteKeys.workspaceOf(key)
  const site = workspaceId === null ? null : await parts.goalShelf.site(workspaceId)
  const { method = '' } = request
  if (workspaceId === null || !site) {
    request.resume()
    sendAnswer(response, UNKNOWN_SITE)
    return
  }
  const { settings, currency } = site
  const origin = request.headers.origin ?? ''
  const of: Reporting = { workspaceId, currency, isSigned: false }
  if (what === '.js') {
    request.resume()
    if (isMethod(response, method, ['GET', 'HEAD']))
      sendScript(response, siteScript(siteBase(parts.doorOrigin(), key), settings.honoursSignals))
    return
  }
  if (what === '.gif') {
    request.resume()
    if (!isMethod(response, method, ['GET', 'HEAD'])) return
    // Whatever came of it, a picture is shown.
    if (method === 'GET' && !(settings.honoursSignals && asksNotToBeTracked(request)))
      await countHit(parts, request, of, Object.fromEntries(new URLSearchParams(query)), goalHit)
    sendPixel(response)
    return
  }
  if (what === '/calls') {
    if (!isMethod(response, method, ['POST'])) return
    const secret = parts.siteKeys.secretOf(workspaceId, settings.secretNumber)
    sendAnswer(response, await takeCall(parts, request, of, secret))
    return
  }
  if (method === 'OPTIONS') {
    sendPreflight(response, mayReport(settings, origin) ? origin : '')
    return
  }
  if (!isMethod(response, method, ['POST'])) return
  if (!mayReport(settings, origin)) {
    request.resume()
    sendAnswer(response, refused(403, 'This site may not report. Add it under Settings › Goals on sites.'))
    return
  }
  allowOrigin(response, origin)
  const body = readJson(await readBody(request, BODY_BYTES_MAX))
  if (settings.honoursSignals && asksNotToBeTracked(request)) sendAnswer(response, { counted: 0 })
  else sendAnswer(response, await countHit(parts, request, of, body, siteHit))
}

interface Reporting {
  readonly workspaceId: number
  readonly currency: string
  readonly isSigned: boolean
}

const asksNotToBeTracked = ({ headers }: IncomingMessage) => headers.dnt === '1' || headers['sec-gpc'] === '1'

function readJson(text: string | null): unknown {
  try {
    return text === null ? null : (JSON.parse(text) as unknown)
  } catch {
    return null
  }
}

/** Takes a signed call of a site's server: a JSON Web Token (RFC 7519) under HS256. */
async function takeCall(
  parts: GoalParts,
  request: IncomingMessage,
  of: Reporting,
  secret: string,
): Promise<Answer> {
  const token = await readBody(request, BODY_BYTES_MAX)
  if (token === null) return refused(413, 'The call is too long.')
  try {
    const { payload } = await jwtVerify(token.trim(), Buffer.from(secret), {
      algorithms: ['HS256'],
      requiredClaims: ['iat'],
      maxTokenAge: CALL_SECONDS,
      clockTolerance: CALL_SECONDS,
    })
    const claims = payload.jti === undefined ? payload : { event: payload.jti, ...payload }
    return await countHit(parts, request, { ...of, isSigned: true }, claims, goalHit)
  } catch (error) {
    if (error instanceof errors.JWTExpired || error instanceof errors.JWTClaimValidationFailed)
      return refused(
        401,
        'The call lacks the time it was signed (iat), or was signed more than ten minutes ago or ahead. Set the clock of the server.',
      )
    if (error instanceof errors.JOSEError)
      return refused(
        401,
        'The signature does not fit. Sign with HS256 and the secret of Settings › Goals on sites.',
      )
    throw error
  }
}

/** Counts what was reported, once it is on disk; or says why it does not count. */
async function countHit(
  parts: GoalParts,
  request: IncomingMessage,
  of: Reporting,
  told: unknown,
  schema: z.ZodType<ViewHit | GoalHit>,
): Promise<Answer & { clicks?: readonly (readonly [key: string, selector: string])[] }> {
  const hit = schema.safeParse(told)
  if (!hit.success) {
    const [issue] = hit.error.issues
    return issue?.code === 'custom' || issue?.code === 'invalid_format'
      ? refused(422, `${String(issue.path[0] ?? '')}: ${issue.message}`)
      : UNREADABLE
  }
  const now = Date.now()
  const reference = parts.references.read(hit.data.ref, now)
  if (!reference) return BAD_REFERENCE
  const wanted = await parts.goalShelf.wanted(reference.codeId)
  if (wanted?.workspaceId !== of.workspaceId) return BAD_REFERENCE
  if (parts.formPace.isTooMany(String(reference.scanId), 'site', now, HITS_MAX)) return TOO_OFTEN
  const { goals } = wanted
  const { scanId } = reference
  const isBelievable = ({ goalId }: ReachedGoal) =>
    !parts.formPace.isTooMany(String(scanId), `goal ${String(goalId)}`, now, GOAL_TIMES_MAX)
  if ('view' in hit.data) {
    const view = hit.data
    const reached = goalsOfView(view, goals, { scanId }).filter(isBelievable)
    await store(parts, request, of, reference, now, view, reached)
    const clicked = goals.filter(({ kind, isOn }) => kind === 'click' && isOn)
    return { counted: 1, clicks: clicked.map(({ key, selector }) => [key, selector]) }
  }
  const reached = goalOfHit(hit.data, goals, { scanId, currency: of.currency }, of.isSigned)
  if (typeof reached === 'string') return refusedGoal(reached)
  // What a site's server signed is believed.
  if (!of.isSigned && !isBelievable(reached)) return TOO_OFTEN
  return { counted: await store(parts, request, of, reference, now, null, [reached]) }
}

const refusedGoal = (why: GoalRefusal): Answer => refused(why === 'unsigned' ? 403 : 422, GOAL_REFUSALS[why])

async function store(
  parts: GoalParts,
  request: IncomingMessage,
  { workspaceId, isSigned }: Reporting,
  { codeId, scanId, routeId, apart }: Reference,
  at: number,
  view: ViewHit | null,
  reached: readonly ReachedGoal[],
): Promise<number> {
  // A site's server is no visitor: of its call only the scan says whose it is.
  const own = isSigned ? '' : apartAfter(parts.enrich(factsOf(parts, request, false)).apart)
  return parts.writer.keepSite({
    workspaceId,
    codeId,
    scanId,
    routeId,
    at,
    apart: apart === '' ? own : apart,
    view: view && { key: view.view, page: pageOf(view.address), seconds: view.seconds },
    reached,
  })
}

/** Host and path: what stands behind them may name a person. */
function pageOf(address: string): string {
  const url = readUrl(address)
  return url ? `${url.host}${url.pathname}`.slice(0, PAGE_MAX) : ''
}

function isMethod(response: ServerResponse, method: string, allowed: readonly string[]): boolean {
  if (allowed.includes(method)) return true
  response.writeHead(405, { Allow: allowed.join(', '), 'Content-Length': '0' })
  response.end()
  return false
}

/** What browsers of another origin may read (Fetch Standard, CORS); nothing is sent along by which somebody is known. */
function allowOrigin(response: ServerResponse, origin: string): void {
  response.setHeader('Vary', 'Origin')
  if (origin !== '') response.setHeader('Access-Control-Allow-Origin', origin)
}

function sendPreflight(response: ServerResponse, origin: string): void {
  allowOrigin(response, origin)
  response.writeHead(204, {
    ...(origin === ''
      ? {}
      : {
          'Access-Control-Allow-Methods': 'POST',
          'Access-Control-Allow-Headers': 'Content-Type',
          'Access-Control-Max-Age': '86400',
        }),
  })
  response.end()
}

function sendAnswer(response: ServerResponse, answer: Answer): void {
  const isRefused = 'status' in answer
  const body = JSON.stringify(isRefused ? { detail: answer.sentence } : answer)
  response.writeHead(isRefused ? answer.status : 200, {
    'Content-Type': 'application/json; charset=utf-8',
    'Content-Length': Buffer.byteLength(body),
    'Cache-Control': 'no-store',
    'X-Content-Type-Options': 'nosniff',
  })
  response.end(body)
}

function sendScript(response: ServerResponse, script: string): void {
  response.writeHead(200, {
    'Content-Type': 'text/javascript; charset=utf-8',
    'Content-Length': Buffer.byteLength(script),
    'Cache-Control': `public, max-age=${String(SCRIPT_SECONDS)}`,
    'Cross-Origin-Resource-Policy': 'cross-origin',
    'X-Content-Type-Options': 'nosniff',
  })
  response.end(script)
}

function sendPixel(response: ServerResponse): void {
  response.writeHead(200, {
    'Content-Type': 'image/gif',
    'Content-Length': PIXEL.length,
    'Cache-Control': 'no-store',
    'Cross-Origin-Resource-Policy': 'cross-origin',
    'X-Content-Type-Options': 'nosniff',
  })
  response.end(PIXEL)
}
