import type { ErrorRequestHandler, RequestHandler, Response } from 'express'
import type { Logger } from 'pino'
import { problemOf, type Problem } from '@flimbo/core/api'
import { createSparingLog } from '../log/index.ts'
import { Refusal } from './errors.ts'

/** Sends a refusal as problem details (RFC 9457). */
export function sendProblem(response: Response, problem: Problem): void {
  // It may have been about to become a file.
  response.removeHeader('Content-Disposition')
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}

/** What Express raises, put into the same words as everything else. */
function foreignProblem(error: unknown): Problem | null {
  const { status } = error as { status?: unknown }
  if (status === 404) return problemOf('missing', 'There is nothing here.')
  if (error instanceof URIError || status === 400)
    return problemOf('malformed', 'The request is damaged and could not be read.')
  return null
}

function isDiskFull(error: unknown): boolean {
  return (
    error instanceof Error &&
    /SQLITE_FULL|database or disk is full/.test(
      `${error.message} ${String((error as { code?: unknown }).code)}`,
    )
  )
}

/** Turns whatever a handler threw into problem details. What nobody expected is logged and told in general words. */
export function failures(log: Pick<Logger, 'error'>): ErrorRequestHandler {
  const complain = createSparingLog(log)
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error)
      return
    }
    // Nobody waits for the answer any more: the page was left, or the server is stopping.
    if (response.destroyed || response.socket?.destroyed) return
    if (error instanceof Refusal) {
      sendProblem(response, error.problem)
      return
    }
    const foreign = foreignProblem(error)
    if (foreign) {
      sendProblem(response, foreign)
      return
    }
    complain(
      error,
      `office: ${request.method} ${request.baseUrl}${request.route ? String((request.route as { path: unknown }).path) : ''} failed`,
    )
    sendProblem(
      response,
      isDiskFull(error)
        ? problemOf('unavailable', 'The disk is full, so nothing was saved. Make room on it and save again.')
        : problemOf(
            'failed',
            'Something went wrong on the server and nothing was saved. Try again; if it stays, the server’s log says more.',
          ),
    )
  }
}

export const notFound: RequestHandler = (request, response) => {
  sendProblem(
    response,
    problemOf(
      'missing',
      `The API has nothing at ${request.method} ${request.originalUrl.split('?')[0] ?? ''}; /api/openapi.json lists what it has.`,
    ),
  )
}
