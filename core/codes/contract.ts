import { calendarDay } from '../time/index.ts'
import { z } from 'zod'
import { endpoint, idParams, idQuery, line, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { check } from '../checks/index.ts'
import { destination, revision, state } from '../routing/index.ts'
import { tally } from '../scans/index.ts'
import { LEVELS } from '../symbol/index.ts'
import { FINDING_KINDS, finding, utmValue } from '../tagging/index.ts'
import { chosenSlug, isSlug } from './slug.ts'

export const level = z.enum(LEVELS, { error: 'Choose one of the levels L, M, Q and H.' })

const clash = z.object({ name: z.string(), replaced: z.string(), by: z.string() })

/** The newest check that says something of a piece's destination. */
const checked = check.pick({ verdict: true, at: true, sentence: true, failingSince: true })

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
  domainId: z.int(),
  /** Origin its short link begins with. */
  origin: z.string(),
  slug: z.string(),
  shortLink: z.string(),
  /** Short links it had before it was renamed; they go on working. */
  oldLinks: z.array(z.string()),
  destination: z.string(),
  /** Where a scan without a query of its own goes, UTM values and all. */
  finalAddress: z.string(),
  /** Where this one item leads where no lane takes it; empty for its route's destination. */
  otherwise: z.string(),
  /** Values the destination had itself and the code's took the place of. */
  clashes: z.array(clash),
  medium: z.string(),
  source: z.string(),
  campaign: z.string(),
  term: z.string(),
  content: z.string(),
  /** Values of the workspace's own parameters. */
  extra: z.record(z.string(), z.string()),
  level,
  /** Side of the symbol as printed, quiet zone included, in millimetres. */
  sizeMm: z.number(),
  /** From how far away it is scanned, in metres. */
  viewingM: z.number().nullable(),
  place: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  /** Copies printed. */
  printRun: z.int().nullable(),
  /** In the workspace's currency. */
  cost: z.number().nullable(),
  liveOn: z.string().nullable(),
  downOn: z.string().nullable(),
  reference: z.string(),
  /** What an import knows the piece by. */
  key: z.string(),
  note: z.string(),
  state,
  archivedAt: z.int().nullable(),
  version: z.int(),
  createdAt: z.int(),
  scans: tally,
  /** What the linter says of its tags. */
  findings: z.array(finding),
  /** The channel its visits fall in; empty where no line of the table takes them. */
  channel: z.string(),
  check: checked.nullable(),
})
export type Code = z.infer<typeof code>

export const SIZE_MM = { min: 5, max: 5000, usual: 30 } as const

const sizeMm = z
  .number({ error: 'Give the size in millimetres.' })
  .min(SIZE_MM.min, `Make the symbol at least ${String(SIZE_MM.min)} mm wide.`)
  .max(SIZE_MM.max, 'Make the symbol no wider than 5 m.')

const degrees = (what: string, max: number) =>
  z
    .number({ error: `Give the ${what} in degrees.` })
    .min(-max, `A ${what} lies between −${String(max)} and ${String(max)} degrees.`)
    .max(max, `A ${what} lies between −${String(max)} and ${String(max)} degrees.`)

/** Everything a person can say of a piece; what the plan edits, pastes, imports and exports. */
export const pieceFields = {
  name: requiredLine('a name', 200),
  medium: utmValue('a medium').refine((v) => v !== '', 'Give a medium, such as print.'),
  source: utmValue('a source').refine((v) => v !== '', 'Give a source, such as pier-poster.'),
  term: utmValue('the term'),
  content: utmValue('the content'),
  extra: z.record(z.string().max(40), utmValue('the value')),
  level,
  sizeMm,
  viewingM: z
    .number({ error: 'Give the viewing distance in metres.' })
    .positive('Give a distance above 0 m.')
    .max(1000, 'Give a distance of at most 1,000 m.')
    .nullable(),
  place: line('the place', 200),
  latitude: degrees('latitude', 90).nullable(),
  longitude: degrees('longitude', 180).nullable(),
  printRun: z
    .int({ error: 'Give the print run as a whole number.' })
    .min(0, 'A print run cannot be below 0.')
    .max(1_000_000_000, 'Give a print run of at most 1,000,000,000.')
    .nullable(),
  cost: z
    .number({ error: 'Give the cost as a number.' })
    .min(0, 'A cost cannot be below 0.')
    .max(1e12, 'Give a smaller cost.')
    .nullable(),
  liveOn: calendarDay.nullable(),
  downOn: calendarDay.nullable(),
  reference: line('the reference', 100),
  key: line('the key', 100),
  /** One item's own page, in place of its route's otherwise lane. */
  otherwise: z.union([z.literal(''), destination]),
  note: line('the note', 1000),
} as const

export const USUAL_PIECE = {
  term: '',
  content: '',
  extra: {},
  level: 'M',
  sizeMm: SIZE_MM.usual,
  viewingM: null,
  place: '',
  latitude: null,
  longitude: null,
  printRun: null,
  cost: null,
  liveOn: null,
  downOn: null,
  reference: '',
  key: '',
  otherwise: '',
  note: '',
} as const

interface Placed {
  latitude?: number | null | undefined
  longitude?: number | null | undefined
  liveOn?: string | null | undefined
  downOn?: string | null | undefined
}

/** What is wrong with a piece as a whole, and at which field: half a coordinate is none, and it is not taken down before it goes live. */
export function wholeFaults(piece: Placed): { path: 'latitude' | 'longitude' | 'downOn'; message: string }[] {
  const faults: ReturnType<typeof wholeFaults> = []
  if (
    piece.latitude !== undefined &&
    piece.longitude !== undefined &&
    (piece.latitude === null) !== (piece.longitude === null)
  ) {
    faults.push({
      path: piece.latitude === null ? 'latitude' : 'longitude',
      message: 'Give latitude and longitude together, or neither.',
    })
  }
  if (piece.liveOn && piece.downOn && piece.liveOn > piece.downOn)
    faults.push({ path: 'downOn', message: 'The piece would be taken down before it goes live.' })
  return faults
}

/** The same as a check of a schema. */
export function wholePiece(piece: Placed, context: z.core.$RefinementCtx): void {
  for (const { path, message } of wholeFaults(piece))
    context.addIssue({ code: 'custom', path: [path], message })
}

const newPiece = {
  campaignId: z.int(),
  routeId: z.int().optional(),
  destination: destination.optional(),
  domainId: z.int().optional(),
  ...pieceFields,
  ...mapDefaults(),
}
const hasOneWay = (c: { routeId?: number | undefined; destination?: string | undefined }) =>
  (c.routeId === undefined) !== (c.destination === undefined)
const ONE_WAY = {
  message: 'Give either the address this leads to or a route that already has one.',
  path: ['destination'],
}

/** A new piece: with a destination it gets a route of its own, with `routeId` it shares one. */
export const newCode = z
  .strictObject({ ...newPiece, slug: chosenSlug.optional() })
  .refine(hasOneWay, ONE_WAY)
  .superRefine(wholePiece)
export type NewCode = z.input<typeof newCode>

/** What the pieces of a series are made from: `{n}` may stand in its texts, the short link among them. */
export const seriesPiece = z
  .strictObject({ ...newPiece, slug: line('the short link', 60).optional() })
  .refine(hasOneWay, ONE_WAY)
  .superRefine(wholePiece)

function mapDefaults() {
  const {
    term,
    content,
    extra,
    level: lvl,
    viewingM,
    place,
    latitude,
    longitude,
    printRun,
    cost,
    liveOn,
    downOn,
    reference,
    key,
    otherwise,
    note,
  } = pieceFields
  return {
    term: term.default(''),
    content: content.default(''),
    extra: extra.default({}),
    level: lvl.default('M'),
    sizeMm: sizeMm.default(SIZE_MM.usual),
    viewingM: viewingM.default(null),
    place: place.default(''),
    latitude: latitude.default(null),
    longitude: longitude.default(null),
    printRun: printRun.default(null),
    cost: cost.default(null),
    liveOn: liveOn.default(null),
    downOn: downOn.default(null),
    reference: reference.default(''),
    key: key.default(''),
    otherwise: otherwise.default(''),
    note: note.default(''),
  }
}

/**
 * What can be set of a piece that is there: every field, its route, its short link, and whether it is in the
 * plan. Its destination is that of its route, which other pieces may not share then.
 */
export const codeSet = z
  .strictObject({
    routeId: z.int().optional(),
    destination: destination.optional(),
    state: state.optional(),
    slug: chosenSlug.optional(),
    domainId: z.int().optional(),
    archived: z.boolean().optional(),
  })
  .extend(z.strictObject(pieceFields).partial().shape)
export type CodeSet = z.input<typeof codeSet>

export const codeChange = z.strictObject({ version: z.int() }).extend(codeSet.shape).superRefine(wholePiece)
export type CodeChange = z.input<typeof codeChange>

export const CODE_SORTS = [
  'name',
  'medium',
  'source',
  'content',
  'term',
  'slug',
  'createdAt',
  'scans',
  'lastScan',
  'state',
  'sizeMm',
  'viewingM',
  'place',
  'printRun',
  'cost',
  'liveOn',
  'downOn',
  'reference',
  'key',
  'route',
] as const
export const GROUPS = ['medium', 'route'] as const
export type Group = (typeof GROUPS)[number]

/** Which pieces of a campaign are meant. */
export const codeFilter = z.strictObject({
  campaignId: idQuery.optional(),
  routeId: idQuery.optional(),
  search: z.string().max(200).optional(),
  medium: z.string().max(150).optional(),
  source: z.string().max(150).optional(),
  state: state.optional(),
  /** Current pieces, archived ones, or those deleted before anybody scanned them. */
  shown: z.enum(['current', 'archived', 'deleted', 'all']).default('current'),
  /** Only those with such a finding. */
  finding: z.enum(FINDING_KINDS).optional(),
  /** Only those that fall in a channel; `-` stands for those that fall in none. */
  channel: z.string().max(60).optional(),
})
export type CodeFilter = z.input<typeof codeFilter>

const change = z.strictObject({ id: z.int(), version: z.int().optional(), set: codeSet })
export type CodeCellChange = z.input<typeof change>
export const CHANGES_MAX = 50_000
/** Thousands of cells may be changed in one go. */
const CHANGES_BYTES_MAX = 16 << 20

const group = z.object({
  key: z.string(),
  pieces: z.int(),
  scans: z.int(),
  printRun: z.int(),
  cost: z.number(),
})
export type CodeGroup = z.infer<typeof group>

export const SERIES_MAX = 5000
/** Numbers of a series as they stand in `{n}`: 1 to 120 with three digits is 001 to 120. */
export const seriesNumbers = z
  .strictObject({
    from: z.int({ error: 'Give a whole number.' }).min(0, 'Begin at 0 or above.').max(9_999_999),
    to: z.int({ error: 'Give a whole number.' }).min(0).max(9_999_999),
    digits: z.int().min(1).max(7),
  })
  .refine(({ from, to }) => from <= to, { message: 'The last number lies before the first.', path: ['to'] })
  .refine(({ from, to }) => to - from < SERIES_MAX, {
    message: `A series has at most ${String(SERIES_MAX)} pieces.`,
    path: ['to'],
  })

export const symbolQuery = z.strictObject({
  level: level.optional(),
  mm: z.coerce
    .number({ error: 'Give the size in millimetres.' })
    .min(SIZE_MM.min)
    .max(SIZE_MM.max)
    .optional(),
})

export const pngQuery = symbolQuery.extend({
  dpi: z.coerce
    .number({ error: 'Give the resolution in dots per inch.' })
    .int()
    .min(36, 'Give at least 36 dpi.')
    .max(2400, 'Give at most 2,400 dpi.')
    .default(300),
})

export const codesApi = {
  list: endpoint({
    method: 'GET',
    path: '/codes',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'The codes of a campaign or a route',
    query: pageQuery(CODE_SORTS, 'createdAt')
      .extend(codeFilter.shape)
      .extend({ group: z.enum(GROUPS).optional() }),
    answer: pageOf(code),
  }),
  groups: endpoint({
    method: 'GET',
    path: '/code-groups',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'Pieces of a campaign summed by medium or by route',
    query: codeFilter.extend({ by: z.enum(GROUPS) }),
    answer: z.object({ rows: z.array(group) }),
  }),
  changeMany: endpoint({
    method: 'POST',
    path: '/codes/changes',
    room: 'codes',
    access: {
      right: 'edit',
      things: {
        campaign: 'body.matching.campaignId',
        route: 'body.matching.routeId',
        code: 'body.changes.id',
      },
    },
    bytesMax: CHANGES_BYTES_MAX,
    summary:
      'Change many pieces at once: named ones, or all that match; what cannot be changed is told and left',
    body: z.union([
      z.strictObject({
        changes: z.array(change).min(1).max(CHANGES_MAX, 'That is more than 50,000 pieces at once.'),
      }),
      z.strictObject({ matching: codeFilter, set: codeSet }),
      z.strictObject({
        matching: codeFilter,
        fix: z.strictObject({ kind: z.enum(FINDING_KINDS), field: z.string() }),
      }),
    ]),
    answer: z.object({
      changed: z.int(),
      refused: z.array(z.object({ id: z.int(), name: z.string(), sentence: z.string() })),
      /** What takes all of it back, to be sent the same way. */
      undo: z.array(change),
    }),
  }),
  move: endpoint({
    method: 'POST',
    path: '/codes/moves',
    room: 'codes',
    access: {
      right: 'edit',
      things: { campaign: 'body.campaignId', code: 'body.ids' },
    },
    summary: 'Move pieces to another campaign, with their history, onto a route there or a copy of their own',
    body: z.strictObject({
      ids: z.array(z.int()).min(1).max(CHANGES_MAX),
      campaignId: z.int(),
      routeId: z.int().nullable(),
    }),
    answer: z.object({ moved: z.int() }),
  }),
  copy: endpoint({
    method: 'POST',
    path: '/codes/copies',
    room: 'codes',
    access: { right: 'edit', things: { code: 'body.ids' } },
    status: 201,
    summary: 'Duplicate pieces: the same in everything but the short link and the key',
    body: z.strictObject({ ids: z.array(z.int()).min(1).max(SERIES_MAX) }),
    answer: z.object({ ids: z.array(z.int()) }),
  }),
  series: endpoint({
    method: 'POST',
    path: '/codes/series',
    room: 'codes',
    access: { right: 'edit', things: { campaign: 'body.piece.campaignId' } },
    status: 201,
    summary: 'Issue a numbered series; {n} in its texts is the number',
    body: z.strictObject({ piece: seriesPiece, numbers: seriesNumbers }),
    answer: z.object({ ids: z.array(z.int()) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/codes',
    room: 'codes',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Issue a code, with a route of its own or a shared one',
    body: newCode,
    answer: code,
  }),
  get: endpoint({
    method: 'GET',
    path: '/codes/:id',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'One code',
    params: idParams,
    answer: code,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/codes/:id',
    room: 'codes',
    access: { right: 'edit', things: { code: 'params.id' } },
    summary: 'Change a code; what is printed of it goes on working',
    params: idParams,
    body: codeChange,
    answer: code,
  }),
  revisions: endpoint({
    method: 'GET',
    path: '/codes/:id/revisions',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'Every change of a code, the newest first',
    params: idParams,
    query: pageQuery(['at'], 'at'),
    answer: pageOf(revision),
  }),
  slug: endpoint({
    method: 'GET',
    path: '/slugs/:slug',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId' }, orAll: true },
    summary: 'Whether a short link is still free',
    params: z.strictObject({ slug: z.string().max(200) }),
    query: z.strictObject({ campaignId: idQuery.optional(), domainId: idQuery.optional() }),
    /** `instead` are free ones like it. */
    answer: z.object({
      slug: z.string(),
      shortLink: z.string(),
      free: z.boolean(),
      why: z.string().optional(),
      instead: z.array(z.string()),
    }),
  }),
  svg: endpoint({
    method: 'GET',
    path: '/codes/:id/symbol.svg',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'The symbol as SVG, at its printed size',
    params: idParams,
    query: symbolQuery,
    answers: 'image/svg+xml',
  }),
  png: endpoint({
    method: 'GET',
    path: '/codes/:id/symbol.png',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'The symbol as PNG, its physical size stored in the file',
    params: idParams,
    query: pngQuery,
    answers: 'image/png',
  }),
}

/** A file name for a code's symbol: its name in plain signs, then its slug. */
export function symbolFileName(of: Pick<Code, 'name' | 'slug'>, extension: string): string {
  const plain = of.name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/gi, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60)
  return `${plain ? `${plain}-` : ''}${isSlug(of.slug) ? of.slug : 'symbol'}.${extension}`
}
