import { request, type IncomingHttpHeaders } from 'node:http'

/** The first person of a workspace in tests. */
export const OWNER = {
  workspace: 'Saltmarsh Line',
  zone: 'Europe/Berlin',
  name: 'Anna Petersen',
  email: 'anna@saltmarsh.example',
  password: 'low tide at noon',
}

export interface Answer<T = unknown> {
  readonly status: number
  readonly headers: IncomingHttpHeaders
  readonly body: T
}

function read(text: string, type: string | undefined): unknown {
  return /json/.test(type ?? '') ? JSON.parse(text) : text
}

/** One HTTP request as it is, without a client's own ideas of redirects and cookies. */
export function http(
  method: string,
  port: number,
  path: string,
  headers: Record<string, string> = {},
  body?: string | Uint8Array,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const asking = request(
      {
        host: '127.0.0.1',
        port,
        path,
        method,
        headers: {
          ...(body === undefined
            ? {}
            : { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(body)) }),
          ...headers,
        },
      },
      (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('end', () => {
          const whole = Buffer.concat(parts)
          const type = response.headers['content-type']
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            body: /image\/(png|jpeg|webp)|application\/(zip|pdf|vnd)/.test(type ?? '')
              ? whole
              : read(whole.toString('utf8'), type),
          })
        })
      },
    )
    asking.on('error', reject)
    asking.end(body)
  })
}
