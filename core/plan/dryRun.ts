import { pieceFields, slugIn, DEFAULT_PIECE, wholeFaults } from '../codes/index.ts'
import {
  fixesOf,
  fixSet,
  lint,
  tagContext,
  tagCounts,
  type Finding,
  type TagContext,
  type TagCounts,
} from '../tagging/index.ts'
import type { CellSet } from './columns.ts'
import { faultList, type FaultList } from './faults.ts'
import type { Mapping } from './headers.ts'
import { cellsOf, differences, merge, newPiece, taggedPieceOf, type Part } from './lineCells.ts'
import type { DryRunOptions, KnownPiece, LineAction, PlanLine, PlanWorld, WantedRoute } from './planLine.ts'
import { styleNamed, unknownStyle } from './styleNamed.ts'
import { routeKey, wantedRoute } from './wantedRoute.ts'

const REQUIRED = { name: 'Piece', medium: 'Medium', source: 'Source' } as const

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

/** What is known by the time a line is judged: what is stored, and what earlier lines of the file said. */
function knowledgeOf(world: PlanWorld) {
  const counts = tagCounts(world.counts.values, world.counts.tags)
  const contextOf = (counted: TagCounts) =>
    tagContext({ rules: world.rules, campaign: world.campaign, counts: counted, counted: true })
  // Look-alikes are told by what is stored; same tags by the file's other lines too.
  const context: TagContext = { ...contextOf(world.counts), alike: contextOf(counts).alike }
  return {
    world,
    counts,
    context,
    byKey: new Map(world.pieces.filter(({ key }) => key !== '').map((piece) => [piece.key, piece])),
    // On another domain the same slug is another piece's.
    bySlug: new Map(
      world.pieces.filter(({ domainId }) => domainId === world.domainId).map((piece) => [piece.slug, piece]),
    ),
    routes: new Map(world.routes.map((route) => [routeKey(route.name), route])),
    /** Routes that earlier lines make. */
    fresh: new Map<string, { name: string; destination: string }>(),
    /** Keys, short links and pieces of earlier lines. */
    keys: new Set<string>(),
    slugs: new Set<string>(),
    met: new Set<number>(),
  }
}
type Knowledge = ReturnType<typeof knowledgeOf>

/** Reads the cells of a line into what it sets. */
function readCells(
  cells: ReadonlyMap<string, string>,
  piece: KnownPiece | undefined,
  { world }: Knowledge,
  empty: DryRunOptions['empty'],
  faults: FaultList,
): CellSet {
  const set: CellSet = {}
  for (const column of world.columns) {
    const typed = cells.get(column.id)
    if (typed === undefined) continue
    const mayClear = piece && empty === 'clear' && column.optional
    if (typed === '' && (!mayClear || column.id === 'slug' || column.id === 'route')) continue
    const read = column.read(typed)
    if (!read.ok) faults.add(column.title, read.sentence)
    else if (read.value.style === undefined) merge(set, read.value)
    else {
      const styleId = styleNamed(read.value.style, world.styles)
      if (styleId === undefined) faults.add(column.title, unknownStyle(read.value.style))
      else merge(set, { styleId })
    }
  }
  return set
}

/** Says what speaks against a line as the file and what is stored stand. */
function checkAgainst(
  set: CellSet,
  piece: KnownPiece | undefined,
  { world, keys, slugs, met, bySlug }: Knowledge,
  faults: FaultList,
): void {
  if (set.campaign !== undefined && set.campaign !== world.campaign && set.campaign !== '')
    faults.add(
      'Campaign',
      `this plan’s value is “${world.campaign}”, not “${set.campaign}”. Import the line into its own campaign, or leave the column out.`,
    )
  if (piece && met.has(piece.id)) faults.add(null, 'An earlier line is about the same piece.')
  if (set.key && keys.has(set.key)) faults.add('Key', `“${set.key}” stands in an earlier line already.`)
  if (set.slug !== undefined && set.slug !== piece?.slug) {
    const holder = bySlug.get(set.slug)
    const by = holder ? ` by “${holder.name}”` : ''
    if (slugs.has(set.slug)) faults.add('Short link', `${set.slug} stands in an earlier line already.`)
    else if (holder !== undefined || world.taken.has(set.slug))
      faults.add(
        'Short link',
        `${set.slug} is taken${by}. Choose another, or leave the cell empty for a free one.`,
      )
  }
  for (const address of [set.destination, set.otherwise]) {
    const fault = address ? world.destinationFault(address) : null
    if (fault === null) continue
    faults.add('Destination', fault)
    return
  }
}

/** Says what a piece that does not exist yet must have, and what is wrong with a piece as a whole. */
function checkWhole(set: CellSet, piece: KnownPiece | undefined, whole: Part, faults: FaultList): void {
  for (const field of ['name', 'medium', 'source'] as const) {
    if (piece || set[field] !== undefined || faults.isAt(REQUIRED[field])) continue
    faults.add(REQUIRED[field], pieceFields[field].safeParse('').error?.issues[0]?.message ?? '')
  }
  for (const { message } of wholeFaults(whole)) faults.add(null, message)
}

/** Lints a line and, where that is wished, mends it first. Counts its tags among those of the file. */
function linted(
  set: CellSet,
  piece: KnownPiece | undefined,
  whole: Part,
  route: WantedRoute | null,
  { world, counts, context }: Knowledge,
  isFixed: boolean,
): { findings: Finding[]; route: WantedRoute | null } {
  if (piece) counts.count({ ...piece, campaign: world.campaign }, -1)
  const tagged = taggedPieceOf(whole, set, piece, world.campaign)
  counts.count(tagged)
  const findings = lint(tagged, context)
  const fixes = isFixed ? fixesFor(findings, set, piece) : {}
  if (Object.keys(fixes).length === 0) return { findings, route }
  counts.count(tagged, -1)
  Object.assign(set, fixSet(fixes, tagged.extra))
  const mended = taggedPieceOf({ ...whole, ...set }, set, piece, world.campaign)
  counts.count(mended)
  const destination = set.destination ?? ''
  return {
    findings: lint(mended, context),
    route: route?.kind === 'new' && destination !== '' ? { ...route, destination } : route,
  }
}

/** What a line that is not refused does. */
function actionOf(
  set: CellSet,
  piece: KnownPiece | undefined,
  name: string,
  route: WantedRoute | null,
): LineAction {
  if (!piece) {
    const own: WantedRoute = { kind: 'new', name, destination: '', shared: false }
    return { kind: 'create', piece: newPiece(set), route: route ?? own }
  }
  const { route: _route, destination, campaign: _campaign, ...fields } = set
  const isLedElsewhere = destination !== undefined && destination !== piece.destination && route === null
  return {
    kind: 'change',
    id: piece.id,
    route,
    set: {
      ...fields,
      ...(isLedElsewhere ? { destination } : {}),
      ...(fields.extra ? { extra: { ...piece.extra, ...fields.extra } } : {}),
    },
  }
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
  options: DryRunOptions,
): Generator<PlanLine, void, undefined> {
  const knowledge = knowledgeOf(world)
  let line = 0
  for (const row of rows)
    yield { line: ++line, ...judged(cellsOf(row, mapping, options.guarded), knowledge, options) }
}

function judged(
  cells: ReadonlyMap<string, string>,
  knowledge: Knowledge,
  { empty, fix = false }: DryRunOptions,
): Omit<PlanLine, 'line'> {
  const { world, byKey, bySlug, routes, fresh, keys, slugs, met } = knowledge
  const faults = faultList()
  const typedKey = cells.get('key') ?? ''
  const byTypedKey = typedKey === '' ? undefined : byKey.get(typedKey)
  const piece = byTypedKey ?? bySlug.get(slugIn(cells.get('slug') ?? ''))
  const set = readCells(cells, piece, knowledge, empty, faults)
  checkAgainst(set, piece, knowledge, faults)
  const name = set.name ?? piece?.name ?? ''
  const wanted = wantedRoute(set, piece, name, routes, fresh, faults)
  const whole = { ...DEFAULT_PIECE, ...(piece ?? {}), ...set }
  checkWhole(set, piece, whole, faults)
  const { findings: found, route } = linted(set, piece, whole, wanted, knowledge, fix && !faults.any())
  // What is missing stands among the reasons already.
  const findings = found.filter(({ kind, refused }) => !faults.any() || kind !== 'missing' || !refused)
  const refusing = faults.any() ? undefined : findings.find(({ refused }) => refused)
  if (refusing) faults.add(null, refusing.sentence)

  if (typedKey !== '') keys.add(typedKey)
  if (set.slug !== undefined) slugs.add(set.slug)
  if (piece) met.add(piece.id)
  const changes = piece ? differences(piece, set, world.columns, world.styles) : []
  const base = { name, why: faults.sentences(), findings }
  if (faults.any()) return { ...base, verdict: 'refuse', changes: [], action: { kind: 'none' } }
  if (route?.kind === 'new' && route.shared) fresh.set(routeKey(route.name), route)
  if (piece && changes.length === 0) return { ...base, verdict: 'same', changes, action: { kind: 'none' } }
  return { ...base, verdict: piece ? 'change' : 'create', changes, action: actionOf(set, piece, name, route) }
}
