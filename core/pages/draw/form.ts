import {
  fillAnswers,
  sectionsOf,
  walkForm,
  type Asked,
  type FormState,
  type Question,
} from '../../forms/index.ts'
import { html, type Markup, said } from '../../fields/index.ts'
import { fill } from '../../words/index.ts'
import type { PartOf } from '../parts.ts'
import { questionMarkup, type Drawing } from './question.ts'
import { wordsIn } from './shared.ts'
import type { FormVisit, Surroundings } from './surroundings.ts'

/** Names of what a form sends beside its answers. */
export const FORM_NAMES = { key: 'key', asked: 'asked', step: 'step', act: 'act', trap: 'website' } as const

/** Months as a language writes them: 6 months. */
const monthsIn = (months: number, language: string): string =>
  new Intl.NumberFormat(language, { style: 'unit', unit: 'month', unitDisplay: 'long' }).format(months)

/** What stands in the place of a form that takes no answers. */
function shut(part: PartOf<'form'>, around: Surroundings, state: Exclude<FormState, 'open'>): Markup {
  const { forms } = around.spoken.words
  if (state === 'early') {
    const opens = new Intl.DateTimeFormat(around.language, {
      dateStyle: 'long',
      timeStyle: 'short',
      timeZone: 'UTC',
    })
    const time = part.opens === '' ? '' : opens.format(new Date(`${part.opens}Z`))
    return html`<p>${wordsIn(around, part.before) ?? fill(forms.early, { time })}</p>`
  }
  return html`<p>${wordsIn(around, part.closed) ?? (state === 'full' ? forms.full : forms.closed)}</p>`
}

function thanks(
  part: PartOf<'form'>,
  around: Surroundings,
  { answers }: Extract<FormVisit, { kind: 'done' }>,
): Markup {
  const { forms } = around.spoken.words
  const { language, languages } = around
  const { text, lang } = said(around, part.thanks)
  const written =
    text === ''
      ? forms.thanks
      : fillAnswers(text, part.questions, answers, { language: lang || language, languages, words: forms })
  const lines = written.split('\n').map((line, i) => (i === 0 ? html`${line}` : html`<br />${line}`))
  const { mails } = around.spoken.words
  const isAsked = part.confirms && part.questions.some(({ id, kind }) => kind === 'mail' && id in answers)
  return html`<div role="status" tabindex="-1" class="sent">
    <h2>${forms.thanksTitle}</h2>
    <p>${lines}</p>
    ${isAsked && html`<p>${mails.checkMail}</p>`}
  </div>`
}

/** Values that were sent with other steps, so that nothing is lost between them. */
function carried(visit: Extract<FormVisit, { kind: 'asked' }>, here: ReadonlySet<string>): Markup[] {
  return [...visit.sent].flatMap(([name, values]) => {
    const id = name.split('.')[1] ?? ''
    if (!name.startsWith('q.') || here.has(id)) return []
    return values.map((value) => html`<input type="hidden" name="${name}" value="${value}" />`)
  })
}

function sectionMarkup(
  {
    section,
    questions,
  }: { section: Extract<Question, { kind: 'section' }> | null; questions: readonly Asked[] },
  drawing: Drawing,
  shown: ReadonlySet<string>,
): Markup {
  const { around } = drawing
  const asked = questions.map((each) => questionMarkup(each, drawing, shown.has(each.id)))
  if (!section) return html`${asked}`
  const help = wordsIn(around, section.help)
  return html`<section data-section="${section.id}" ${!shown.has(section.id) && html` hidden`}>
    <h3>${wordsIn(around, section.title)}</h3>
    ${help && html`<p>${help}</p>`}${asked}
  </section>`
}

/** What keeps programs from answering: people neither see it nor come to it. */
const trap = html`<div class="only" aria-hidden="true">
  <label>Website <input name="${FORM_NAMES.trap}" tabindex="-1" autocomplete="off" /></label>
</div>`

function asking(
  part: PartOf<'form'>,
  around: Surroundings,
  visit: Extract<FormVisit, { kind: 'asked' }>,
): Markup {
  const { forms } = around.spoken.words
  const { shown } = visit
  const all = sectionsOf(part.questions)
  const isStepwise = part.steps === 'steps'
  const open = all.filter(({ section }) => section === null || shown.has(section.id))
  const step = Math.min(Math.max(0, visit.step), open.length - 1)
  const here = isStepwise ? open.slice(step, step + 1) : all
  const ids = new Set(
    here.flatMap(({ section, questions }) => [
      ...(section ? [section.id] : []),
      ...questions.map(({ id }) => id),
    ]),
  )
  const drawing: Drawing = { around, visit, partId: part.id }
  const isLast = !isStepwise || step >= open.length - 1
  const send = wordsIn(around, part.send) ?? forms.send
  const look = part.look === 'outlined' ? 'go quiet' : 'go'
  const file = part.questions.some(({ kind }) => kind === 'file')
  const notice = visit.notice && html`<p class="fault" role="alert" tabindex="-1">${forms[visit.notice]}</p>`
  return html`<form
    method="post"
    action="${visit.action}"
    ${file && html` enctype="multipart/form-data"`}
    novalidate
    data-form="${part.id}"
  >
    ${notice}
    ${
      isStepwise &&
      open.length > 1 &&
      html`<p class="step">${fill(forms.step, { n: String(step + 1), of: String(open.length) })}</p>
        <progress max="${open.length}" value="${step + 1}" aria-hidden="true"></progress>`
    }
    ${here.map((each) => sectionMarkup(each, drawing, shown))}${carried(visit, ids)}
    <input type="hidden" name="${FORM_NAMES.key}" value="${visit.key}" /><input
      type="hidden"
      name="${FORM_NAMES.step}"
      value="${step}"
    />
    <input
      type="hidden"
      name="${FORM_NAMES.asked}"
      value="${[...shown].filter((id) => ids.has(id)).join(',')}"
    />${trap}
    ${part.keptMonths !== null && html`<p><small>${fill(forms.kept, { time: monthsIn(part.keptMonths, around.language) })}</small></p>`}
    <p hidden data-draft><small>${forms.draft}</small></p>
    <p hidden role="status" data-status="${forms.sending}" data-offline="${forms.offline}"></p>
    <button class="${look}" name="${FORM_NAMES.act}" value="${isLast ? 'send' : 'next'}">
      ${isLast ? send : forms.next}
    </button>
    ${isStepwise && step > 0 && html`<button class="go quiet" name="${FORM_NAMES.act}" value="back">${forms.back}</button>`}
  </form>`
}

function formBody(part: PartOf<'form'>, around: Surroundings, visit: FormVisit): Markup {
  if (visit.kind === 'done') return thanks(part, around, visit)
  return visit.kind === 'shut' ? shut(part, around, visit.state) : asking(part, around, visit)
}

/** A form: what it asks, or why it asks nothing. */
export function formPart(part: PartOf<'form'>, around: Surroundings): Markup | null {
  if (part.questions.length === 0) return null
  const visit = around.form?.(part) ?? previewed(part)
  const heading = wordsIn(around, part.label)
  return html`<section class="form" id="${part.id}">
    ${heading && html`<h2>${heading}</h2>`}${formBody(part, around, visit)}
  </section>`
}

/** A form that nobody has begun, and that sends nothing. */
function previewed({ questions, id }: PartOf<'form'>): FormVisit {
  const { shown } = walkForm(questions, () => undefined)
  return {
    kind: 'asked',
    action: '#',
    key: '',
    sent: new Map(),
    shown,
    faults: new Map(),
    files: new Map(),
    step: 0,
    notice: null,
    seed: id,
  }
}
