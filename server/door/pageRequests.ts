import type { IncomingMessage, ServerResponse } from 'node:http'
import { readFile } from 'node:fs/promises'
import type { Visit } from '@flimbo/core/conditions'
import {
  contactCard,
  contactName,
  eventCalendar,
  onlyFile,
  readTold,
  type CardPhoto,
  type Part,
  type PageEvent,
  type ShownFile,
} from '@flimbo/core/pages'
import { isDeviceAddress, languageFor, linkAddress, said } from '@flimbo/core/fields'
import { valueName } from '@flimbo/core/forms'
import { taggedAddress } from '@flimbo/core/routing'
import { apartAfter } from '@flimbo/core/scans'
import type { Doorway } from '../domains/index.ts'
import type { PageShelf, PassMaker, ShelvedPage } from '../pages/index.ts'
import { variantSuffix } from '../files/index.ts'
import type { Posting } from '../routing/index.ts'
import { visitorHash, type PageEventRow, type ScanWriter } from '../scans/index.ts'
import { factsOf, type ArrivalParts } from './readArrival.ts'
import { readBody } from './readBody.ts'
import { fileHref } from './fileHref.ts'
import { readFormBody } from './formBody.ts'
import { FORM_MS } from './formKeys.ts'
import { answerForm, thankFor, type FormParts } from './formRequests.ts'
import { formVisit, type FormShown } from './formVisits.ts'
import { drawnPage, linksOfPage, surroundingsOf, type Shown } from './drawnPage.ts'
import type { PageVisit, PageVisits } from './pageVisits.ts'
import { send, sendOn, sendPage } from './respond.ts'
import { withReference } from './siteReference.ts'

export interface PageParts
  extends FormParts, Pick<ArrivalParts, 'enrich' | 'config' | 'rehearsals' | 'salts'> {
  readonly shelf: PageShelf
  readonly visits: PageVisits
  readonly walletPasses: PassMaker
  readonly writer: Pick<ScanWriter, 'note' | 'keepLead'>
  /** Where an uploaded file lies, by its sum and what follows its name. */
  readonly placeOf: (sum: string, suffix?: string) => string
  readonly originOf: (domainId: number) => string
}

/** A request that comes from a page: a link on it that was followed, something that was taken, or what its script tells. */
export interface FromPage {
  readonly request: IncomingMessage
  readonly response: ServerResponse
  readonly doorway: Doorway
  /** The short link that the page stands at, as its path. */
  readonly path: string
  /** After `/~`: the token, and what is wanted. */
  readonly rest: string
  readonly query: string
}

/** Parts a path into the short link and what follows `/~`; null where nothing does. */
export function pagePath(path: string): { link: string; rest: string } | null {
  const at = path.indexOf('/~', 1)
  return at < 0 ? null : { link: path.slice(0, at), rest: path.slice(at + 2) }
}

/** Takes the chosen language out of a query; everything else stays as it was written. */
export function takeLanguage(query: string): { chosen: string; rest: string } {
  const pairs = query === '' ? [] : query.split('&')
  const chosen = pairs.find((pair) => pair.startsWith('in='))?.slice(3) ?? ''
  return { chosen, rest: pairs.filter((pair) => !pair.startsWith('in=')).join('&') }
}

/** Who asks, as far as pages show something to some and not to others; and why what they do is kept apart. */
function visitorOf(
  parts: PageParts,
  request: IncomingMessage,
  query: string,
  repeat: boolean,
): { visit: Visit; apart: string } {
  const { apart, place, device, languages } = parts.enrich(factsOf(parts, request, true))
  return {
    apart: apartAfter(apart),
    visit: { at: Date.now(), query, place, device, languages, visitor: '', repeat, precise: null },
  }
}

/** What is on hand to answer a request from a page. */
interface Asked {
  readonly shown: Shown
  readonly visit: PageVisit
  /** Why what happens is kept apart; empty where it is not. */
  readonly apart: string
  /** Where its links lead; the page is drawn for that when it is first asked. */
  readonly links: () => ReturnType<typeof linksOfPage>
  /** Notes what happened, for the scan that was shown the page. Resolves once it is on disk. */
  readonly note: (events: readonly PageEvent[]) => Promise<void>
}

/** Answers a request from a page; one whose visit is over, or was never, goes to the short link and is a scan. */
export async function answerFromPage(parts: PageParts, from: FromPage, posting: Posting): Promise<void> {
  const { request, response, path, rest } = from
  const [token = '', ...wanted] = rest.split('/')
  const [what = '', partId = ''] = wanted
  const isForm = what === 'f' || what === 'done'
  const visit = parts.visits.read(token, posting.codeId, Date.now(), isForm ? FORM_MS : undefined)
  const page = visit && (await parts.shelf.page(visit.pageId))
  const home = path === '' ? '/' : path
  if (!visit || page?.workspaceId !== posting.workspaceId) {
    if (isForm) {
      request.resume()
      sendOn(response, home, 303)
      return
    }
    await toldBy(request)
    if (request.method === 'POST') sendNothing(response)
    else sendOn(response, home)
    return
  }
  const asked = askedOf(parts, from, posting, page, visit, token)
  if (isForm) {
    const form = page.content.parts.find(({ id, isHidden }) => id === partId && !isHidden)
    const of = form?.kind === 'form' ? { form, shown: asked.shown } : null
    if (of && what === 'done') thankFor(parts, response, of, wanted[2] ?? '')
    else if (of && request.method === 'POST') await takeForm(parts, from, posting, of, asked)
    else {
      request.resume()
      sendOn(response, home, 303)
    }
    return
  }
  if (request.method === 'POST') {
    const told = readTold(await toldBy(request))
    await asked.note(told.filter((event) => isOfPage(event, asked)))
    sendNothing(response)
    return
  }
  await answerWanted(parts, from, asked, wanted)
}

/** Forms with files that are taken from one network address in ten minutes: a house full of people may share one. */
const UPLOADS_MAX = 60

/** Takes a form that was sent: its body is read to the end, and what it says is on disk, before it is answered. */
async function takeForm(
  parts: PageParts,
  { request, response }: FromPage,
  posting: Posting,
  of: FormShown,
  { visit, apart, note }: Asked,
): Promise<void> {
  const { workspaceId, workspaceZone } = posting
  const now = Date.now()
  const today = await parts.salts.today(workspaceId, workspaceZone, now)
  const { address, userAgent } = factsOf(parts, request, true)
  const visitor = visitorHash(today.salt, address, userAgent)
  const names = new Set(of.form.questions.flatMap(({ id, kind }) => (kind === 'file' ? [valueName(id)] : [])))
  const isMultipart = /^multipart\//i.test(request.headers['content-type'] ?? '')
  const refused = (page: 'malformed' | 'busy') => {
    response.once('finish', () => {
      request.destroy()
    })
    sendPage(response, page)
  }
  // Whatever they call themselves, who sends files again and again comes from somewhere.
  const sender = visitorHash(today.salt, address, '')
  if (isMultipart && parts.formPace.isTooMany(sender, 'files', now, UPLOADS_MAX)) {
    refused('busy')
    return
  }
  const body = await readFormBody(request, parts.answerFiles, names)
  if (!body) {
    refused('malformed')
    return
  }
  await answerForm(parts, response, of, { visit, posting, today, visitor, apart, note }, body)
}

function askedOf(
  parts: PageParts,
  { request, path, query, doorway }: FromPage,
  posting: Posting,
  page: ShelvedPage,
  visit: PageVisit,
  token: string,
): Asked {
  const { chosen, rest } = takeLanguage(query)
  const visitor = visitorOf(parts, request, rest, visit.repeat)
  const { codeId, scanId, routeId, revisionId, pageId } = visit
  const apart = visit.apart === '' ? visitor.apart : visit.apart
  const origin = parts.originOf(doorway.id)
  const shown = withForms(parts, { page, posting, visit: visitor.visit, path, token, chosen, origin })
  let links: ReturnType<typeof linksOfPage> | null = null
  return {
    visit,
    apart,
    shown,
    links: () => (links ??= linksOfPage(shown)),
    async note(events) {
      const at = Date.now()
      const rows = events.map((event): PageEventRow => ({
        ...event,
        at,
        codeId,
        scanId,
        routeId,
        revisionId,
        pageId,
        apart,
      }))
      if (rows.length > 0) await parts.writer.note(rows)
    },
  }
}

/** What is shown, with its forms as somebody comes to them. */
function withForms(parts: PageParts, shown: Shown): Shown {
  return { ...shown, form: (form) => formVisit(parts, { form, shown }, Date.now()) }
}

/** Whether something that is told can have happened on a page: nobody fills the disk with what is made up. */
function isOfPage({ kind, part, item }: PageEvent, { shown, links }: Asked): boolean {
  const found = shown.page.content.parts.find(({ id }) => id === part)
  if (kind === 'stayed') return part === ''
  if (kind === 'played') return found?.kind === 'audio' || found?.kind === 'video'
  if (kind === 'shared') return found?.kind === 'contact'
  const address = links().get(`${part} ${item}`)
  return kind === 'link' && address !== undefined && isDeviceAddress(address)
}

async function answerWanted(
  parts: PageParts,
  { response, path }: FromPage,
  asked: Asked,
  [what = '', part = '', item = '']: readonly string[],
): Promise<void> {
  const { shown } = asked
  if (what === 'in') {
    send(response, drawnPage({ ...shown, chosen: part }))
    return
  }
  if (what === 'l') {
    const address = asked.links().get(`${part} ${item}`)
    if (address !== undefined && !isDeviceAddress(address)) {
      await asked.note([{ kind: 'link', part, item }])
      const tagged = taggedAddress(shown.posting.compiled.code, shown.visit, linkAddress(address))
      sendOn(response, withReference(parts, shown.posting, { ...asked.visit, apart: asked.apart }, tagged))
      return
    }
  }
  const found = shown.page.content.parts.find(({ id }) => id === part)
  if (what === 't' && found && (await takePart(parts, response, asked, found, item))) return
  // What was there when the page was shown is not there any more: the page as it is now.
  sendOn(response, path)
}

/** Gives what a part has to take away. @returns whether it has anything */
async function takePart(
  parts: PageParts,
  response: ServerResponse,
  { shown, visit, note }: Asked,
  part: Part,
  item: string,
): Promise<boolean> {
  const around = surroundingsOf(shown)
  if (part.kind === 'contact' && item === 'pass') {
    const { wallet } = shown.page
    if (wallet === null) return false
    const pass = await parts.walletPasses.make(wallet, {
      name: contactName(part),
      role: said(around, part.role).text,
      organisation: part.organisation.trim(),
      phone: part.phones[0]?.number.trim() ?? '',
      email: part.emails[0]?.address.trim() ?? '',
      link: shown.origin + shown.path,
      serial: `page-${String(visit.pageId)}-${part.id}`,
    })
    await note([{ kind: 'contact', part: part.id, item: 'pass' }])
    sendFile(response, PASS_TYPE, `${contactName(part)}.pkpass`, pass)
    return true
  }
  if (part.kind === 'contact') {
    const photo = await photoOf(parts, shown, said(around, part.portrait).text)
    await note([{ kind: 'contact', part: part.id, item: '' }])
    sendFile(
      response,
      'text/vcard',
      `${contactName(part)}.vcf`,
      contactCard(part, part.version, around, photo),
    )
    return true
  }
  if (part.kind === 'event') {
    const { content, changedAt } = shown.page
    const uid = `page-${String(visit.pageId)}-${part.id}@${new URL(shown.origin).hostname}`
    const calendar = eventCalendar(part, { ...around, zone: content.zone, uid, changedAt })
    if (calendar === null) return false
    await note([{ kind: 'event', part: part.id, item: '' }])
    sendFile(response, 'text/calendar', `${said(around, part.label).text || 'event'}.ics`, calendar)
    return true
  }
  if (part.kind === 'file' || part.kind === 'audio' || part.kind === 'video') {
    const file = shown.page.files.get(said(around, part.file).text)
    if (!file) return false
    await note([{ kind: 'file', part: part.id, item: '' }])
    sendOn(response, fileAddress(file, part))
    return true
  }
  return false
}

/** Where a file is had as its part gives it: to be opened, or to be saved. */
const fileAddress = (file: ShownFile, part: Part): string =>
  fileHref(file) + (part.kind === 'file' && part.way === 'save' ? '&save' : '')

/** A portrait small enough to be sent within a card. */
async function photoOf(parts: PageParts, { page }: Shown, key: string): Promise<CardPhoto | null> {
  const file = page.files.get(key)
  const width = file?.widths[0]
  const shelved = file && (await parts.shelf.file(key))
  if (!shelved || width === undefined) return null
  const bytes = await readFile(parts.placeOf(shelved.sum, variantSuffix(width, 'jpg'))).catch(() => null)
  return bytes && { type: 'image/jpeg', base64: bytes.toString('base64') }
}

/** The media type of the published pass format, from memory. */
const PASS_TYPE = 'application/vnd.apple.pkpass'

function sendFile(response: ServerResponse, type: string, name: string, body: string | Uint8Array): void {
  const bytes = Buffer.from(body)
  const plain =
    name
      .normalize('NFKD')
      .replace(/[^ -~]/g, '')
      .replace(/["\\]/g, '') || 'file'
  response.writeHead(200, {
    'Content-Type': typeof body === 'string' ? `${type}; charset=utf-8` : type,
    'Content-Length': bytes.length,
    'Cache-Control': 'no-store',
    // RFC 6266: the name for all, and the one that is right.
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    'X-Content-Type-Options': 'nosniff',
  })
  response.end(bytes)
}

function sendNothing(response: ServerResponse): void {
  response.writeHead(204, { 'Cache-Control': 'no-store' })
  response.end()
}

/** What a script tells is no longer. */
const BYTES_MAX = 2048

/** What a request from a page was sent with, which is read to its end before it is answered; empty where it is too long. */
const toldBy = async (request: IncomingMessage): Promise<string> =>
  request.method === 'POST' ? ((await readBody(request, BYTES_MAX)) ?? '') : ''

/** Shows the page that a scan was decided to be shown, once the scan is on disk. */
export async function showPage(
  parts: PageParts,
  response: ServerResponse,
  shown: Omit<Shown, 'page' | 'token' | 'chosen' | 'origin'> & {
    readonly pageId: number
    readonly domainId: number
  },
  visit: Omit<PageVisit, 'pageId'>,
): Promise<void> {
  const { pageId, domainId } = shown
  const page = await parts.shelf.page(pageId)
  if (!page) {
    sendPage(response, 'deleted')
    return
  }
  const token = parts.visits.issue({ ...visit, pageId })
  const { languages } = page.content
  const only = onlyFile(page.content)
  const inTheirs = () => ({ language: languageFor(shown.visit.languages, languages), languages })
  const file = only && page.files.get(said(inTheirs(), only.file).text)
  if (only && file) {
    sendOn(response, fileAddress(file, only))
    return
  }
  const { chosen, rest } = takeLanguage(shown.visit.query)
  send(
    response,
    drawnPage(
      withForms(parts, {
        ...shown,
        visit: { ...shown.visit, query: rest },
        page,
        token,
        chosen,
        origin: parts.originOf(domainId),
      }),
    ),
  )
}
