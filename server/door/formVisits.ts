import {
  formState,
  readForm,
  type AnswerFault,
  type AnswerFile,
  type AnswerReaders,
  type QuestionOf,
  type ReadForm,
  type SentValues,
} from '@flimbo/core/forms'
import type { FormVisit, PartOf } from '@flimbo/core/pages'
import { answerReaders } from '../leads/index.ts'
import { languageIn, queryIn, type Shown } from './drawnPage.ts'
import type { FormKeys } from './formKeys.ts'

type Form = PartOf<'form'>

export interface FormVisitParts {
  readonly formKeys: FormKeys
  /** How many answers a form of a page took. */
  readonly answersOf: (pageId: number, part: string) => number
}

/** A form on a page that somebody is shown, and where it is sent. */
export interface FormShown {
  readonly form: Form
  readonly shown: Shown
}

/** What names a form to its key: the page as it was shown, and the part. */
export const shownName = ({ form, shown }: FormShown): string => `${shown.token} ${form.id}`

/** What a hidden question holds: of the address that was scanned, or of the piece. */
function hiddenValue({ from, parameter }: QuestionOf<'hidden'>, { posting, visit }: Shown): string {
  if (from === 'query') return new URLSearchParams(visit.query).get(parameter.trim()) ?? ''
  const { label, source, medium, content } = posting.compiled.code.scanned
  return { piece: label, source, medium, content }[from]
}

/** What reads the answers of somebody who is shown a form. */
export function readersFor(
  { shown }: FormShown,
  files: ReadonlyMap<string, AnswerFile | null> = new Map(),
): AnswerReaders {
  return {
    ...answerReaders,
    file: (name) => files.get(name) ?? null,
    hidden: (question) => hiddenValue(question, shown),
    language: languageIn(shown),
  }
}

export const readSent = (
  of: FormShown,
  sent: SentValues,
  files?: ReadonlyMap<string, AnswerFile | null>,
): ReadForm => readForm(of.form.questions, sent, readersFor(of, files))

/** Whether a form takes answers at a moment, by what is stored. */
export const stateOf = ({ answersOf }: FormVisitParts, { form, shown }: FormShown, now: number) =>
  formState(form, shown.page.content.zone, now, form.limit === null ? 0 : answersOf(shown.page.id, form.id))

/** A form as it is asked again, or for the first time. */
export interface Asking {
  readonly sent: SentValues
  readonly read: ReadForm
  readonly faults: ReadonlyMap<string, AnswerFault>
  readonly files: ReadonlyMap<string, AnswerFile>
  readonly step: number
  readonly notice: Extract<FormVisit, { kind: 'asked' }>['notice']
}

/**
 * A form that is asked, with a key of its own.
 *
 * @param since when it was shown for the first time: whoever corrects an answer has read it
 */
export function askedVisit(
  { formKeys }: FormVisitParts,
  of: FormShown,
  asking: Asking,
  since: number,
): FormVisit {
  const { form, shown } = of
  const { path, token } = shown
  const { read, files, ...again } = asking
  return {
    kind: 'asked',
    ...again,
    action: `${path}/~${token}/f/${form.id}${queryIn(shown)}`,
    key: formKeys.issue(shownName(of), since),
    shown: read.shown,
    files: new Map(
      [...files].map(([id, file]) => [id, { name: file.name, kept: formKeys.sign(JSON.stringify(file)) }]),
    ),
    seed: token,
  }
}

/** How a form on a page is shown to somebody who comes to it. */
export function formVisit(parts: FormVisitParts, of: FormShown, now: number): FormVisit {
  const state = stateOf(parts, of, now)
  if (state !== 'open') return { kind: 'shut', state }
  const read = readSent(of, new Map())
  return askedVisit(
    parts,
    of,
    { sent: new Map(), read, faults: new Map(), files: new Map(), step: 0, notice: null },
    now,
  )
}
