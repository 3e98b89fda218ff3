import { DEFAULT_PIECE, type Code } from '../codes/index.ts'
import { type CellSet, type PlanColumn, type PlanRow } from './columns.ts'
import type { Mapping } from './headers.ts'
import type { KnownPiece, NewPiece, PlanLine, PlanWorld } from './planLine.ts'
import { unescapeFormula } from './table.ts'
import { routeKey } from './wantedRoute.ts'

export type Part = Partial<Record<string, unknown>>

/** The cells of a line by their column, as they were typed. */
export function cellsOf(row: readonly string[], mapping: Mapping, isGuarded: boolean): Map<string, string> {
  const cells = new Map<string, string>()
  mapping.forEach((id, i) => {
    if (id !== null) cells.set(id, (isGuarded ? unescapeFormula(row[i] ?? '') : (row[i] ?? '')).trim())
  })
  return cells
}

/** Latitude and longitude in two columns are one statement; extras of several columns are one value. */
export function merge(into: CellSet, set: CellSet): void {
  const extra = { ...into.extra, ...set.extra }
  Object.assign(into, set, Object.keys(extra).length > 0 ? { extra } : {})
}

/** A piece's tags as the linter reads them. */
export function taggedPieceOf(whole: Part, set: CellSet, piece: KnownPiece | undefined, campaign: string) {
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

/** What a line says of a piece that does not exist yet. */
export function newPiece({
  route: _route,
  destination: _destination,
  campaign: _campaign,
  style: _style,
  slug,
  state,
  ...set
}: CellSet): NewPiece {
  // Name, medium and source were asked for above.
  return {
    ...DEFAULT_PIECE,
    name: '',
    medium: '',
    source: '',
    ...set,
    slug: slug ?? null,
    state: state === 'paused' ? 'paused' : 'live',
  }
}

/** What a line would change of a piece, in the words of its columns. */
export function differences(
  piece: KnownPiece,
  set: CellSet,
  columns: readonly PlanColumn[],
  styles: PlanWorld['styles'],
): PlanLine['changes'] {
  const { route, campaign: _campaign, ...rest } = set
  const after: PlanRow = {
    ...piece,
    ...(rest as Partial<Code>),
    extra: { ...piece.extra, ...set.extra },
    ...(set.styleId === undefined
      ? {}
      : { styleName: styles.find(({ id }) => id === set.styleId)?.name ?? '' }),
    ...(route ? { routeName: routeKey(route) === routeKey(piece.routeName) ? piece.routeName : route } : {}),
  }
  return columns
    .filter(({ id }) => id !== 'latitude' && id !== 'longitude')
    .map((column) => ({ column: column.title, was: column.write(piece), is: column.write(after) }))
    .filter(({ was, is }) => was !== is)
}
