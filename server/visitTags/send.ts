import { hitAddress, hitBody, type VisitTag, type VisitValues } from '@flimbo/core/visitTags'
import { ForbiddenAddress, requestTo, type Reach } from '../reach/index.ts'

const TIMEOUT_MS = 10_000
const USER_AGENT = 'Flimbo measurement'

/**
 * Sends one hit: a GET of the tag's address, or a POST of its JSON. Nothing of the visitor goes with it.
 * @returns an empty text where the collector took it, or else what went wrong, in words
 */
export function sendHit(
  tag: VisitTag,
  visit: VisitValues,
  reach: Reach,
  stopping: AbortSignal,
): Promise<string> {
  const url = new URL(hitAddress(tag, visit))
  const body = hitBody(tag, visit)
  return new Promise((resolve) => {
    const failed = (error: unknown) => {
      resolve(faultOf(error))
    }
    try {
      const asking = requestTo(
        url,
        reach,
        {
          method: body === null ? 'GET' : 'POST',
          signal: AbortSignal.any([stopping, AbortSignal.timeout(TIMEOUT_MS)]),
          headers: {
            'User-Agent': USER_AGENT,
            ...(body === null
              ? {}
              : { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }),
          },
        },
        (response) => {
          const { statusCode = 0 } = response
          response.resume()
          response.on('error', failed)
          response.on('end', () => {
            resolve(
              statusCode >= 200 && statusCode < 300 ? '' : `the collector answered ${String(statusCode)}`,
            )
          })
        },
      )
      asking.on('error', failed)
      asking.end(body ?? undefined)
    } catch (error) {
      failed(error)
    }
  })
}

function faultOf(error: unknown): string {
  if (error instanceof ForbiddenAddress) return 'the collector has a private address, which is not reached'
  const { name, code } = error as { name?: string; code?: unknown }
  if (name === 'AbortError' || name === 'TimeoutError')
    return 'the collector did not answer within ten seconds'
  return `the collector could not be reached (${typeof code === 'string' ? code : 'no connection'})`
}
