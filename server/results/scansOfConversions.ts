import type Sqlite from 'better-sqlite3'
import type { ConversionTrait, OfScanTraits } from './conversions.ts'
import { lookUps } from './lookUps.ts'
import { Keys } from './keys.ts'
import { numbering } from './numbering.ts'

/** So many scans are remembered; those beyond are read anew each time. */
const KNOWN_MAX = 2_000_000
/** So many are read at once. */
const BATCH = 5000
/** That of what is not known: its scan is folded, or there never was one. */
const NO_SCAN = 0

type StoredRow = [
  id: number,
  wayId: number,
  placeId: number,
  agentId: number,
  language: string,
  referrer: string,
]
type PlainRow = [
  ...[outcome: string, exit: string, variant: string, placeId: number, agentId: number],
  ...[language: string, referrer: string],
]

const none = () => ({
  /** The numbers of scans by their ids. */
  numbers: new Map<number, number>(),
  way: [NO_SCAN],
  browser: [NO_SCAN],
  language: [NO_SCAN],
  referrer: [NO_SCAN],
  spot: [NO_SCAN],
})

/** What scans are told apart by; the first of each stands for what is not known. */
function tables() {
  const made = {
    way: numbering<OfScanTraits['way']>(),
    browser: new Keys(['']),
    language: new Keys(['']),
    referrer: new Keys(['']),
    spot: numbering<OfScanTraits['spot']>(),
  }
  made.way.numberOf('', () => ({ outcome: '', exit: '', variant: '' }))
  made.spot.numberOf('', () => ({ latitude: null, longitude: null }))
  return made
}

/** Where the values of each trait stand by their numbers. */
type Lists = { readonly [N in keyof OfScanTraits]: { readonly list: readonly OfScanTraits[N][] } }

/**
 * Reads the scans that conversions came of. A scan never changes, so each is read once: until some are folded, when there is
 * nothing left to know of them.
 */
export function scansOfConversions(database: Sqlite.Database, knownMax = KNOWN_MAX) {
  const stored = database
    .prepare(
      `SELECT s.id, s.wayId, s.placeId, s.agentId, l.text, r.text FROM json_each(?) j
      CROSS JOIN scan_rows s ON s.id = j.value
      CROSS JOIN words l ON l.id = s.languageId CROSS JOIN words r ON r.id = s.referrerId`,
    )
    .raw()
  // Those that are being moved have no such row yet.
  const plain = database
    .prepare('SELECT outcome, exit, variant, placeId, agentId, language, referrer FROM scans WHERE id = ?')
    .raw()
  const wayOf = database.prepare('SELECT outcome, exit, variant FROM ways WHERE id = ?')
  const stateOf = database
    .prepare(
      `SELECT count(*) || ' ' || coalesce(max(lastId), 0) || ' ' || coalesce(max(clearedTo), 0) || ' ' ||
        coalesce(max(before), 0) || ' ' || coalesce((SELECT min(id) FROM scan_rows), 0) FROM folds`,
    )
    .pluck()
  const newestId = database.prepare('SELECT coalesce(max(id), 0) FROM scan_rows').pluck()
  const { placeOf, agentOf } = lookUps(database)
  let [columns, values] = [none(), tables()]
  let state = ''
  /** The ids of those that are too many. */
  const excess: number[] = []

  function forget(): void {
    columns = none()
    values = tables()
    excess.length = 0
  }
  /** Forgets those that are too many. */
  function trim(): void {
    for (const id of excess.splice(0)) columns.numbers.delete(id)
    for (const column of [columns.way, columns.browser, columns.language, columns.referrer, columns.spot])
      column.length = Math.min(column.length, knownMax)
  }
  function add(
    id: number,
    way: number,
    [placeId, agentId, language, referrer]: [number, number, string, string],
  ): void {
    const { latitude = null, longitude = null } = placeOf(placeId) ?? {}
    if (columns.way.length >= knownMax) excess.push(id)
    columns.numbers.set(id, columns.way.length)
    columns.way.push(way)
    columns.browser.push(values.browser.placeOf(agentOf(agentId)?.browser ?? ''))
    columns.language.push(values.language.placeOf(language))
    columns.referrer.push(values.referrer.placeOf(referrer))
    columns.spot.push(values.spot.numberOf(placeId, () => ({ latitude, longitude })))
  }
  function read(ids: readonly number[]): void {
    for (const [id, wayId, ...rest] of stored.all(JSON.stringify(ids)) as StoredRow[])
      add(
        id,
        values.way.numberOf(wayId, () => wayOf.get(wayId) as OfScanTraits['way']),
        rest,
      )
    // Numbers ascend: what is not there by then never will be.
    const newest = Number(newestId.get())
    for (const id of ids) {
      if (columns.numbers.has(id)) continue
      const row = plain.get(id) as PlainRow | undefined
      if (row) {
        const [outcome, exit, variant, ...rest] = row
        const way = values.way.numberOf([outcome, exit, variant].join('\t'), () => ({
          outcome,
          exit,
          variant,
        }))
        add(id, way, rest)
      } else if (id <= newest) columns.numbers.set(id, NO_SCAN)
    }
  }

  return {
    /** Has all scans read anew: another database may have been put in the place of this. */
    forget,
    /** What each scan is called in `trait`, by their ids. */
    numbersOf(ids: Float64Array): Uint32Array {
      const now = String(stateOf.get())
      if (now !== state) forget()
      state = now
      trim()
      const missing = new Set<number>()
      const numbers = new Uint32Array(ids.length)
      const look = () => {
        for (let k = 0; k < ids.length; k++) {
          const id = ids[k] ?? 0
          const number = columns.numbers.get(id)
          if (number === undefined) missing.add(id)
          else numbers[k] = number
        }
      }
      look()
      if (missing.size === 0) return numbers
      const all = [...missing]
      for (let from = 0; from < all.length; from += BATCH) read(all.slice(from, from + BATCH))
      look()
      return numbers
    },
    /** A trait of scans, by what each is called. */
    trait: <N extends keyof OfScanTraits>(
      name: N,
      numbers: Uint32Array,
    ): ConversionTrait<OfScanTraits[N]> => {
      const index = new Uint32Array(numbers.length)
      const ofScan = columns[name]
      for (let k = 0; k < numbers.length; k++) index[k] = ofScan[numbers[k] ?? NO_SCAN] ?? 0
      const lists: Lists = values
      return { values: lists[name].list, index }
    },
  }
}
