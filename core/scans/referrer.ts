/** The host of a `Referer` (RFC 9110, section 10.1.3), without what page it was; empty where there is none. */
export function referrerHost(header: string): string {
  if (header === '' || header.length > 4096 || !URL.canParse(header)) return ''
  const { protocol, hostname } = new URL(header)
  return protocol === 'http:' || protocol === 'https:' ? hostname.slice(0, 253) : ''
}
