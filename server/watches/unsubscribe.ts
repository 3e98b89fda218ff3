import express, { type Response, type Router } from 'express'
import { html, trusted } from '@flimbo/core/fields'
import { publicDocument } from '@flimbo/core/pages'
import { tables, type Database } from '../database/index.ts'
import { idSigner } from '../signing/index.ts'

export const UNSUBSCRIBE_PATH = '/unsubscribe/'

/** Links by which somebody ends what they are mailed for, without signing in. */
export function unsubscribeLinks(key: Buffer) {
  const signer = idSigner(key, ' unsubscribe')
  return {
    pathOf: (watchId: number): string => UNSUBSCRIBE_PATH + signer.signed(watchId),
    watchOf: signer.read,
  }
}
export type UnsubscribeLinks = ReturnType<typeof unsubscribeLinks>

const OVER = [
  'This link is no longer good',
  html`<p>Sign in to Flimbo and remove the watch there.</p>`,
] as const
const STYLE = 'body{font:16px/1.5 sans-serif;max-width:32rem;margin:3rem auto;padding:0 1rem}'

/**
 * Ends a watch for whoever was mailed for it. A mail program does it by one POST (RFC 8058); a person follows the link and
 * presses the button: what looks through mails for harm follows links too, and ends nothing.
 */
export function unsubscribing(database: Database, links: UnsubscribeLinks): Router {
  const router = express.Router()
  const send = (response: Response, status: number, title: string, body: { readonly markup: string }) => {
    const nonce = (response.locals as { nonce: string }).nonce
    const head = html`<style nonce="${nonce}">
      ${trusted(STYLE)}
    </style>`.markup
    response.status(status).send(publicDocument(title, body.markup, { css: '', head }))
  }
  router.get('/:token', (request, response) => {
    if (links.watchOf(request.params.token) === null) send(response, 410, ...OVER)
    else
      send(
        response,
        200,
        'Stop these mails?',
        html`<p>You will not be mailed for this any more.</p>
          <form method="post"><button>Stop these mails</button></form>`,
      )
  })
  router.post('/:token', (request, response, next) => {
    const id = links.watchOf(request.params.token)
    request.resume()
    if (id === null) {
      send(response, 410, ...OVER)
      return
    }
    database
      .write((manager) => manager.delete(tables.watches, { id }))
      .then(() => {
        send(response, 200, 'Done', html`<p>You are not mailed for this any more.</p>`)
      })
      .catch(next)
  })
  return router
}
