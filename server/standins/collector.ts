import type { IncomingMessage, ServerResponse } from 'node:http'
import type { ReceivedHit } from '@flimbo/core/visitTags'

/** How many hits are remembered. */
const KEPT = 200
const BODY_MAX = 64 * 1024
/** A transparent picture of one pixel (GIF89a). */
const PIXEL = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
/** What a container does here: it sends one hit with everything its page told it. */
const CONTAINER =
  "const s=document.currentScript;navigator.sendBeacon(s.src.replace(/container\\.js.*/,'hit'),new URLSearchParams({...s.dataset,from:'container'}))"

/** An analytics collector: it takes hits by GET and POST, with values in the query, a form or JSON, and remembers the latest. */
export interface Collector {
  take(request: IncomingMessage, response: ServerResponse, site: string, address: URL): void
  /** The newest first. */
  received(): ReceivedHit[]
}

/** Whether an address belongs to the stand-in of an analytics collector. */
export function isCollectorHost(hostname: string): boolean {
  return hostname === 'collector.example' || hostname.endsWith('.collector.example')
}

/** A stand-in for an analytics collector: takes hits, keeps the latest, and can be told to fail. */
export function collector(): Collector {
  const hits: ReceivedHit[] = []
  let number = 0
  return {
    received: () => [...hits],
    take(request, response, site, address) {
      let body = ''
      request.setEncoding('utf8')
      request.on('data', (part: string) => {
        if (body.length < BODY_MAX) body += part
      })
      request.on('end', () => {
        const by = /^Flimbo/.test(request.headers['user-agent'] ?? '') ? 'server' : 'phone'
        hits.unshift({
          number: ++number,
          at: Date.now(),
          by,
          method: request.method ?? '',
          site,
          path: address.pathname,
          values: [...address.searchParams, ...valuesIn(body, request.headers['content-type'] ?? '')],
        })
        hits.length = Math.min(hits.length, KEPT)
        answer(response, request.method ?? '', address.pathname)
      })
    },
  }
}

function answer(response: ServerResponse, method: string, path: string): void {
  const headers = { 'Cache-Control': 'no-store', 'Access-Control-Allow-Origin': '*' }
  if (method === 'POST') response.writeHead(204, headers).end()
  else if (path.endsWith('/container.js'))
    response.writeHead(200, { ...headers, 'Content-Type': 'text/javascript; charset=utf-8' }).end(CONTAINER)
  else response.writeHead(200, { ...headers, 'Content-Type': 'image/gif' }).end(PIXEL)
}

/** The values of a body, one level under another joined by dots; what cannot be read is shown as it came. */
function valuesIn(body: string, type: string): [string, string][] {
  if (body === '') return []
  if (/^application\/x-www-form-urlencoded\b/i.test(type)) return [...new URLSearchParams(body)]
  try {
    return leaves(JSON.parse(body), '')
  } catch {
    return [['body', body]]
  }
}

function leaves(json: unknown, path: string): [string, string][] {
  if (typeof json !== 'object' || json === null) return [[path, String(json)]]
  return Object.entries(json).flatMap(([name, each]) => leaves(each, path === '' ? name : `${path}.${name}`))
}
