import type Sqlite from 'better-sqlite3'
import { whoInWords } from '@flimbo/core/conditions'
import type { Dimension } from '@flimbo/core/dimensions'
import type { FigureCode } from './codeRows.ts'
import { routeLanes } from './routeLanes.ts'

/** Where scans leave a route that no lane takes them from. */
const EXITS: Readonly<Record<string, string>> = {
  otherwise: 'otherwise',
  before: 'too early',
  after: 'over',
  full: 'full',
  'full-today': 'full for the day',
}

/** Names things that figures know by number or by key. */
export function keyNames(database: Sqlite.Database) {
  const nameIn = (table: 'campaigns' | 'clients' | 'routes') =>
    database.prepare(`SELECT name FROM ${table} WHERE id = ?`).pluck()
  const tables = { campaign: nameIn('campaigns'), client: nameIn('clients'), route: nameIn('routes') }
  const lanesOf = routeLanes(database)

  /** A lane that is gone is called by its key. */
  function laneName([routeId = '', exit = '', variant]: readonly string[]): string {
    const route = lanesOf(Number(routeId))
    if (!route) return exit
    const lane = route.lanes.find(({ id }) => id === exit)
    const called = lane && (lane.name === '' ? whoInWords(lane.condition) : lane.name)
    const name = `${route.name}: ${called ?? EXITS[exit] ?? exit}`
    if (variant === undefined) return name
    const variants = lane?.outcome.kind === 'split' ? lane.outcome.variants : []
    return `${name}, ${variants.find(({ id }) => id === variant)?.name ?? variant}`
  }

  /** Names of some keys of a dimension; none where the keys are names themselves. */
  return (
    dimension: Dimension,
    keys: Iterable<string>,
    codes: ReadonlyMap<number, FigureCode>,
  ): Record<string, string> | null => {
    const named = (nameOf: (key: string) => string) =>
      Object.fromEntries([...keys].filter((key) => key !== '').map((key) => [key, nameOf(key)]))
    if (dimension === 'piece') return named((key) => codes.get(Number(key))?.name ?? '')
    if (dimension === 'lane' || dimension === 'variant') return named((key) => laneName(key.split('\t')))
    if (dimension !== 'campaign' && dimension !== 'client' && dimension !== 'route') return null
    const name = tables[dimension]
    return named((key) => (name.get(Number(key)) as string | undefined) ?? '')
  }
}
