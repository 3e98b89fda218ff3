import {
  faultWords,
  isFile,
  sectionsOf,
  keptName,
  valueName,
  type AnswerFault,
  type AnswerFile,
  type Answers,
  type Question,
  type ReadForm,
} from '@flimbo/core/forms'
import { linkAddress, plainText, said, saidRich } from '@flimbo/core/fields'
import type { HeldReason } from '@flimbo/core/leads'
import { FORM_NAMES, type FormVisit, type PageEvent } from '@flimbo/core/pages'
import { taggedAddress } from '@flimbo/core/routing'
import { wordsFor } from '@flimbo/core/words'
import type { ServerResponse } from 'node:http'
import { calledBy, mailsOf, type AnswerFiles, type GivenConsent, type LeadRecord } from '../leads/index.ts'
import type { PageShelf } from '../pages/index.ts'
import type { Posting } from '../routing/index.ts'
import type { ScanWriter, Today } from '../scans/index.ts'
import { drawnPage, languageIn } from './drawnPage.ts'
import type { FormBody } from './formBody.ts'
import type { FormKey } from './formKeys.ts'
import type { FormPace } from './formPace.ts'
import {
  askedVisit,
  readSent,
  shownName,
  stateOf,
  type Asking,
  type FormShown,
  type FormVisitParts,
} from './formVisits.ts'
import type { PageVisit, PageVisits } from './pageVisits.ts'
import { send, sendOn } from './respond.ts'
import { withReference, type ReferenceParts } from './siteReference.ts'

export interface FormParts extends FormVisitParts, ReferenceParts {
  readonly writer: Pick<ScanWriter, 'keepLead'>
  readonly answerFiles: AnswerFiles
  readonly shelf: Pick<PageShelf, 'page'>
  readonly visits: Pick<PageVisits, 'issue'>
  readonly formPace: FormPace
  /** Tells the office that somebody answered; it may be lost. */
  readonly tellLead: (lead: Pick<LeadRecord, 'workspaceId' | 'campaignId'>) => void
  /** The answers that were stored with a key; null where none were. */
  readonly sentAnswers: (sendKey: string) => Answers | null
}

/** Who sent a form. */
export interface Sender {
  readonly visit: PageVisit
  readonly posting: Posting
  readonly today: Today
  /** The visitor of the day, as scans have them. */
  readonly visitor: string
  readonly apart: string
  readonly note: (events: readonly PageEvent[]) => Promise<void>
}

/** Nobody reads a form and answers it in less. */
const QUICK_MS = 1500

/** Shows a page again, with its form as it now is. */
function show(response: ServerResponse, { shown, form }: FormShown, visit: FormVisit): void {
  const others = shown.form
  const drawn = drawnPage({
    ...shown,
    form: (part) => (part.id === form.id ? visit : (others?.(part) ?? visit)),
  })
  send(response, drawn)
}

/** What stands for a file that was cut off for its length: larger than any that is taken. */
const TOO_LARGE: AnswerFile = { key: '', name: '', type: '', bytes: Infinity }

/** Files by the names they were sent under: now, or before. */
function filesOf(parts: FormParts, { form }: FormShown, body: FormBody) {
  const files = new Map<string, AnswerFile>()
  for (const { id, kind } of form.questions) {
    if (kind !== 'file') continue
    const kept = body.values.get(keptName(id))?.[0]
    const text = kept === undefined ? null : parts.formKeys.unsign(kept)
    // It was written and signed here.
    const file = text === null ? null : (JSON.parse(text) as AnswerFile)
    // It is not kept for ever while nobody sends the form.
    if (file && parts.answerFiles.has(file.key)) files.set(valueName(id), file)
    const fresh = body.files.get(valueName(id))
    if (fresh !== undefined) files.set(valueName(id), fresh ?? TOO_LARGE)
  }
  return files
}

/** Sections that are asked, with the ids in each. */
const stepsOf = (questions: readonly Question[], { shown }: ReadForm) =>
  sectionsOf(questions)
    .filter(({ section }) => section === null || shown.has(section.id))
    .map(({ questions: own }) =>
      own.filter(({ id, kind }) => shown.has(id) && kind !== 'hidden').map(({ id }) => id),
    )

const only = (faults: ReadonlyMap<string, AnswerFault>, ids: readonly string[]) =>
  new Map([...faults].filter(([id]) => ids.includes(id)))

/** What comes next of a form that was sent: another look at it, or its end. */
function nextOf(
  of: FormShown,
  body: FormBody,
  read: ReadForm,
): Pick<Asking, 'faults' | 'step' | 'notice'> | null {
  const { form } = of
  const value = (name: string) => body.values.get(name)?.[0] ?? ''
  const steps = stepsOf(form.questions, read)
  const last = steps.length - 1
  const step = Math.min(Math.max(0, Number.parseInt(value(FORM_NAMES.step), 10) || 0), last)
  const asked = new Set(value(FORM_NAMES.asked).split(','))
  if (form.steps === 'steps') {
    if (value(FORM_NAMES.act) === 'back') return { faults: new Map(), step: step - 1, notice: null }
    const here = only(read.faults, steps[step] ?? [])
    if (here.size > 0) return { faults: here, step, notice: 'check' }
    // Questions that came into a step by what was answered in it.
    if ((steps[step] ?? []).some((id) => !asked.has(id))) return { faults: new Map(), step, notice: 'more' }
    if (step < last) return { faults: new Map(), step: step + 1, notice: null }
    const wrong = steps.findIndex((ids) => ids.some((id) => read.faults.has(id)))
    return wrong < 0 ? null : { faults: only(read.faults, steps[wrong] ?? []), step: wrong, notice: 'check' }
  }
  const fresh = steps.flat().filter((id) => !asked.has(id))
  const known = new Map([...read.faults].filter(([id]) => !fresh.includes(id)))
  if (known.size > 0) return { faults: known, step: 0, notice: 'check' }
  return fresh.length > 0 ? { faults: new Map(), step: 0, notice: 'more' } : null
}

/** Why an answer is suspected to be a program's; empty where it is not. */
function heldReason(
  parts: FormParts,
  body: FormBody,
  key: FormKey,
  sender: Sender,
  form: string,
  now: number,
): HeldReason | '' {
  if ((body.values.get(FORM_NAMES.trap)?.[0] ?? '') !== '') return 'trap'
  if (sender.apart !== '' && sender.apart !== 'test') return 'program'
  if (now - key.at < QUICK_MS) return 'quick'
  return parts.formPace.isTooMany(sender.visitor, form, now) ? 'many' : ''
}

/** What somebody agreed to, in the words they read. */
function consentsOf({ form, shown }: FormShown, answers: Answers, language: string): GivenConsent[] {
  const { languages } = shown.page.content
  return form.questions.flatMap((each) => {
    if (each.kind !== 'consent' || answers[each.id] !== true) return []
    const { blocks, lang } = saidRich({ language, languages }, each.consent)
    return blocks.length === 0
      ? []
      : [{ question: each.id, words: plainText(blocks), language: lang || language }]
  })
}

function leadOf(
  of: FormShown,
  sender: Sender,
  answers: Answers,
  sendKey: string,
  held: HeldReason | '',
  now: number,
): LeadRecord {
  const { form, shown } = of
  const { visit, posting, today } = sender
  const language = languageIn(shown)
  const { place, device } = shown.visit
  return {
    workspaceId: posting.workspaceId,
    campaignId: posting.campaignId,
    pageId: visit.pageId,
    pageRevisionId: shown.page.revisionId,
    part: form.id,
    sendKey,
    at: now,
    scanId: visit.scanId,
    codeId: visit.codeId,
    routeId: visit.routeId,
    revisionId: visit.revisionId,
    language,
    country: place.country,
    region: place.region,
    city: place.city,
    device: device.type,
    system: device.system,
    utm: { ...posting.compiled.code.settings.utm },
    answers,
    consents: consentsOf(of, answers, language),
    ...calledBy(form.questions, shown.page.content.languages, answers, language),
    day: today.day,
    visitor: sender.visitor,
    held,
    apart: held === '' ? sender.apart : '',
  }
}

/** The same for the same answers: what is sent twice is one answer, and what was changed in between another. */
function sendKeyOf(parts: FormParts, { nonce }: FormKey, answers: Answers): string {
  // A file that is sent again is another on disk, and the same answer.
  const same = Object.entries(answers).map(([id, answer]) =>
    isFile(answer) ? [id, answer.name, answer.type, answer.bytes] : [id, answer],
  )
  return parts.formKeys.digest(`${nonce} ${JSON.stringify(same)}`) + nonce
}

/** Where somebody goes who sent a form. */
async function afterSending(
  parts: FormParts,
  response: ServerResponse,
  { form, shown }: FormShown,
  { visit, posting }: Pick<Sender, 'visit' | 'posting'>,
  sendKey: string,
): Promise<void> {
  const next =
    form.after === 'page' && form.thanksPage !== null ? await parts.shelf.page(form.thanksPage) : null
  // One that is not there any more, or of somebody else, follows nothing.
  if (next && form.thanksPage !== null && next.workspaceId === posting.workspaceId) {
    const token = parts.visits.issue({ ...visit, pageId: form.thanksPage })
    sendOn(response, `${shown.path}/~${token}/in/${languageIn(shown)}`, 303)
    return
  }
  if (form.after === 'address' && form.thanksAddress.trim() !== '') {
    const address = linkAddress(form.thanksAddress)
    const tagged = taggedAddress(shown.posting.compiled.code, shown.visit, address)
    sendOn(response, withReference(parts, posting, visit, tagged), 303)
    return
  }
  const language = shown.chosen === '' ? '' : `?in=${shown.chosen}`
  sendOn(response, `${shown.path}/~${shown.token}/done/${form.id}/${sendKey}${language}`, 303)
}

/** Tells the script of a form what is asked, given what was answered so far, and what is wrong with that. */
function sendLook(response: ServerResponse, of: FormShown, { shown, faults }: ReadForm): void {
  const language = languageIn(of.shown)
  const { words } = wordsFor([language])
  const own = new Map(of.form.questions.map((each) => [each.id, 'wrong' in each ? each.wrong : {}]))
  const sentence = ([id, fault]: [string, AnswerFault]): [string, string][] => {
    // What is not answered yet is not wrong yet.
    if (fault.code === 'missing' || fault.code === 'disagreed') return []
    const { languages } = of.shown.page.content
    return [[id, said({ language, languages }, own.get(id) ?? {}).text || faultWords(fault, words, language)]]
  }
  const body = JSON.stringify({
    shown: [...shown],
    faults: Object.fromEntries([...faults].flatMap(sentence)),
  })
  response.writeHead(200, { 'Content-Type': 'application/json; charset=utf-8', 'Cache-Control': 'no-store' })
  response.end(body)
}

/** Answers who sent a form: with thanks, once their answers are on disk; or with the form, and what it still wants. */
export async function answerForm(
  parts: FormParts,
  response: ServerResponse,
  of: FormShown,
  sender: Sender,
  body: FormBody,
): Promise<void> {
  const now = Date.now()
  const files = filesOf(parts, of, body)
  const read = readSent(of, body.values, files)
  // One that is wrong is asked for again.
  const sentFiles = new Map(
    of.form.questions.flatMap(({ id }) => {
      const file = read.faults.has(id) ? undefined : files.get(valueName(id))
      return file ? [[id, file] as const] : []
    }),
  )
  const key = parts.formKeys.read(body.values.get(FORM_NAMES.key)?.[0] ?? '', shownName(of), now)
  const again = (next: Pick<Asking, 'faults' | 'step' | 'notice'>) => {
    const asking = { ...next, sent: body.values, read, files: sentFiles }
    show(response, of, askedVisit(parts, of, asking, key?.at ?? now))
  }
  if (body.values.get(FORM_NAMES.act)?.[0] === 'look') {
    sendLook(response, of, read)
    return
  }
  if (!key) {
    again({ faults: new Map(), step: 0, notice: 'expired' })
    return
  }
  const next = nextOf(of, body, read)
  const sendKey = sendKeyOf(parts, key, read.answers)
  // Whoever sends again what was taken is thanked again, whatever became of the form meanwhile.
  if (!next && parts.sentAnswers(sendKey)) {
    await afterSending(parts, response, of, sender, sendKey)
    return
  }
  const state = stateOf(parts, of, now)
  if (state !== 'open') {
    show(response, of, { kind: 'shut', state })
    return
  }
  if (next) {
    again(next)
    return
  }
  const held = heldReason(parts, body, key, sender, `${String(of.shown.page.id)} ${of.form.id}`, now)
  const outcome = await parts.writer.keepLead({
    lead: leadOf(of, sender, read.answers, sendKey, held, now),
    limit: of.form.limit,
    isOnceADay: of.form.isOnceADay,
    mails: mailsOf(of.form, now),
  })
  if (outcome.kind === 'full') {
    show(response, of, { kind: 'shut', state: 'full' })
    return
  }
  if (outcome.kind === 'once') {
    again({ faults: new Map(), step: 0, notice: 'once' })
    return
  }
  if (outcome.kind === 'stored' && outcome.isNew && held === '') parts.tellLead(sender.posting)
  if (held === '') await sender.note([{ kind: 'answered', part: of.form.id, item: '' }])
  await afterSending(parts, response, of, sender, sendKey)
}

/** Thanks somebody who sent a form, in the words of the form with their answers in them. */
export function thankFor(parts: FormParts, response: ServerResponse, of: FormShown, sendKey: string): void {
  const answers = parts.sentAnswers(sendKey)
  if (answers) show(response, of, { kind: 'done', answers })
  else sendOn(response, of.shown.path)
}
