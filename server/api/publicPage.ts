import type { Response } from 'express'
import { html, trusted, type Markup } from '@flimbo/core/fields'
import { publicDocument, type Writing } from '@flimbo/core/pages'

/**
 * Answers with a page of a few words for those who do not sign in, in a style sheet that the office's policy lets in; English
 * where no other language is named.
 */
export function sendPublicPage(
  response: Response,
  {
    status,
    title,
    body,
    css,
    writing,
  }: { status: number; title: string; body: Markup; css: string; writing?: Writing },
): void {
  if (writing) response.set('Content-Language', writing.language)
  const { nonce } = response.locals as { nonce: string }
  const head = html`<style nonce="${nonce}">
    ${trusted(css)}
  </style>`.markup
  response
    .status(status)
    .type('html')
    .send(publicDocument(title, body.markup, { css: '', head, writing }))
}
