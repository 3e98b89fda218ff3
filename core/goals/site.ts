import { z } from 'zod'
import { readUrl } from '../api/index.ts'

export const ORIGINS_MAX = 50

/** Scheme, host and port of a site, as browsers write them (WHATWG URL Standard). */
const origin = z
  .string()
  .trim()
  .max(300, 'An address of a site has at most 300 characters.')
  .transform((text, context) => {
    const url = readUrl(text.includes('://') ? text : `https://${text}`)
    if (url?.hostname && (url.protocol === 'https:' || url.protocol === 'http:')) return url.origin
    context.addIssue({ code: 'custom', message: `${text} is no site. Write it like https://shop.example.` })
    return z.NEVER
  })

/** What a workspace decides of the sites that report goals. */
export const siteSettings = z.strictObject({
  /** Whether visitors who ask not to be tracked are left out. */
  honoursSignals: z.boolean(),
  /** The sites that may report from a browser; any may where none is named. */
  origins: z.array(origin).max(ORIGINS_MAX, `Name at most ${String(ORIGINS_MAX)} sites.`),
  /** Goes up when the secret is replaced. */
  secretNumber: z.int().min(0),
})
export type SiteSettings = z.output<typeof siteSettings>

export const DEFAULT_SITE: SiteSettings = { honoursSignals: true, origins: [], secretNumber: 0 }

/** Whether a site may report from a browser. */
export const mayReport = ({ origins }: SiteSettings, from: string): boolean =>
  origins.length === 0 || origins.includes(from)

/** How long what happens on a site may count for the scan that led there, in hours; 0: redirects carry no reference. */
export const REFERENCE_HOURS = [0, 1, 24, 24 * 7, 24 * 30] as const
export const referenceHours = z.union(REFERENCE_HOURS.map((hours) => z.literal(hours)))
