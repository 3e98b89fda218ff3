import { readDay } from '../time/index.ts'
import type { z } from 'zod'
import { chosenSlug, pieceFields, type Code, type CodeSet } from '../codes/index.ts'
import { destination } from '../routing/index.ts'
import { HOUSE_STYLE_NAME_MAX } from '../houseStyles/index.ts'
import { LEVELS } from '../symbol/index.ts'
import type { OwnParameter } from '../tagging/index.ts'
import { readMeasure, readMoney, readNumber, readPoint, type Read } from './reading.ts'

/** What a cell's text asks to be set: fields of the piece, or the name of its route or house style. */
export type CellSet = CodeSet & { route?: string; campaign?: string; style?: string }

/** A piece as far as its cells show it. */
export type PlanRow = Pick<
  Code,
  | 'key'
  | 'name'
  | 'medium'
  | 'source'
  | 'campaign'
  | 'content'
  | 'term'
  | 'extra'
  | 'sizeMm'
  | 'viewingM'
  | 'place'
  | 'latitude'
  | 'longitude'
  | 'printRun'
  | 'cost'
  | 'liveOn'
  | 'downOn'
  | 'reference'
  | 'level'
  | 'styleName'
  | 'note'
  | 'state'
  | 'slug'
  | 'routeName'
  | 'destination'
  | 'otherwise'
>

/**
 * One column of the plan: how its cells are written, how a person's text for one is read, and under which
 * other headings it comes in files. The grid, pasting, importing and exporting all use these.
 */
export interface PlanColumn {
  readonly id: string
  readonly title: string
  /** Headings of other people's files that mean this column, in small letters. */
  readonly also: readonly string[]
  /** Whether an empty cell takes the value away; otherwise the piece must have one. */
  readonly optional: boolean
  /** Whether it is written as a plain number. */
  readonly numeric: boolean
  write(row: PlanRow): string
  read(text: string): Read<CellSet>
}

type Field = keyof typeof pieceFields

/** Checks a value by the contract's own schema, so that a cell refuses what the server would. */
function checked(field: Field, value: unknown): Read<CellSet> {
  const read = (pieceFields[field] as z.ZodType).safeParse(value)
  return read.success
    ? { ok: true, value: { [field]: read.data } }
    : { ok: false, sentence: read.error.issues[0]?.message ?? 'This value cannot stand here.' }
}

const then = <T>(read: Read<T>, next: (value: T) => Read<CellSet>): Read<CellSet> =>
  read.ok ? next(read.value) : read

/** A number as it is written in cells and files: with a point, never grouped. */
const plain = (value: number | null): string => (value === null ? '' : String(value))

const text = (
  id: Field & keyof PlanRow,
  title: string,
  also: readonly string[],
  optional = true,
): PlanColumn => ({
  id,
  title,
  also,
  optional,
  numeric: false,
  write: (row) => row[id] as string,
  read: (typed) => checked(id, typed),
})

function figure(
  id: 'sizeMm' | 'viewingM' | 'printRun' | 'cost' | 'latitude' | 'longitude',
  title: string,
  also: readonly string[],
  reading: (typed: string) => Read<number>,
): PlanColumn {
  return {
    id,
    title,
    also,
    optional: id !== 'sizeMm',
    numeric: true,
    write: (row) => plain(row[id]),
    read: (typed) =>
      typed.trim() === ''
        ? checked(id, id === 'sizeMm' ? undefined : null)
        : then(reading(typed), (value) => checked(id, value)),
  }
}

const day = (id: 'liveOn' | 'downOn', title: string, also: readonly string[]): PlanColumn => ({
  id,
  title,
  also,
  optional: true,
  numeric: false,
  write: (row) => row[id] ?? '',
  read: (typed) =>
    typed.trim() === '' ? checked(id, null) : then(readDay(typed), (value) => checked(id, value)),
})

const STATE_WORDS: Readonly<Record<string, 'live' | 'paused'>> = {
  live: 'live',
  active: 'live',
  on: 'live',
  paused: 'paused',
  pause: 'paused',
  off: 'paused',
  inactive: 'paused',
}

const FIXED: readonly PlanColumn[] = [
  text('key', 'Key', ['id', 'external id', 'external key', 'item', 'item key', 'sku', 'nr', 'no']),
  text('name', 'Piece', ['name', 'title', 'asset', 'placement', 'description', 'item name'], false),
  {
    id: 'route',
    title: 'Route',
    also: ['route name'],
    optional: true,
    numeric: false,
    write: (row) => row.routeName,
    read: (typed) => then(checked('name', typed), ({ name }) => ({ ok: true, value: { route: name ?? '' } })),
  },
  {
    id: 'destination',
    title: 'Destination',
    also: [
      'leads to',
      'url',
      'link',
      'target',
      'landing page',
      'address',
      'website',
      'target url',
      'destination url',
    ],
    optional: false,
    numeric: false,
    write: (row) => row.destination,
    read: (typed) => {
      const read = destination.safeParse(typed)
      return read.success
        ? { ok: true, value: { destination: read.data } }
        : { ok: false, sentence: read.error.issues[0]?.message ?? 'This is no web address.' }
    },
  },
  text('otherwise', 'Own destination', [
    'item destination',
    'own page',
    'item page',
    'item url',
    'item address',
  ]),
  text('medium', 'Medium', ['utm_medium', 'utm medium', 'campaign medium', 'media', 'media type'], false),
  text('source', 'Source', ['utm_source', 'utm source', 'campaign source'], false),
  {
    id: 'campaign',
    title: 'Campaign',
    also: ['utm_campaign', 'utm campaign', 'campaign name', 'campaign value'],
    optional: true,
    numeric: false,
    write: (row) => row.campaign,
    read: (typed) => ({ ok: true, value: { campaign: typed.trim() } }),
  },
  text('content', 'Content', ['utm_content', 'utm content', 'campaign content']),
  text('term', 'Term', ['utm_term', 'utm term', 'keyword', 'campaign term']),
  figure(
    'sizeMm',
    'Size mm',
    ['size', 'size (mm)', 'printed size', 'symbol size', 'width', 'width mm', 'side'],
    (typed) => readMeasure(typed, { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4, '"': 25.4, '″': 25.4 }),
  ),
  figure(
    'viewingM',
    'Viewed from m',
    [
      'viewing distance',
      'viewing distance (m)',
      'viewing distance m',
      'distance',
      'scan distance',
      'reading distance',
    ],
    (typed) => readMeasure(typed, { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048 }),
  ),
  text('place', 'Place', ['location', 'site', 'venue', 'city', 'where']),
  {
    id: 'coordinates',
    title: 'Coordinates',
    also: ['lat/long', 'lat, long', 'lat/lon', 'latlong', 'gps', 'geo', 'position'],
    optional: true,
    numeric: false,
    write: ({ latitude, longitude }) =>
      latitude === null || longitude === null ? '' : `${plain(latitude)}, ${plain(longitude)}`,
    read: (typed) =>
      typed.trim() === ''
        ? { ok: true, value: { latitude: null, longitude: null } }
        : then(readPoint(typed), ({ latitude, longitude }) => ({ ok: true, value: { latitude, longitude } })),
  },
  figure(
    'printRun',
    'Print run',
    ['run', 'quantity', 'qty', 'copies', 'circulation', 'number of copies', 'amount printed'],
    (typed) => readNumber(typed, 'both'),
  ),
  figure('cost', 'Cost', ['price', 'budget', 'spend', 'costs', 'total cost', 'amount'], readMoney),
  day('liveOn', 'Goes live', [
    'go live',
    'go-live',
    'live on',
    'start',
    'start date',
    'from',
    'in charge',
    'up on',
  ]),
  day('downOn', 'Comes down', [
    'take down',
    'take-down',
    'takedown',
    'end',
    'end date',
    'until',
    'to',
    'down on',
  ]),
  text('reference', 'Reference', [
    'client reference',
    'client ref',
    'ref',
    'job number',
    'job',
    'po',
    'order number',
    'order',
  ]),
  {
    id: 'slug',
    title: 'Short link',
    also: ['slug', 'short url', 'shortlink', 'back-half', 'ending', 'alias'],
    optional: true,
    numeric: false,
    write: (row) => row.slug,
    read: (typed) => {
      // A whole short link is taken for its end.
      const read = chosenSlug.safeParse(typed.trim().replace(/^(https?:\/\/)?[^/]+\//i, ''))
      return read.success
        ? { ok: true, value: { slug: read.data } }
        : { ok: false, sentence: read.error.issues[0]?.message ?? 'This can be no short link.' }
    },
  },
  {
    id: 'level',
    title: 'Level',
    also: ['error correction', 'ec level', 'ecc', 'error correction level'],
    optional: false,
    numeric: false,
    write: (row) => row.level,
    read: (typed) =>
      checked(
        'level',
        (LEVELS as readonly string[]).find((each) => each === typed.trim().toUpperCase()),
      ),
  },
  {
    id: 'style',
    title: 'House style',
    also: ['style', 'look', 'design'],
    optional: true,
    numeric: false,
    write: (row) => row.styleName,
    read: (typed) => {
      const style = typed.trim()
      return style.length > HOUSE_STYLE_NAME_MAX
        ? { ok: false, sentence: 'No house style has so long a name.' }
        : { ok: true, value: { style } }
    },
  },
  text('note', 'Note', ['notes', 'comment', 'comments', 'remark', 'remarks']),
  {
    id: 'state',
    title: 'State',
    also: ['status'],
    optional: false,
    numeric: false,
    write: (row) => row.state,
    read: (typed) => {
      const state = STATE_WORDS[typed.trim().toLowerCase()]
      return state ? { ok: true, value: { state } } : { ok: false, sentence: 'Write live or paused.' }
    },
  },
]

/** Columns that files have but the grid shows as one. */
const FILE_ONLY: readonly PlanColumn[] = [
  figure('latitude', 'Latitude', ['lat'], (typed) => readNumber(typed)),
  figure('longitude', 'Longitude', ['lon', 'long', 'lng'], (typed) => readNumber(typed)),
]

function ownColumn({ name, label }: OwnParameter): PlanColumn {
  return {
    id: `extra.${name}`,
    title: label,
    also: [name.toLowerCase()],
    optional: true,
    numeric: false,
    write: (row) => row.extra[name] ?? '',
    read: (typed) => {
      const read = pieceFields.extra.safeParse({ [name]: typed })
      return read.success
        ? { ok: true, value: { extra: read.data } }
        : { ok: false, sentence: read.error.issues[0]?.message ?? 'This value cannot stand here.' }
    },
  }
}

/** The columns of a workspace's plan, its own parameters after the UTM ones. */
export function planColumns(parameters: readonly OwnParameter[] = []): PlanColumn[] {
  const at = FIXED.findIndex(({ id }) => id === 'term') + 1
  return [...FIXED.slice(0, at), ...parameters.map(ownColumn), ...FIXED.slice(at)]
}

/** Every column a file may have. */
export function fileColumns(parameters: readonly OwnParameter[] = []): PlanColumn[] {
  return [...planColumns(parameters), ...FILE_ONLY]
}
