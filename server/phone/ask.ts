import { request } from 'node:http'

/** What came back, as far as a phone looks at it. */
export interface Asked {
  readonly status: number
  readonly location: string | null
  readonly title: string
  readonly body: string
}

const TIMEOUT_MS = 5000
const BODY_MAX = 64 * 1024

/** Asks a server on this machine for an address, under the name the address gives it; with `form`, by sending that. */
export function fetchLocally(
  target: URL,
  port: number,
  bind: string,
  headers: Readonly<Record<string, string>>,
  form: Readonly<Record<string, string>> | null = null,
): Promise<Asked> {
  const host = bind === '0.0.0.0' || bind === '::' ? '127.0.0.1' : bind
  const sent = form && new URLSearchParams(form).toString()
  const formHeaders =
    sent === null
      ? {}
      : {
          'content-type': 'application/x-www-form-urlencoded',
          'content-length': String(Buffer.byteLength(sent)),
        }
  return new Promise((resolve, reject) => {
    const asking = request(
      {
        host,
        port,
        method: sent === null ? 'GET' : 'POST',
        path: target.pathname + target.search,
        headers: { ...headers, ...formHeaders, host: target.host },
        timeout: TIMEOUT_MS,
      },
      (response) => {
        let body = ''
        response.setEncoding('utf8')
        response.on('data', (chunk: string) => {
          if (body.length < BODY_MAX) body += chunk
        })
        response.on('end', () => {
          resolve({
            status: response.statusCode ?? 0,
            location: response.headers.location ?? null,
            title: /<title>([^<]*)/.exec(body)?.[1] ?? '',
            body,
          })
        })
      },
    )
    asking.on('timeout', () => {
      asking.destroy(new Error('no answer within 5 seconds'))
    })
    asking.on('error', reject)
    asking.end(sent ?? undefined)
  })
}
