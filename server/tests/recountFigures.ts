import { tz } from '@date-fns/tz'
import { format } from 'date-fns'
import fc from 'fast-check'
import {
  DIMENSION_NAMES,
  DIMENSIONS,
  filterEntries,
  hasOrder,
  type Dimension,
  type Filters,
  type TimeDimension,
} from '@flimbo/core/dimensions'

/** A scan or a lead as a reader of rows sees it, with the code that brought it as it is now. */
export interface RecountRow {
  readonly at: number
  readonly codeId: number
  readonly country: string
  readonly region: string
  readonly city: string
  readonly latitude: number | null
  readonly longitude: number | null
  readonly device: string
  readonly system: string
  readonly browser: string
  readonly language: string
  readonly referrer: string
  readonly outcome: string
  readonly routeId: number
  readonly exit: string
  readonly variant: string
}
export interface RecountCode {
  readonly id: number
  readonly campaignId: number
  readonly nowRouteId: number
  readonly medium: string
  readonly place: string
  readonly latitude: number | null
  readonly longitude: number | null
  readonly cost: number | null
}

/** As another library names pieces of time. */
const FORMATS: Readonly<Record<TimeDimension | 'hourOfDay' | 'weekday' | 'hourOfWeek', string>> = {
  hour: "yyyy-MM-dd'T'HH:00xxx",
  day: 'yyyy-MM-dd',
  week: "RRRR-'W'II",
  month: 'yyyy-MM',
  quarter: 'yyyy-QQQ',
  year: 'yyyy',
  hourOfDay: 'HH',
  weekday: 'i',
  hourOfWeek: 'i-HH',
}

/** Kilometres by the spherical law of cosines: another formula than the one that is checked. */
function km(a: { latitude: number; longitude: number }, b: { latitude: number; longitude: number }): number {
  const [p, q] = [(a.latitude * Math.PI) / 180, (b.latitude * Math.PI) / 180]
  const turn = ((b.longitude - a.longitude) * Math.PI) / 180
  const cosine = Math.sin(p) * Math.sin(q) + Math.cos(p) * Math.cos(q) * Math.cos(turn)
  return 6371.0088 * Math.acos(Math.min(1, cosine))
}
function bandOf(code: RecountCode | undefined, { latitude, longitude }: RecountRow): string {
  if (!code || code.latitude === null || code.longitude === null || latitude === null || longitude === null)
    return ''
  const away = km({ latitude: code.latitude, longitude: code.longitude }, { latitude, longitude })
  if (away < 50) return away < 20 ? 'near' : '20-50'
  if (away < 100) return '50-100'
  return away < 300 ? '100-300' : '300-1000'
}

/** What a row is called in a dimension, told from the row alone. */
export function recountKey(
  dimension: Dimension,
  row: RecountRow,
  code: RecountCode | undefined,
  zone: string,
): string {
  const all = (...parts: (string | number)[]) => (parts.at(-1) === '' ? '' : parts.join('\t'))
  switch (dimension) {
    case 'client':
      return '1'
    case 'campaign':
      return String(code?.campaignId)
    case 'route':
      return String(code?.nowRouteId)
    case 'piece':
      return String(row.codeId)
    case 'channel':
      return ''
    case 'medium':
      return code?.medium ?? ''
    case 'place':
      return code?.place ?? ''
    case 'source':
      return 'p'
    case 'content':
      return ''
    case 'region':
      return all(row.country, row.region)
    case 'city':
      return all(row.country, row.region, row.city)
    case 'language':
      return row.language.split('-')[0] ?? ''
    case 'lane':
      return all(row.routeId, row.exit)
    case 'variant':
      return all(row.routeId, row.exit, row.variant)
    case 'distance':
      return bandOf(code, row)
    case 'country':
    case 'device':
    case 'system':
    case 'browser':
    case 'referrer':
    case 'outcome':
      return row[dimension]
    case 'hour':
    case 'day':
    case 'week':
    case 'month':
    case 'quarter':
    case 'year':
    case 'hourOfDay':
    case 'weekday':
    case 'hourOfWeek':
      return format(row.at, FORMATS[dimension], { in: tz(zone) })
  }
}

/** Keys that some rows have, to be narrowed to. */
const FILTER_KEYS: Readonly<Partial<Record<Dimension, readonly string[]>>> = {
  day: ['2026-03-29', '2026-03-30', '2026-04-02'],
  week: ['2026-W13', '2026-W14'],
  weekday: ['1', '6', '7'],
  hourOfDay: ['00', '02', '03', '13'],
  piece: ['1', '3', '4'],
  medium: ['poster', 'card'],
  campaign: ['1', '2'],
  city: ['DE\tCoast\tNorden', ''],
  device: ['phone', 'unknown'],
  language: ['de', ''],
  lane: ['1\totherwise', '2\t7', ''],
  variant: ['1\totherwise\ta', '2\t7\ta'],
  referrer: ['Husum', ''],
  distance: ['50-100', '20-50', ''],
}

export const figureQuestion = fc.record({
  by: fc.uniqueArray(fc.constantFrom(...DIMENSION_NAMES), { maxLength: 2 }),
  filters: fc
    .uniqueArray(fc.constantFrom(...(Object.keys(FILTER_KEYS) as Dimension[])), { maxLength: 2 })
    .chain((names) =>
      fc.record(
        Object.fromEntries(
          names.map((name) => [name, fc.subarray([...(FILTER_KEYS[name] ?? [])], { minLength: 1 })]),
        ),
      ),
    ) as fc.Arbitrary<Filters>,
})
export type FigureQuestion = typeof figureQuestion extends fc.Arbitrary<infer Q> ? Q : never

/** Whether sums alone can answer: nothing but codes, and one thing beside them. */
export function isOfSums({ by, filters }: FigureQuestion): boolean {
  const ofCodes = (dimension: Dimension) => DIMENSIONS[dimension].kind === 'piece'
  return (
    filterEntries(filters)
      .map(([name]) => name)
      .every(ofCodes) &&
    !by.includes('distance') &&
    by.filter((dimension) => !ofCodes(dimension)).length <= 1
  )
}

/** Whether it asks for what sums know by days of the campaign's zone alone. */
export const isOfPlaceOrAgent = ({ by }: FigureQuestion): boolean =>
  by.some((dimension) =>
    ['country', 'region', 'city', 'device', 'system', 'browser', 'language', 'referrer'].includes(dimension),
  )

/** Whether all filters take a row. */
export const isWanted = (
  { filters }: Pick<FigureQuestion, 'filters'>,
  row: RecountRow,
  code: RecountCode | undefined,
  zone: string,
): boolean =>
  filterEntries(filters).every(([dimension, keys]) => keys.includes(recountKey(dimension, row, code, zone)))

/** What came of a scan, with what its scan knows. */
export type RecountConversion = RecountRow & {
  readonly leads: number
  readonly arrivals: number
  readonly goals: number
  /** Thousandths. */
  readonly valueMilli: number
}
const NOTHING = { scans: 0, uniques: 0, leads: 0, arrivals: 0, goals: 0, value: 0 }
export type RecountFigures = typeof NOTHING & { cost: number | null }

/** Figures by their keys: of all rows that the filters take, and of codes what they cost. */
export function recount(
  { by, filters }: FigureQuestion,
  scans: readonly (RecountRow & { isUnique: number })[],
  conversions: readonly RecountConversion[],
  codes: ReadonlyMap<number, RecountCode>,
  zone: string,
): Map<string, RecountFigures> {
  const keyIn = (row: RecountRow) => (dimension: Dimension) =>
    recountKey(dimension, row, codes.get(row.codeId), zone)
  const isTaken = (row: RecountRow) => isWanted({ filters }, row, codes.get(row.codeId), zone)
  const found = new Map<string, RecountFigures>()
  const at = (row: RecountRow) => {
    const id = by.map(keyIn(row)).join(' | ')
    const there = found.get(id) ?? { ...NOTHING, cost: null }
    found.set(id, there)
    return there
  }
  for (const row of scans.filter(isTaken)) {
    at(row).scans++
    at(row).uniques += row.isUnique
  }
  for (const row of conversions.filter(isTaken)) {
    const figures = at(row)
    figures.leads += row.leads
    figures.arrivals += row.arrivals
    figures.goals += row.goals
    figures.value = Math.round(figures.value * 1000 + row.valueMilli) / 1000
  }
  const ofCodes = [...by, ...filterEntries(filters).map(([name]) => name)]
  if (ofCodes.every((dimension) => DIMENSIONS[dimension].kind === 'piece'))
    for (const code of codes.values()) {
      const row = { codeId: code.id } as RecountRow
      if (isTaken(row) && code.cost !== null)
        at(row).cost = Number(((at(row).cost ?? 0) + code.cost).toFixed(2))
    }
  return found
}

/** Whether a question shows keys that there is nothing of. */
export const showsAll = ({ by }: FigureQuestion) => by.length === 1 && by[0] !== undefined && hasOrder(by[0])
