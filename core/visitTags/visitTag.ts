import { z } from 'zod'
import { requiredLine } from '../api/index.ts'
import { readDestination } from '../routing/index.ts'
import { bodyFault } from './fill.ts'

export const TAG_KINDS = ['measurement', 'container', 'audience'] as const
export type TagKind = (typeof TAG_KINDS)[number]

/**
 * When a tag fires: on a light page on the way, on that page once the visitor has agreed, or by the server
 * after the redirect, where the phone is not asked to do anything.
 */
export const FIRINGS = ['page', 'asked', 'server'] as const
export type Firing = (typeof FIRINGS)[number]

export const TAGS_MAX = 20
const BODY_MAX = 4000

/** Where a tag's hits go, with placeholders. The site itself is fixed. */
const collector = z
  .string({ error: 'Give the collector’s address.' })
  .superRefine((typed, context) => {
    const reading = readDestination(typed)
    if (!reading.ok)
      context.addIssue({
        code: 'custom',
        message: reading.fault === 'empty' ? 'Give the collector’s address.' : reading.sentence,
      })
    else if (/[{}]|%7B/i.test(reading.url.host))
      context.addIssue({
        code: 'custom',
        message:
          'A placeholder may stand in the path or the query, but not in the name of the collector’s site.',
      })
  })
  .transform((typed) => typed.trim())

/** One snippet that a workspace defined once and its routes may use. */
export const visitTag = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9]{1,16}$/, 'A key has up to 16 of the small letters and digits.'),
    name: requiredLine('a name for the tag', 60),
    kind: z.enum(TAG_KINDS),
    /** The ID that whoever collects gave: of the property measured, the container, or the audience. */
    value: requiredLine('the ID the collector gave you', 80),
    address: collector,
    firing: z.enum(FIRINGS),
    /** JSON to be sent by POST; empty for a GET of the address. Only the server sends one. */
    body: z.string().max(BODY_MAX, `Make the body no longer than ${String(BODY_MAX)} characters.`),
    /** Kept, but firing nowhere. */
    resting: z.boolean(),
  })
  .superRefine(({ kind, firing, body }, context) => {
    const say = (path: string, message: string) => {
      context.addIssue({ code: 'custom', path: [path], message })
    }
    if (firing === 'server' && kind !== 'measurement')
      say(
        'firing',
        'Only a measurement can be sent by the server: a container and an audience need the phone itself.',
      )
    if (body.trim() !== '' && firing !== 'server')
      say('body', 'Only the server sends a body. Empty it, or let the server send the hit.')
    const fault = bodyFault(body)
    if (fault !== null) say('body', fault)
  })
export type VisitTag = z.infer<typeof visitTag>

export const visitTagSettings = z.strictObject({
  tags: z
    .array(visitTag)
    .max(TAGS_MAX, `Define at most ${String(TAGS_MAX)} tags.`)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two tags have the same key.')
    .refine(
      (all) => new Set(all.map(({ name }) => name.toLowerCase())).size === all.length,
      'Two tags have the same name.',
    ),
  consent: z.strictObject({
    /** What the visitor is asked, in the workspace's words. */
    why: requiredLine('what visitors are asked', 300),
    /** Its privacy notice; empty for none. */
    notice: z.union([z.literal(''), collector]),
  }),
})
export type VisitTagSettings = z.infer<typeof visitTagSettings>

/** What a hit is called among all that must follow from a scan. */
export const HIT = 'hit'

export const NO_TAGS: VisitTagSettings = {
  tags: [],
  consent: {
    why: 'May we count this visit with our measurement tools? You get to the page either way.',
    notice: '',
  },
}

/** What a route's tags do to a scan: what its phone fires, what it fires only when asked, and what the server sends. */
export interface Fired {
  readonly page: readonly VisitTag[]
  readonly asked: readonly VisitTag[]
  readonly server: readonly VisitTag[]
  readonly consent: VisitTagSettings['consent']
}

/** The tags of a route by how they fire, in the workspace's order; null where none does. Keys that are not defined are passed over. */
export function firedBy({ tags, consent }: VisitTagSettings, ids: readonly string[]): Fired | null {
  const used = tags.filter(({ id, resting }) => !resting && ids.includes(id))
  if (used.length === 0) return null
  const by = (firing: Firing) => used.filter((tag) => tag.firing === firing)
  return { page: by('page'), asked: by('asked'), server: by('server'), consent }
}

export const KIND_NAMES: Readonly<Record<TagKind, string>> = {
  measurement: 'Measurement',
  container: 'Tag container',
  audience: 'Audience pixel',
}

const FIRING_NAMES: Readonly<Record<Firing, string>> = {
  page: 'fires on a light page on the way',
  asked: 'fires on the way once the visitor agrees',
  server: 'is sent by the server after the redirect',
}

/** A tag as a sentence: "Measurement M-4711 is sent by the server after the redirect". */
export function tagInWords({
  kind,
  value,
  firing,
  resting,
}: Pick<VisitTag, 'kind' | 'value' | 'firing' | 'resting'>): string {
  return `${KIND_NAMES[kind]} ${value} ${resting ? 'is turned off' : FIRING_NAMES[firing]}`
}
