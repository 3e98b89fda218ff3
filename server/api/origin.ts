import type { RequestHandler } from 'express'
import type { Addresses } from '../line/index.ts'
import { Refusal } from './errors.ts'

/**
 * Lets writes come only from the office's own pages, at the address the configuration names: scheme, host and port.
 * Browsers name the page's origin in `Origin`; a program without it, and without `Sec-Fetch-Site`, is no browser that
 * could be tricked, and its session cookie is its own. The request's `Host` proves nothing: a name that somebody else
 * owns may be made to lead here.
 */
export function ownOriginOnly(addresses: Pick<Addresses, 'office'>): RequestHandler {
  return (request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      next()
      return
    }
    const { origin } = request.headers
    const site = request.headers['sec-fetch-site']
    const own =
      origin === undefined ? site === undefined || site === 'same-origin' : origin === addresses.office
    if (!own)
      throw new Refusal(
        'forbidden',
        `This change came from another site’s page and was not made. The office is at ${addresses.office}.`,
      )
    next()
  }
}
