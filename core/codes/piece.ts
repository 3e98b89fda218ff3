import { calendarDay } from '../time/index.ts'
import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'
import { destination, state } from '../routing/index.ts'
import { placement } from '../symbol/index.ts'
import { utmValue } from '../tagging/index.ts'
import { chosenSlug } from './slug.ts'
import { level } from './code.ts'

export const SIZE_MM = { min: 5, max: 5000, default: 30 } as const

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
  /** The house style it is printed in; null for the plain one. */
  styleId: z.int({ error: 'Choose a house style.' }).nullable(),
  /** Where it lies on a picture; null where it stands alone. */
  placement: placement.nullable(),
} as const

export const DEFAULT_PIECE = {
  term: '',
  content: '',
  extra: {},
  level: 'M',
  sizeMm: SIZE_MM.default,
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
  styleId: null,
  placement: null,
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
    styleId,
    placement: lies,
  } = pieceFields
  return {
    term: term.default(''),
    content: content.default(''),
    extra: extra.default({}),
    level: lvl.default('M'),
    sizeMm: sizeMm.default(SIZE_MM.default),
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
    styleId: styleId.default(null),
    placement: lies.default(null),
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
