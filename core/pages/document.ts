import { escapeMarkup } from '../fields/index.ts'

/** The language of a document (BCP 47), and which way it is written. */
export interface Writing {
  readonly language: string
  readonly direction: 'ltr' | 'rtl'
}
const ENGLISH: Writing = { language: 'en', direction: 'ltr' }

/** What a document looks like, beside what stands in it. */
export interface Looks {
  readonly css: string
  readonly writing?: Writing | undefined
  /** Markup of its head. */
  readonly head?: string
}

/** A whole document of a few words, as phones are shown it, readable without script; `body` is markup. */
export function publicDocument(
  title: string,
  body: string,
  { css, writing: { language, direction } = ENGLISH, head = '' }: Looks,
): string {
  const name = escapeMarkup(title)
  return `<!doctype html><html lang="${language}"${direction === 'rtl' ? ' dir="rtl"' : ''}><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${name}</title>${css === '' ? '' : `<style>${css}</style>`}${head}</head><body><main class="own"><h1>${name}</h1>${body}</main></body></html>`
}
