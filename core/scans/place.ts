/**
 * Where a network address is thought to be: approximate, often the operator's nearest exchange. Empty
 * texts and null where it is not known.
 */
export interface Place {
  /** ISO 3166-1 alpha-2, or empty. */
  readonly country: string
  readonly region: string
  readonly city: string
  /** Degrees north, −90 to 90. */
  readonly latitude: number | null
  /** Degrees east, −180 to 180. */
  readonly longitude: number | null
}

export const NOWHERE: Place = { country: '', region: '', city: '', latitude: null, longitude: null }

/** What to say wherever a city shows. */
export const PLACE_NOTE =
  'Places come from network addresses and are approximate: often the operator’s nearest exchange.'
