import { z } from 'zod'
import { endpoint, idParams, idQuery, line, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { destination, revision, state, utmValue } from '../routing/index.ts'
import { tally } from '../scans/index.ts'
import { LEVELS } from '../symbol/index.ts'
import { chosenSlug, isSlug } from './slug.ts'

export const level = z.enum(LEVELS, { error: 'Choose one of the levels L, M, Q and H.' })

const clash = z.object({ field: z.enum(['source', 'medium', 'campaign', 'term', 'content']), replaced: z.string(), by: z.string() })

export const code = z.object({
  id: z.int(),
  campaignId: z.int(),
  routeId: z.int(),
  routeName: z.string(),
  routeVersion: z.int(),
  routeState: state,
  /** How many codes share the route, this one among them. */
  routeCodes: z.int(),
  name: z.string(),
  slug: z.string(),
  shortLink: z.string(),
  destination: z.string(),
  /** Where a scan without a query of its own goes, UTM values and all. */
  finalAddress: z.string(),
  /** UTM values the destination had itself and the code's took the place of. */
  clashes: z.array(clash),
  medium: z.string(),
  source: z.string(),
  campaign: z.string(),
  term: z.string(),
  content: z.string(),
  level,
  /** Side of the symbol as printed, quiet zone included, in millimetres. */
  sizeMm: z.number(),
  place: z.string(),
  note: z.string(),
  state,
  version: z.int(),
  createdAt: z.int(),
  scans: tally,
})
export type Code = z.infer<typeof code>

export const SIZE_MM = { min: 5, max: 5000, usual: 30 } as const

const sizeMm = z
  .number({ error: 'Give the size in millimetres.' })
  .min(SIZE_MM.min, `Make the symbol at least ${String(SIZE_MM.min)} mm wide.`)
  .max(SIZE_MM.max, 'Make the symbol no wider than 5 m.')

const fields = {
  name: requiredLine('a name', 200),
  medium: utmValue('a medium').refine((v) => v !== '', 'Give a medium, such as print.'),
  source: utmValue('a source').refine((v) => v !== '', 'Give a source, such as pier-poster.'),
  term: utmValue('the term'),
  content: utmValue('the content'),
  level,
  sizeMm,
  place: line('the place', 200),
  note: line('the note', 1000),
}

/** A new piece: with a destination it gets a route of its own, with `routeId` it shares one. */
export const newCode = z
  .strictObject({
    campaignId: z.int(),
    routeId: z.int().optional(),
    destination: destination.optional(),
    slug: chosenSlug.optional(),
    ...fields,
    term: fields.term.default(''),
    content: fields.content.default(''),
    level: fields.level.default('M'),
    sizeMm: fields.sizeMm.default(SIZE_MM.usual),
    place: fields.place.default(''),
    note: fields.note.default(''),
  })
  .refine((c) => (c.routeId === undefined) !== (c.destination === undefined), {
    message: 'Give either the address this leads to or a route that already has one.',
    path: ['destination'],
  })
export type NewCode = z.input<typeof newCode>

export const codeChange = z
  .strictObject({ version: z.int(), routeId: z.int().optional(), state: state.optional() })
  .extend(z.strictObject(fields).partial().shape)
export type CodeChange = z.input<typeof codeChange>

export const CODE_SORTS = ['name', 'medium', 'source', 'slug', 'createdAt', 'scans', 'lastScan'] as const

export const symbolQuery = z.strictObject({
  level: level.optional(),
  mm: z.coerce.number({ error: 'Give the size in millimetres.' }).min(SIZE_MM.min).max(SIZE_MM.max).optional(),
})

export const pngQuery = symbolQuery.extend({
  dpi: z.coerce.number({ error: 'Give the resolution in dots per inch.' }).int()
    .min(36, 'Give at least 36 dpi.').max(2400, 'Give at most 2,400 dpi.').default(300),
})

export const codesApi = {
  list: endpoint({
    method: 'GET', path: '/codes', room: 'codes', summary: 'The codes of a campaign or a route',
    query: pageQuery(CODE_SORTS, 'createdAt').extend({
      campaignId: idQuery.optional(),
      routeId: idQuery.optional(),
      search: z.string().max(200).optional(),
    }),
    answer: pageOf(code),
  }),
  create: endpoint({
    method: 'POST', path: '/codes', room: 'codes', status: 201, summary: 'Issue a code, with a route of its own or a shared one',
    body: newCode, answer: code,
  }),
  get: endpoint({ method: 'GET', path: '/codes/:id', room: 'codes', summary: 'One code', params: idParams, answer: code }),
  change: endpoint({
    method: 'PATCH', path: '/codes/:id', room: 'codes', summary: 'Change a code; its short link stays', params: idParams, body: codeChange, answer: code,
  }),
  revisions: endpoint({
    method: 'GET', path: '/codes/:id/revisions', room: 'codes', summary: 'Every change of a code, the newest first',
    params: idParams, query: pageQuery(['at'], 'at'), answer: pageOf(revision),
  }),
  slug: endpoint({
    method: 'GET', path: '/slugs/:slug', room: 'codes', summary: 'Whether a short link is still free',
    params: z.strictObject({ slug: z.string().max(200) }),
    answer: z.object({ slug: z.string(), free: z.boolean(), why: z.string().optional() }),
  }),
  svg: endpoint({
    method: 'GET', path: '/codes/:id/symbol.svg', room: 'codes', summary: 'The symbol as SVG, at its printed size',
    params: idParams, query: symbolQuery, answers: 'image/svg+xml',
  }),
  png: endpoint({
    method: 'GET', path: '/codes/:id/symbol.png', room: 'codes', summary: 'The symbol as PNG, its physical size stored in the file',
    params: idParams, query: pngQuery, answers: 'image/png',
  }),
}

/** A file name for a code's symbol: its name in plain signs, then its slug. */
export function symbolFileName(of: Pick<Code, 'name' | 'slug'>, extension: string): string {
  const plain = of.name.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[^a-z0-9]+/gi, '-').replace(/^-+|-+$/g, '').toLowerCase().slice(0, 60)
  return `${plain ? `${plain}-` : ''}${isSlug(of.slug) ? of.slug : 'symbol'}.${extension}`
}
