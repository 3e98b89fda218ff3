import { readUrl } from '../api/index.ts'

/** The host of a `Referer` (RFC 9110, section 10.1.3), without what page it was; empty where there is none. */
export function referrerHost(header: string): string {
  if (header === '' || header.length > 4096) return ''
  const url = readUrl(header)
  return url?.protocol === 'http:' || url?.protocol === 'https:' ? url.hostname.slice(0, 253) : ''
}
