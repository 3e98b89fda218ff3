import {
  ANSWER_FILE_MAX,
  faultWords,
  keptName,
  megabytesIn,
  OTHER,
  otherName,
  rankName,
  RATING_STEPS,
  SCALE_MOST,
  shuffled,
  valueName,
  type Asked,
  type QuestionOf,
} from '../../forms/index.ts'
import { html, type Localised, type Markup, said } from '../../fields/index.ts'
import { fill } from '../../words/index.ts'
import { altOf, pictureOf, richIn, wordsIn } from './shared.ts'
import { fileIn, type FormVisit, type Surroundings } from './surroundings.ts'

/** What a question is drawn into. */
export interface Drawing {
  readonly around: Surroundings
  readonly visit: Extract<FormVisit, { kind: 'asked' }>
  readonly partId: string
}

/** What is the same for each input of a question: its name, and what describes it. */
interface Told {
  readonly id: string
  readonly name: string
  readonly attributes: Markup
}

const valuesOf = ({ visit }: Drawing, name: string): readonly string[] => visit.sent.get(name) ?? []
const isOn = (values: readonly string[], value: string) => values.includes(value) && html` checked`

function textInput(
  { id, name, attributes }: Told,
  drawing: Drawing,
  type: 'text' | 'email' | 'tel' | 'date',
  more: Markup | null = null,
): Markup {
  return html`<input
    id="${id}"
    name="${name}"
    type="${type}"
    value="${valuesOf(drawing, name)[0] ?? ''}"
    ${attributes}${more}
  />`
}

function ticks(
  { id, name, attributes }: Told,
  drawing: Drawing,
  type: 'radio' | 'checkbox',
  options: readonly (readonly [value: string, label: Markup | string])[],
): Markup[] {
  const values = valuesOf(drawing, name)
  return options.map(
    ([value, label], i) =>
      html`<label class="tick"
        ><input
          type="${type}"
          name="${name}"
          value="${value}"
          ${i === 0 && html` id="${id}"`}${isOn(values, value)}${attributes}
        /><span>${label}</span></label
      >`,
  )
}

function choicesOf(
  question: QuestionOf<'one'> | QuestionOf<'some'> | QuestionOf<'dropdown'> | QuestionOf<'ranking'>,
  { visit }: Drawing,
) {
  return question.isShuffled ? shuffled(question.choices, `${visit.seed} ${question.id}`) : question.choices
}

const labelled = (around: Surroundings, value: Localised<string>) => wordsIn(around, value) ?? html``

function manyChoices(question: QuestionOf<'one'> | QuestionOf<'some'>, told: Told, drawing: Drawing): Markup {
  const { around } = drawing
  const { forms } = around.spoken.words
  const type = question.kind === 'one' ? 'radio' : 'checkbox'
  const options = choicesOf(question, drawing).map(
    ({ key, label }) => [key, labelled(around, label)] as const,
  )
  const other = otherName(question.id)
  return html`${ticks(told, drawing, type, options)}${
    question.hasOther &&
    html`<div class="other">
      ${ticks({ ...told, id: `${told.id}-o` }, drawing, type, [[OTHER, forms.other]])}<input
        name="${other}"
        type="text"
        value="${valuesOf(drawing, other)[0] ?? ''}"
        aria-label="${forms.otherWhich}"
      />
    </div>`
  }`
}

function dropdown(
  question: QuestionOf<'dropdown'>,
  { id, name, attributes }: Told,
  drawing: Drawing,
): Markup {
  const { around } = drawing
  const [value = ''] = valuesOf(drawing, name)
  const options = choicesOf(question, drawing).map(
    ({ key, label }) =>
      html`<option value="${key}" ${key === value && html` selected`}>${said(around, label).text}</option>`,
  )
  return html`<select id="${id}" name="${name}" ${attributes}>
    <option value="">${around.spoken.words.forms.choose}</option>
    ${options}
  </select>`
}

/** A place for each choice, so that nothing need be dragged. */
function ranking(question: QuestionOf<'ranking'>, { id, attributes }: Told, drawing: Drawing): Markup {
  const { around } = drawing
  const places = question.choices.map((_each, i) => String(i + 1))
  const rows = choicesOf(question, drawing).map(({ key, label }, row) => {
    const name = rankName(question.id, key)
    const [value = ''] = valuesOf(drawing, name)
    const options = places.map(
      (place) => html`<option${place === value && html` selected`}>${place}</option>`,
    )
    return html`<label class="tick"
      ><select name="${name}" ${row === 0 && html` id="${id}"`}${attributes}>
        <option value="">–</option>
        ${options}</select
      ><span>${labelled(around, label)}</span></label
    >`
  })
  return html`<p><small>${around.spoken.words.forms.rankHint}</small></p>
    ${rows}`
}

/** Steps from a low end to a high one, each with its number. */
function steps(question: QuestionOf<'rating'> | QuestionOf<'scale'>, told: Told, drawing: Drawing): Markup {
  const { around } = drawing
  const [first, last] = question.kind === 'scale' ? [0, SCALE_MOST] : [1, question.steps ?? RATING_STEPS]
  const options = Array.from(
    { length: last - first + 1 },
    (_each, i) => [String(first + i), String(first + i)] as const,
  )
  const [low, high] = [wordsIn(around, question.low), wordsIn(around, question.high)]
  return html`<div class="steps">${ticks(told, drawing, 'radio', options)}</div>
    ${(low ?? high) && html`<p class="ends"><small>${low}</small><small>${high}</small></p>`}`
}

const ACCEPTED: Readonly<Record<QuestionOf<'file'>['takes'], string>> = {
  pictures: 'image/*',
  documents: 'application/pdf',
  both: 'image/*,application/pdf',
}

function fileInput(
  question: QuestionOf<'file'>,
  { id, name, attributes }: Told,
  { around, visit }: Drawing,
): Markup {
  const size = megabytesIn(question.largest ?? ANSWER_FILE_MAX, around.language)
  const before = visit.files.get(question.id)
  const kept =
    before &&
    html`<p>${before.name}</p>
      <input type="hidden" name="${keptName(question.id)}" value="${before.kept}" />`
  return html`${kept ?? null}<input
      id="${id}"
      type="file"
      name="${name}"
      accept="${ACCEPTED[question.takes]}"
      ${attributes}
    />
    <p><small>${fill(around.spoken.words.forms.fileNote, { size })}</small></p>`
}

function inputOf(question: Asked, told: Told, drawing: Drawing): Markup {
  const { around } = drawing
  const { forms } = around.spoken.words
  switch (question.kind) {
    case 'short':
      return textInput(told, drawing, 'text')
    case 'long':
      return html`<textarea id="${told.id}" name="${told.name}" rows="4" ${told.attributes}>
${valuesOf(drawing, told.name)[0] ?? ''}</textarea>`
    case 'mail':
      return textInput(told, drawing, 'email', html` autocomplete="email" inputmode="email"`)
    case 'phone':
      return textInput(told, drawing, 'tel', html` autocomplete="tel"`)
    case 'number': {
      const unit = wordsIn(around, question.unit)
      const input = textInput(told, drawing, 'text', html` inputmode="decimal"`)
      return unit ? html`<div class="unit">${input}<span>${unit}</span></div>` : input
    }
    case 'date': {
      const bounds = html`${question.first !== '' && html` min="${question.first}"`}${question.last !== '' && html` max="${question.last}"`}`
      return textInput(told, drawing, 'date', bounds)
    }
    case 'one':
    case 'some':
      return manyChoices(question, told, drawing)
    case 'dropdown':
      return dropdown(question, told, drawing)
    case 'yesno':
      return html`${ticks(told, drawing, 'radio', [
        ['yes', forms.yes],
        ['no', forms.no],
      ])}`
    case 'rating':
    case 'scale':
      return steps(question, told, drawing)
    case 'ranking':
      return ranking(question, told, drawing)
    case 'file':
      return fileInput(question, told, drawing)
    case 'consent':
      return html`${richIn(around, drawing.partId, question.consent)}${ticks(told, drawing, 'checkbox', [['yes', forms.agree]])}`
    case 'hidden':
      return html``
  }
}

/** Questions of several inputs are a group with a legend; those of one have a label. */
const IS_GROUP: ReadonlySet<Asked['kind']> = new Set([
  'one',
  'some',
  'yesno',
  'rating',
  'scale',
  'ranking',
  'consent',
])

/** A question, hidden where it is not asked as things are: without script it comes when the answers before it were sent. */
export function questionMarkup(question: Asked, drawing: Drawing, isShown: boolean): Markup | null {
  if (question.kind === 'hidden') return null
  const { around, visit, partId } = drawing
  const { forms } = around.spoken.words
  const fault = visit.faults.get(question.id)
  const id = `${partId}-${question.id}`
  const label = wordsIn(around, question.label)
  const help = question.kind === 'consent' ? null : wordsIn(around, question.help)
  const own = question.kind === 'consent' ? null : wordsIn(around, question.wrong)
  const described = [...(help ? [`${id}-h`] : []), ...(fault ? [`${id}-f`] : [])].join(' ')
  const attributes = html`${described !== '' && html` aria-describedby="${described}"`}${fault !== undefined && html` aria-invalid="true"`}`
  const told: Told = { id, name: valueName(question.id), attributes }
  const picture = question.kind === 'consent' ? undefined : fileIn(around, question.picture)
  const shownPicture =
    picture && question.kind !== 'consent' && pictureOf(around, picture, altOf(around, question.alt))
  const must = question.isRequired && html` <small class="must">(${forms.required})</small>`
  const inside = html`${help && html`<p id="${id}-h" class="help">${help}</p>`}${shownPicture ?? null}${fault !== undefined && html`<p id="${id}-f" class="fault">${own ?? faultWords(fault, around.spoken.words, around.language)}</p>`}${inputOf(question, told, drawing)}`
  const hidden = !isShown && html` hidden`
  return IS_GROUP.has(question.kind)
    ? html`<fieldset data-q="${question.id}" ${hidden}>
        <legend>${label}${must}</legend>
        ${inside}
      </fieldset>`
    : html`<div class="q" data-q="${question.id}" ${hidden}>
        <label for="${id}">${label}${must}</label>${inside}
      </div>`
}
