import { line } from '../api/index.ts'

/** The UTM parameters, in the order an address carries them. Common practice, no published source. */
export const UTM_FIELDS = ['source', 'medium', 'campaign', 'term', 'content'] as const
export type UtmField = (typeof UTM_FIELDS)[number]

/** A code's UTM values; an empty one is left out of the address. */
export type UtmValues = Readonly<Record<UtmField, string>>

export const UTM_VALUE_MAX = 150

/** A UTM value as a person enters it: one line, at most 150 characters. `what` names it in sentences. */
export function utmValue(what: string) {
  return line(what, UTM_VALUE_MAX)
}

/** A piece's UTM values, the campaign's own among them. */
export function utmOf(
  { source, medium, term, content }: Omit<UtmValues, 'campaign'>,
  campaign: string,
): UtmValues {
  return { source, medium, campaign, term, content }
}

/** The name a UTM value has in a query: `utm_source`. */
export function utmName(field: UtmField): `utm_${UtmField}` {
  return `utm_${field}`
}

/** The UTM pairs of an address in their fixed order, empty values left out. */
export function utmPairs(utm: UtmValues): [name: string, value: string][] {
  return UTM_FIELDS.filter((field) => utm[field] !== '').map((field) => [utmName(field), utm[field]])
}

/** One parameter of a workspace's own, with a code's value for it. */
export type ExtraValues = Readonly<Record<string, string>>

/** Every pair a code adds to its destination: UTM values in their fixed order, then the workspace's own by name. */
export function tagPairs(utm: UtmValues, extra: ExtraValues = {}): [name: string, value: string][] {
  const own = Object.entries(extra)
    .filter(([, value]) => value !== '')
    .sort(([a], [b]) => (a < b ? -1 : 1))
  return [...utmPairs(utm), ...own]
}
