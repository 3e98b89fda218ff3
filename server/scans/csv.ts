import type { Scan } from '@flimbo/core/scans'

/** One column of the file: its heading and what stands in it. */
const COLUMNS: readonly [heading: string, value: (scan: Scan) => string | number | null][] = [
  ['scan', (s) => s.id],
  ['time_utc', (s) => new Date(s.at).toISOString()],
  ['code_id', (s) => s.codeId],
  ['code', (s) => s.codeName],
  ['route_id', (s) => s.routeId],
  ['route_revision', (s) => s.revision],
  ['outcome', (s) => s.outcome],
  ['lane', (s) => s.exit],
  ['variant', (s) => s.variant],
  ['kept_apart_as', (s) => s.apart],
  ['unique', (s) => (s.unique ? 1 : 0)],
  ['country', (s) => s.country],
  ['region', (s) => s.region],
  ['city', (s) => s.city],
  ['latitude', (s) => s.latitude],
  ['longitude', (s) => s.longitude],
  ['device', (s) => s.device],
  ['system', (s) => s.system],
  ['system_version', (s) => s.systemVersion],
  ['browser', (s) => s.browser],
  ['language', (s) => s.language],
  ['referrer_host', (s) => s.referrer],
]

export const csvHeadings = COLUMNS.map(([heading]) => heading)

/** A scan's values in the order of the headings. */
export function csvValues(scan: Scan): (string | number | null)[] {
  return COLUMNS.map(([, value]) => value(scan))
}
