import type { IncomingMessage, ServerResponse } from 'node:http'
import { fileKey } from '@flimbo/core/files'
import sendStream from 'send'
import { stat } from 'node:fs/promises'
import { dirname, basename } from 'node:path'
import { INERT_POLICY, variantSuffix } from '../files/index.ts'
import type { PageShelf } from '../pages/index.ts'
import { FILES_PATH } from './fileHref.ts'
import { sendPage } from './respond.ts'

export interface FileParts {
  readonly shelf: PageShelf
  readonly placeOf: (sum: string, suffix?: string) => string
}

const VARIANT = /^(\d{1,5})\.(avif|webp|jpg)$/
const VARIANT_TYPES: Readonly<Record<string, string>> = {
  avif: 'image/avif',
  webp: 'image/webp',
  jpg: 'image/jpeg',
}
const YEAR_MS = 365 * 86_400_000

/**
 * A suffix that is longer than the file means all of it (RFC 9110, section 14.1.2); the library takes it for one that is not
 * there.
 */
async function wholeSuffix(request: IncomingMessage, place: string): Promise<void> {
  const [, length] = /^bytes=-(\d+)$/.exec(request.headers.range ?? '') ?? []
  if (length === undefined) return
  const { size } = await stat(place)
  if (Number(length) >= size) request.headers.range = 'bytes=0-'
}

/**
 * Sends a public file, or a part of it: ranges, validators and conditions as RFC 9110 has them, by the library that does that
 * for Express too. Under an address with the mark of its bytes it may be kept for ever; without, it is asked for anew.
 */
export async function sendPublicFile(
  { shelf, placeOf }: FileParts,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  query: string,
): Promise<void> {
  const [key = '', name = ''] = path.slice(FILES_PATH.length).split('/')
  const file = fileKey.safeParse(key).success ? await shelf.file(key) : null
  if (!file) {
    sendPage(response, 'unknown')
    return
  }
  const [, width = '', format = ''] = VARIANT.exec(name) ?? []
  const isVariant = format !== '' && file.widths.includes(Number(width))
  const place = isVariant ? placeOf(file.sum, variantSuffix(Number(width), format)) : placeOf(file.sum)
  const type = isVariant ? (VARIANT_TYPES[format] ?? file.type) : file.type
  const fields = new URLSearchParams(query)
  const isMarked = fields.get('v') === file.sum.slice(0, 8)
  const way = fields.has('save') ? 'attachment' : 'inline'
  response.setHeader('ETag', `"${file.sum.slice(0, 32)}${isVariant ? `-${width}-${format}` : ''}"`)
  response.setHeader('Content-Type', type === 'text/vtt' ? 'text/vtt; charset=utf-8' : type)
  response.setHeader('X-Content-Type-Options', 'nosniff')
  response.setHeader('Content-Disposition', `${way}; filename*=UTF-8''${encodeURIComponent(file.name)}`)
  // The sandbox of a PDF would leave it unread.
  if (type === 'image/svg+xml' || type === 'text/vtt')
    response.setHeader('Content-Security-Policy', INERT_POLICY)
  await wholeSuffix(request, place)
  sendStream(request, `/${basename(place)}`, {
    root: dirname(place),
    lastModified: false,
    dotfiles: 'deny',
    index: false,
    cacheControl: true,
    maxAge: isMarked ? YEAR_MS : 0,
    immutable: isMarked,
  })
    .on('error', (error: { status?: number; headers?: Record<string, string> }) => {
      const { status = 404, headers = {} } = error
      if (response.headersSent) response.destroy()
      // RFC 9110, sections 15.5.13 and 15.5.17: a condition that does not hold, a range that is not there.
      else if (status === 412 || status === 416) {
        for (const name of ['Content-Type', 'Content-Disposition']) response.removeHeader(name)
        response.writeHead(status, { ...headers, 'Content-Length': '0' })
        response.end()
      } else sendPage(response, 'unknown')
    })
    .pipe(response)
}
