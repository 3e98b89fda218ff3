/**
 * What figures can be told apart by, in the order in which people are offered it: `time` goes on, a piece of it after
 * the other; `recurring` time comes again; what belongs to a `piece` is known of it as it is now; what belongs to a
 * `scan` was known when it was made.
 */
export const DIMENSIONS = {
  hour: { kind: 'time', label: 'Hour' },
  day: { kind: 'time', label: 'Day' },
  week: { kind: 'time', label: 'Week' },
  month: { kind: 'time', label: 'Month' },
  quarter: { kind: 'time', label: 'Quarter' },
  year: { kind: 'time', label: 'Year' },
  hourOfDay: { kind: 'recurring', label: 'Hour of the day' },
  weekday: { kind: 'recurring', label: 'Day of the week' },
  hourOfWeek: { kind: 'recurring', label: 'Hour of the week' },
  client: { kind: 'piece', label: 'Client' },
  campaign: { kind: 'piece', label: 'Campaign' },
  route: { kind: 'piece', label: 'Route' },
  piece: { kind: 'piece', label: 'Piece' },
  channel: { kind: 'piece', label: 'Channel' },
  medium: { kind: 'piece', label: 'Medium' },
  source: { kind: 'piece', label: 'Source' },
  content: { kind: 'piece', label: 'Content' },
  place: { kind: 'piece', label: 'Place of the piece' },
  country: { kind: 'scan', label: 'Country' },
  region: { kind: 'scan', label: 'Region' },
  city: { kind: 'scan', label: 'City' },
  distance: { kind: 'scan', label: 'Distance from the piece' },
  device: { kind: 'scan', label: 'Device' },
  system: { kind: 'scan', label: 'System' },
  browser: { kind: 'scan', label: 'Browser' },
  language: { kind: 'scan', label: 'Language' },
  referrer: { kind: 'scan', label: 'Referrer' },
  outcome: { kind: 'scan', label: 'Outcome' },
  lane: { kind: 'scan', label: 'Lane' },
  variant: { kind: 'scan', label: 'Variant' },
} as const satisfies Record<string, { kind: 'time' | 'recurring' | 'piece' | 'scan'; label: string }>

export type Dimension = keyof typeof DIMENSIONS
export type DimensionKind = (typeof DIMENSIONS)[Dimension]['kind']
type OfKind<K extends DimensionKind> = {
  [D in Dimension]: (typeof DIMENSIONS)[D]['kind'] extends K ? D : never
}[Dimension]
export type TimeDimension = OfKind<'time'>
export type RecurringDimension = OfKind<'recurring'>
export type PieceDimension = OfKind<'piece'>
export type ScanDimension = OfKind<'scan'>

/** Its own names. */
export const DIMENSION_NAMES = Object.keys(DIMENSIONS) as readonly Dimension[]

export function isOfKind<K extends DimensionKind>(dimension: Dimension, kind: K): dimension is OfKind<K> {
  return DIMENSIONS[dimension].kind === kind
}

/** Whether keys of a dimension have an order of their own, in which they are shown. */
export const hasOrder = (dimension: Dimension): boolean =>
  dimension === 'distance' || isOfKind(dimension, 'time') || isOfKind(dimension, 'recurring')
