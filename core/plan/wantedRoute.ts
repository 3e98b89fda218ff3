import type { CellSet } from './columns.ts'
import type { FaultList } from './faults.ts'
import type { KnownPiece, KnownRoute, WantedRoute } from './planLine.ts'

/** Names of routes are the same whatever their case. */
export const routeKey = (name: string) => name.trim().toLowerCase()

/** Which route a line wants; null where a known piece keeps its own. Says what cannot be. */
export function wantedRoute(
  set: CellSet,
  piece: KnownPiece | undefined,
  name: string,
  routes: ReadonlyMap<string, KnownRoute>,
  fresh: ReadonlyMap<string, { name: string; destination: string }>,
  faults: FaultList,
): WantedRoute | null {
  const wished = set.route === undefined || set.route === '' ? null : set.route
  if (piece && (wished === null || routeKey(wished) === routeKey(piece.routeName))) {
    if (set.destination !== undefined && set.destination !== piece.destination && piece.routeCodes > 1) {
      faults.add(
        'Destination',
        `${String(piece.routeCodes)} pieces share the route “${piece.routeName}”. Change where it leads on Routes, for all of them.`,
      )
    }
    return null
  }
  if (wished === null) {
    if (set.destination === undefined && !faults.isAt('Destination'))
      faults.add('Destination', 'give the address this leads to, or the name of a route that has one.')
    return { kind: 'new', name, destination: set.destination ?? '', shared: false }
  }
  const known = routes.get(routeKey(wished)) ?? fresh.get(routeKey(wished))
  if (known) {
    if (set.destination !== undefined && set.destination !== known.destination)
      faults.add(
        'Destination',
        `the route “${known.name}” leads to ${known.destination}. Leave the cell empty, or name another route.`,
      )
    return 'id' in known ? { kind: 'known', id: known.id } : { kind: 'new', ...known, shared: true }
  }
  if (set.destination === undefined && !faults.isAt('Destination'))
    faults.add(
      'Route',
      `there is no route “${wished}” yet. Give the address it leads to in this line, or in an earlier one.`,
    )
  return { kind: 'new', name: wished, destination: set.destination ?? '', shared: true }
}
