import express, { type Response, type Router } from 'express'
import type { EntityManager } from 'typeorm'
import { html, type Markup } from '@flimbo/core/fields'
import { sendPublicPage } from '../api/index.ts'
import type { Database } from '../database/index.ts'

export const UNSUBSCRIBE_PATH = '/unsubscribe/'

/** Ends what somebody is mailed for. */
export type EndOfMails = (manager: EntityManager) => Promise<unknown>
/** What a signed link ends; null where it is none of a kind. */
export type FindEnd = (token: string) => EndOfMails | null

const OVER = [
  'This link is no longer good',
  html`<p>Sign in to Flimbo to see what is mailed to you, or ask whoever has it mailed.</p>`,
] as const
const STYLE = 'body{font:16px/1.5 sans-serif;max-width:32rem;margin:3rem auto;padding:0 1rem}'

/**
 * Ends mails for whoever gets them. A mail program does it by one POST (RFC 8058); a person follows the link and presses the
 * button: what looks through mails for harm follows links too, and ends nothing.
 */
export function endingMails(database: Database, finders: readonly FindEnd[]): Router {
  const router = express.Router()
  const endOf = (token: string) =>
    finders.reduce<EndOfMails | null>((found, find) => found ?? find(token), null)
  const send = (response: Response, status: number, title: string, body: Markup) => {
    sendPublicPage(response, { status, title, body, css: STYLE })
  }
  router.get('/:token', (request, response) => {
    if (endOf(request.params.token) === null) send(response, 410, ...OVER)
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
    const end = endOf(request.params.token)
    request.resume()
    if (end === null) {
      send(response, 410, ...OVER)
      return
    }
    database
      .write(end)
      .then(() => {
        send(response, 200, 'Done', html`<p>You are not mailed for this any more.</p>`)
      })
      .catch(next)
  })
  return router
}
