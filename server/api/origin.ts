import type { RequestHandler } from 'express'
import { readUrl } from '@flimbo/core/api'
import { Refusal } from './errors.ts'

/**
 * Lets writes come only from the office's own pages. Browsers name the page's origin in `Origin`, or
 * say in `Sec-Fetch-Site` that it is the same; a program without either is no browser that could be
 * tricked, and its session cookie is its own.
 */
export function ownOriginOnly(officeUrl: string): RequestHandler {
  return (request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') { next(); return }
    const { origin } = request.headers
    const site = request.headers['sec-fetch-site']
    const own = origin === undefined ? site === undefined || site === 'same-origin' : origin === officeUrl || isSameHost(origin, request.headers.host)
    if (!own) throw new Refusal('forbidden', 'This change came from another site’s page and was not made.')
    next()
  }
}

function isSameHost(origin: string, host: string | undefined): boolean {
  return host !== undefined && readUrl(origin)?.host === host
}
