import {
  canonicalSlug,
  pieceFields,
  USUAL_PIECE,
  wholeFaults,
  type Code,
  type CodeSet,
} from '../codes/index.ts'
import {
  fixesOf,
  fixSet,
  lint,
  tagContext,
  tagCounts,
  type Finding,
  type HouseRules,
  type TagCounts,
} from '../tagging/index.ts'
import type { CellSet, PlanColumn, PlanRow } from './columns.ts'
import type { Mapping } from './headers.ts'
import { unguarded } from './table.ts'

const TITLES = { name: 'Piece', medium: 'Medium', source: 'Source' } as const

/** A piece that is there already, as the dry run must know it. */
export interface KnownPiece extends PlanRow {
  readonly id: number
  readonly domainId: number
  readonly routeId: number
  readonly routeCodes: number
  readonly archived: boolean
}

export interface KnownRoute {
  readonly id: number
  readonly name: string
  readonly destination: string
}

/** Everything the dry run must know beside the file. */
export interface PlanWorld {
  readonly columns: readonly PlanColumn[]
  readonly rules: HouseRules
  /** The campaign's value. */
  readonly campaign: string
  /** The domain that short links of the file are on. */
  readonly domainId: number
  readonly pieces: readonly KnownPiece[]
  readonly routes: readonly KnownRoute[]
  /** Short links that other campaigns, deleted pieces or renamed ones hold on the domain; upper case. */
  readonly taken: ReadonlySet<string>
  /** Tags in use, those of the campaign's pieces among them. */
  readonly counts: TagCounts
  /** Why an address may be no destination; null where it may. */
  readonly destinationFault: (address: string) => string | null
}

export interface DryRunOptions {
  /** Whether an empty cell leaves a piece's value or takes it away. */
  readonly empty: 'leave' | 'clear'
  /** Whether an apostrophe may stand before what begins a formula, as our own CSV files have it; cells of workbooks need none. */
  readonly guarded: boolean
  /** Whether what the linter can fix is fixed on the way in. */
  readonly fix?: boolean
}

/** The route a line wants: one that is there, or a new one that lines of the same name share. */
export type WantedRoute =
  | { readonly kind: 'known'; readonly id: number }
  | { readonly kind: 'new'; readonly name: string; readonly destination: string; readonly shared: boolean }

export type NewPiece = { readonly name: string; readonly medium: string; readonly source: string } & Required<
  Omit<
    CodeSet,
    'routeId' | 'destination' | 'state' | 'slug' | 'domainId' | 'archived' | 'name' | 'medium' | 'source'
  >
> & {
    readonly slug: string | null
    readonly state: 'live' | 'paused'
  }

export type LineAction =
  | { readonly kind: 'create'; readonly piece: NewPiece; readonly route: WantedRoute }
  | {
      readonly kind: 'change'
      readonly id: number
      readonly set: CodeSet
      readonly route: WantedRoute | null
    }
  | { readonly kind: 'none' }

export const LINE_VERDICTS = ['create', 'change', 'same', 'refuse'] as const
export type LineVerdict = (typeof LINE_VERDICTS)[number]

/** What one line of a file would do. */
export interface PlanLine {
  /** In the file, from 1, headings and empty lines counted out. */
  readonly line: number
  readonly verdict: LineVerdict
  readonly name: string
  /** Why it is refused; empty otherwise. */
  readonly why: readonly string[]
  /** What would be different, column by column. */
  readonly changes: readonly { readonly column: string; readonly was: string; readonly is: string }[]
  readonly findings: readonly Finding[]
  readonly action: LineAction
}

const lower = (text: string) => text.trim().toLowerCase()
/** The slug in a cell: a whole short link is taken for its end. */
export function slugIn(cell: string): string {
  const text = cell.trim()
  return canonicalSlug(text.slice(text.lastIndexOf('/') + 1))
}

type Part = Partial<Record<string, unknown>>

/** The cells of a line by their column, as they were typed. */
function cellsOf(row: readonly string[], mapping: Mapping, isGuarded: boolean): Map<string, string> {
  const cells = new Map<string, string>()
  mapping.forEach((id, i) => {
    if (id !== null) cells.set(id, (isGuarded ? unguarded(row[i] ?? '') : (row[i] ?? '')).trim())
  })
  return cells
}

/** Latitude and longitude in two columns are one statement; extras of several columns are one value. */
function merge(into: CellSet, set: CellSet): void {
  const extra = { ...into.extra, ...set.extra }
  Object.assign(into, set, Object.keys(extra).length > 0 ? { extra } : {})
}

/**
 * Works out line by line what importing a table would do, without doing it. Lines find their piece by the
 * key, or else by the short link; a line that finds none makes a new piece. Lines are judged in order, so
 * that a key or short link that comes twice is refused the second time.
 */
export function* dryRun(
  rows: Iterable<readonly string[]>,
  mapping: Mapping,
  world: PlanWorld,
  { empty, guarded, fix = false }: DryRunOptions,
): Generator<PlanLine, void, undefined> {
  const byKey = new Map(world.pieces.filter(({ key }) => key !== '').map((piece) => [piece.key, piece]))
  // On another domain the same slug is another piece's.
  const bySlug = new Map(
    world.pieces.filter(({ domainId }) => domainId === world.domainId).map((piece) => [piece.slug, piece]),
  )
  const routes = new Map(world.routes.map((route) => [lower(route.name), route]))
  const fresh = new Map<string, { name: string; destination: string }>()
  const [keys, slugs, met] = [new Set<string>(), new Set<string>(), new Set<number>()]
  const counts = tagCounts(world.counts.values, world.counts.tags)
  // Look-alikes are told by what is stored; same tags by the file's other lines too.
  const stored = tagContext({
    rules: world.rules,
    campaign: world.campaign,
    counts: world.counts,
    counted: true,
  })
  const context = {
    ...stored,
    alike: tagContext({ rules: world.rules, campaign: world.campaign, counts, counted: true }).alike,
  }

  let line = 0
  for (const row of rows) {
    line++
    const cells = cellsOf(row, mapping, guarded)
    const why: string[] = []
    const typedKey = cells.get('key') ?? ''
    const piece =
      (typedKey === '' ? undefined : byKey.get(typedKey)) ?? bySlug.get(slugIn(cells.get('slug') ?? ''))
    const set: CellSet = {}
    for (const column of world.columns) {
      const typed = cells.get(column.id)
      if (
        typed === undefined ||
        (typed === '' &&
          (!piece || empty === 'leave' || !column.optional || column.id === 'slug' || column.id === 'route'))
      )
        continue
      const read = column.read(typed)
      if (read.ok) merge(set, read.value)
      else why.push(`${column.title}: ${read.sentence}`)
    }
    if (set.campaign !== undefined && set.campaign !== world.campaign && set.campaign !== '')
      why.push(
        `Campaign: this plan’s value is “${world.campaign}”, not “${set.campaign}”. Import the line into its own campaign, or leave the column out.`,
      )
    if (piece && met.has(piece.id)) why.push('An earlier line is about the same piece.')
    if (set.key && keys.has(set.key)) why.push(`Key: “${set.key}” stands in an earlier line already.`)
    if (set.slug !== undefined && set.slug !== piece?.slug) {
      const holder = bySlug.get(set.slug)
      if (slugs.has(set.slug)) why.push(`Short link: ${set.slug} stands in an earlier line already.`)
      else if (holder !== undefined || world.taken.has(set.slug))
        why.push(
          `Short link: ${set.slug} is taken${holder ? ` by “${holder.name}”` : ''}. Choose another, or leave the cell empty for a free one.`,
        )
    }
    const name = set.name ?? piece?.name ?? ''
    const fault = [set.destination, set.otherwise].reduce<string | null>(
      (found, address) =>
        found ?? (address === undefined || address === '' ? null : world.destinationFault(address)),
      null,
    )
    if (fault !== null) why.push(`Destination: ${fault}`)
    let route = wantedRoute(set, piece, name, routes, fresh, why)
    const whole = { ...USUAL_PIECE, ...(piece ?? {}), ...set }
    for (const field of ['name', 'medium', 'source'] as const) {
      if (
        !piece &&
        set[field] === undefined &&
        !why.some((each) => each.toLowerCase().startsWith(TITLES[field].toLowerCase()))
      ) {
        why.push(`${TITLES[field]}: ${pieceFields[field].safeParse('').error?.issues[0]?.message ?? ''}`)
      }
    }
    why.push(...wholeFaults(whole).map(({ message }) => message))

    if (piece) counts.count({ ...piece, campaign: world.campaign }, -1)
    let tagged = taggedOf(whole, set, piece, world.campaign)
    counts.count(tagged)
    let found = lint(tagged, context)
    const fixes = fix && why.length === 0 ? fixesFor(found, set, piece) : {}
    if (Object.keys(fixes).length > 0) {
      counts.count(tagged, -1)
      Object.assign(set, fixSet(fixes, tagged.extra))
      if (route?.kind === 'new' && set.destination !== undefined)
        route = { ...route, destination: set.destination }
      tagged = taggedOf({ ...whole, ...set }, set, piece, world.campaign)
      counts.count(tagged)
      found = lint(tagged, context)
    }
    // What is missing stands among the reasons already.
    const findings = found.filter(({ kind, refused }) => why.length === 0 || kind !== 'missing' || !refused)
    for (const { refused, sentence } of findings) if (refused && !why.length) why.push(sentence)

    if (typedKey !== '') keys.add(typedKey)
    if (set.slug !== undefined) slugs.add(set.slug)
    if (piece) met.add(piece.id)
    const changes = piece ? differences(piece, set, world.columns) : []
    if (why.length > 0) {
      yield { line, verdict: 'refuse', name, why, changes: [], findings, action: { kind: 'none' } }
      continue
    }
    if (route?.kind === 'new' && route.shared) fresh.set(lower(route.name), route)
    if (!piece) {
      yield {
        line,
        verdict: 'create',
        name,
        why,
        changes,
        findings,
        action: {
          kind: 'create',
          piece: newPiece(set),
          route: route ?? { kind: 'new', name, destination: '', shared: false },
        },
      }
      continue
    }
    if (changes.length === 0) {
      yield { line, verdict: 'same', name, why, changes, findings, action: { kind: 'none' } }
      continue
    }
    const { route: _route, destination, campaign: _campaign, ...fields } = set
    const leading =
      destination !== undefined && destination !== piece.destination && route === null ? { destination } : {}
    const extra = fields.extra ? { extra: { ...piece.extra, ...fields.extra } } : {}
    yield {
      line,
      verdict: 'change',
      name,
      why,
      changes,
      findings,
      action: { kind: 'change', id: piece.id, set: { ...fields, ...leading, ...extra }, route },
    }
  }
}

/** Which route a line wants; null where a known piece keeps its own. Says in `why` what cannot be. */
function wantedRoute(
  set: CellSet,
  piece: KnownPiece | undefined,
  name: string,
  routes: ReadonlyMap<string, KnownRoute>,
  fresh: ReadonlyMap<string, { name: string; destination: string }>,
  why: string[],
): WantedRoute | null {
  const wished = set.route === undefined || set.route === '' ? null : set.route
  if (piece && (wished === null || lower(wished) === lower(piece.routeName))) {
    if (set.destination !== undefined && set.destination !== piece.destination && piece.routeCodes > 1) {
      why.push(
        `Destination: ${String(piece.routeCodes)} pieces share the route “${piece.routeName}”. Change where it leads on Routes, for all of them.`,
      )
    }
    return null
  }
  if (wished === null) {
    if (set.destination === undefined && !why.some((each) => each.startsWith('Destination')))
      why.push('Destination: give the address this leads to, or the name of a route that has one.')
    return { kind: 'new', name, destination: set.destination ?? '', shared: false }
  }
  const known = routes.get(lower(wished)) ?? fresh.get(lower(wished))
  if (known) {
    if (set.destination !== undefined && set.destination !== known.destination)
      why.push(
        `Destination: the route “${known.name}” leads to ${known.destination}. Leave the cell empty, or name another route.`,
      )
    return 'id' in known ? { kind: 'known', id: known.id } : { kind: 'new', ...known, shared: true }
  }
  if (set.destination === undefined && !why.some((each) => each.startsWith('Destination')))
    why.push(
      `Route: there is no route “${wished}” yet. Give the address it leads to in this line, or in an earlier one.`,
    )
  return { kind: 'new', name: wished, destination: set.destination ?? '', shared: true }
}

/** What fixes set in a line; the campaign’s value and a known piece’s destination belong to more than this line. */
function fixesFor(
  found: readonly Finding[],
  set: CellSet,
  piece: KnownPiece | undefined,
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(fixesOf(found)).filter(
      ([field]) =>
        field !== 'campaign' && (field !== 'destination' || (!piece && set.destination !== undefined)),
    ),
  )
}

/** A piece's tags as the linter reads them. */
function taggedOf(whole: Part, set: CellSet, piece: KnownPiece | undefined, campaign: string) {
  const text = (field: string) => (typeof whole[field] === 'string' ? whole[field] : '')
  return {
    name: text('name'),
    place: text('place'),
    size: Number(whole.sizeMm ?? 0),
    medium: text('medium'),
    source: text('source'),
    term: text('term'),
    content: text('content'),
    reference: text('reference'),
    key: text('key'),
    route: set.route ?? piece?.routeName ?? text('name'),
    link: set.slug ?? piece?.slug ?? '',
    campaign,
    extra: { ...piece?.extra, ...set.extra },
    destination: set.destination ?? piece?.destination ?? '',
  }
}

function newPiece({
  route: _route,
  destination: _destination,
  campaign: _campaign,
  slug,
  state,
  ...set
}: CellSet): NewPiece {
  // Name, medium and source were asked for above.
  return {
    ...USUAL_PIECE,
    name: '',
    medium: '',
    source: '',
    ...set,
    slug: slug ?? null,
    state: state === 'paused' ? 'paused' : 'live',
  }
}

/** What a line would change of a piece, in the words of its columns. */
function differences(piece: KnownPiece, set: CellSet, columns: readonly PlanColumn[]): PlanLine['changes'] {
  const { route, campaign: _campaign, ...rest } = set
  const after: PlanRow = {
    ...piece,
    ...(rest as Partial<Code>),
    extra: { ...piece.extra, ...set.extra },
    ...(route ? { routeName: lower(route) === lower(piece.routeName) ? piece.routeName : route } : {}),
  }
  return columns
    .filter(({ id }) => id !== 'latitude' && id !== 'longitude')
    .map((column) => ({ column: column.title, was: column.write(piece), is: column.write(after) }))
    .filter(({ was, is }) => was !== is)
}
