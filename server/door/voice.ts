import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import { ownCss, PLAIN_STYLE } from '@flimbo/core/pages'
import { acceptedLanguages } from '@flimbo/core/scans'
import { wordsFor, type Spoken } from '@flimbo/core/words'
import type { Worn } from '../pages/index.ts'
import { remembering } from '../scans/index.ts'
import { fileHref } from './fileHref.ts'

/** How what the front door itself says looks. */
export interface Dress {
  readonly css: string
  /** The style sheet as a policy names it: that one and no other (Content Security Policy, section 2.3.1). */
  readonly source: string
}

/** How the front door speaks to a visitor: in which language, and in whose style. */
export interface Voice extends Spoken {
  readonly dress: Dress
}

function dress({ style, files }: Worn): Dress {
  const css = ownCss(style, (key) => {
    const file = files.get(key)
    return file ? fileHref(file) : ''
  })
  return { css, source: `'sha256-${createHash('sha256').update(css).digest('base64')}'` }
}

/** Each style is made up once, for as long as it is kept. */
const dressed = new WeakMap<Worn, Dress>()
export function dressOf(worn: Worn): Dress {
  const known = dressed.get(worn) ?? dress(worn)
  dressed.set(worn, known)
  return known
}

const PLAIN: Worn = { style: PLAIN_STYLE, files: new Map() }

const spokenBy = remembering((header) => wordsFor(acceptedLanguages(header).map(({ tag }) => tag)))

/** How a visitor is spoken to. */
export function voiceFor({ headers }: Pick<IncomingMessage, 'headers'>, worn: Worn = PLAIN): Voice {
  return { ...spokenBy(headers['accept-language'] ?? ''), dress: dressOf(worn) }
}

/** The same, by the languages that a visitor reads. */
export const voiceIn = (languages: readonly string[], worn: Worn = PLAIN): Voice => ({
  ...wordsFor(languages),
  dress: dressOf(worn),
})
