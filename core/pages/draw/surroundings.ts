import type { Spoken } from '../../words/index.ts'
import { said, type Localised } from '../../fields/index.ts'
import type { AnswerFault, Answers, FormState, SentValues } from '../../forms/index.ts'
import type { Part, PartOf } from '../parts.ts'
import type { PageStyle } from '../style.ts'

/** An uploaded file as a page shows it. */
export interface ShownFile {
  readonly key: string
  /** Another when its bytes are: addresses that have it can be kept for ever. */
  readonly mark: string
  readonly name: string
  /** Its media type. */
  readonly type: string
  readonly bytes: number
  /** In pixels; 0 of what is no picture. */
  readonly width: number
  readonly height: number
  /** Widths in pixels that it is there in as AVIF, WebP and JPEG, ascending; empty where only as it is. */
  readonly widths: readonly number[]
}

/** In which form a picture is sent. */
export interface Variant {
  readonly width: number
  readonly format: 'avif' | 'webp' | 'jpg'
}

/** A form as somebody has come to it. */
export type FormVisit =
  /** It takes no answers. */
  | { readonly kind: 'shut'; readonly state: Exclude<FormState, 'open'> }
  /** It was sent, with these answers. */
  | { readonly kind: 'done'; readonly answers: Answers }
  | {
      readonly kind: 'asked'
      /** Where it is sent. */
      readonly action: string
      /** Tells that this page showed it, and when. */
      readonly key: string
      /** What was sent before, to be shown again; and what of it is asked, given that. */
      readonly sent: SentValues
      readonly shown: ReadonlySet<string>
      readonly faults: ReadonlyMap<string, AnswerFault>
      /** Files that were sent before, by the ids of their questions: what they are called, and what names them to the front door. */
      readonly files: ReadonlyMap<string, { readonly name: string; readonly kept: string }>
      /** The section that is asked, where they are asked one by one; from 0. */
      readonly step: number
      /** Why it is shown again. */
      readonly notice: 'check' | 'more' | 'expired' | 'once' | null
      /** Decides the order of what is shuffled. */
      readonly seed: string
    }

/** What a page is drawn into: who sees it when, and where its links go. */
export interface Surroundings {
  /** The language it is shown in, one of its own; and the others that it has. */
  readonly language: string
  readonly languages: readonly string[]
  /** What Flimbo itself says, in that language or the nearest there is. */
  readonly spoken: Spoken
  /** UTC milliseconds. */
  readonly now: number
  readonly zone: string
  readonly style: PageStyle
  /** Forces one of the palettes of a style that has both, for previews. */
  readonly scheme?: 'light' | 'dark'
  /** Whether a part is shown to this visitor. */
  readonly shows: (part: Part) => boolean
  /** The system of the visitor's device, as user agents name it. */
  readonly system: string
  readonly file: (key: string) => ShownFile | undefined
  readonly fileHref: (file: ShownFile, variant?: Variant) => string
  /** Where a link of a part leads: `item` tells its links apart. */
  readonly linkHref: (partId: string, item: string, address: string) => string
  /** Where what a part gives is taken: a contact, an event, a file. */
  readonly takeHref: (partId: string) => string
  /** Where a contact is taken as a wallet pass; null where the workspace signs none. */
  readonly passHref: ((partId: string) => string) | null
  /** A form as the visitor has come to it; left out where nobody answers it, as in previews. */
  readonly form?: (part: PartOf<'form'>) => FormVisit
  /** The same page in another of its languages. */
  readonly languageHref: (language: string) => string
  /** A map about a place, as markup; empty where there is none. */
  readonly mapOf: (point: { readonly latitude: number; readonly longitude: number }) => string
  /** Where the page tells what happened on it; null where it tells nobody, as in previews. */
  readonly tellHref: string | null
  /** Of the styles and the script in it. */
  readonly nonce: string
  /** The whole address of the page, and of the files it names in its head; empty where nobody previews it. */
  readonly origin: string
}

/** The file of a field for the visitor. */
export function fileIn(around: Surroundings, value: Localised<string>): ShownFile | undefined {
  const { text } = said(around, value)
  return text === '' ? undefined : around.file(text)
}

/** Where a picture is in full, in a format; one that is there only as it is, as that. */
export function fullHref(
  { fileHref }: Pick<Surroundings, 'fileHref'>,
  file: ShownFile,
  format: Variant['format'],
): string {
  const width = file.widths.at(-1)
  return width === undefined ? fileHref(file) : fileHref(file, { width, format })
}

/** What a language is called in itself. */
export const ownName = (tag: string): string =>
  new Intl.DisplayNames(tag, { type: 'language' }).of(tag) ?? tag
