import { z } from 'zod'
import { readUrl } from '../api/index.ts'

/** A label of a host name in its ASCII form (RFC 1123, section 2.1). */
const LABEL = /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/

/**
 * A host name as it is stored and compared: ASCII and lower case, by the WHATWG URL Standard's domain
 * to ASCII; null where it is none, such as an address with a path, a number or a single word.
 */
export function canonicalHost(typed: string): string | null {
  const text = typed.trim().replace(/\.$/, '')
  const url = text === '' || /[\s/:@?#\\]/.test(text) ? null : readUrl(`http://${text}/`)
  if (!url) return null
  const { hostname } = url
  const labels = hostname.split('.')
  if (
    hostname.length > 253 ||
    labels.length < 2 ||
    /^\d+$/.test(labels.at(-1) ?? '') ||
    hostname.startsWith('[')
  )
    return null
  return labels.every((label) => LABEL.test(label)) ? hostname : null
}

/** A host name a person gives a domain. */
export const hostName = z
  .string({ error: 'Give the host name of the domain, such as go.example.com.' })
  .max(300, 'That is longer than a host name can be.')
  .transform((typed, context) => {
    const host = canonicalHost(typed)
    if (host === null) {
      context.addIssue({
        code: 'custom',
        message: 'Give only the host name, such as go.example.com: no https://, no path.',
      })
      return z.NEVER
    }
    return host
  })

/** The host of a request's `Host` field, without its port, in lower case (RFC 9110, section 7.2). */
export function hostOf(field: string): string {
  const bare = field.startsWith('[') ? field.slice(0, field.indexOf(']') + 1) : (field.split(':', 1)[0] ?? '')
  return bare.toLowerCase().replace(/\.$/, '')
}
