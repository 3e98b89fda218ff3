import type Sqlite from 'better-sqlite3'
import type { Dimension } from '@flimbo/core/dimensions'
import { addressInWords, answerInWords, outcomeInWords, type Answer } from '@flimbo/core/routing'
import type { FigureCode } from './codeRows.ts'
import { routeLanes, type LiveRoute } from './routeLanes.ts'

const SAID = 'a page that says so'

/** Says where the lanes of routes lead by now. */
export function laneLeads(database: Sqlite.Database) {
  const lanesOf = routeLanes(database)
  const nameIn = (table: 'pages' | 'routes') =>
    database.prepare(`SELECT name FROM ${table} WHERE id = ?`).pluck()
  const [pageName, routeName] = [nameIn('pages'), nameIn('routes')]
  const names = {
    page: (id: number) => (pageName.get(id) as string | undefined) ?? '',
    route: (id: number) => (routeName.get(id) as string | undefined) ?? '',
  }
  const answered = (answer: Answer | null) => (answer ? answerInWords(answer, names) : SAID)

  function leadOf(route: LiveRoute, exit: string, variant: string | undefined): string {
    const { before = null, after = null, full = null, fullToday = null } = route.rules.life ?? {}
    const bounds = new Map([
      ['before', before],
      ['after', after],
      ['full', full],
      ['full-today', fullToday],
    ])
    const bound = bounds.get(exit)
    if (bound !== undefined) return answered(bound)
    const outcome = route.lanes.find(({ id }) => id === exit)?.outcome
    if (!outcome) return exit === 'otherwise' ? addressInWords(route.destination) : 'a lane that is gone'
    if (outcome.kind !== 'split') return outcomeInWords(outcome, names)
    const chosen = outcome.variants.find(({ id }) => id === variant)
    return chosen ? answerInWords(chosen.leads, names) : 'a split test'
  }

  /** Where each row leads, by its keys; nothing where they are not told apart by lane or variant. */
  return (
    by: readonly Dimension[],
    rows: readonly { readonly keys: readonly string[] }[],
    codes: ReadonlyMap<number, FigureCode>,
  ): string[] => {
    const side = by.findIndex((each) => each === 'lane' || each === 'variant')
    if (side < 0) return []
    const known = new Map<string, LiveRoute | null>()
    const pieceSide = by.indexOf('piece')
    return rows.map(({ keys }) => {
      const [routeId = '', exit = '', variant] = (keys[side] ?? '').split('\t')
      if (exit === '') return SAID
      const route = known.get(routeId) ?? lanesOf(Number(routeId))
      known.set(routeId, route)
      const own = pieceSide < 0 ? '' : (codes.get(Number(keys[pieceSide]))?.otherwise ?? '')
      if (exit === 'otherwise' && own !== '') return addressInWords(own)
      return route ? leadOf(route, exit, variant) : 'a route that is gone'
    })
  }
}
