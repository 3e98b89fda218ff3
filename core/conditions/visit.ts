import { NOWHERE, type Device, type Place } from '../scans/index.ts'
import type { Point } from './greatCircle.ts'

/** What may be known of one scan when it is decided. */
export interface Visit {
  /** UTC milliseconds. */
  readonly at: number
  /** The query the scan came with, without its `?`; empty where it had none. */
  readonly query: string
  /** Where its network address is thought to be. */
  readonly place: Place
  readonly device: Device
  /** Languages its reader takes, canonical and the dearest first. */
  readonly languages: readonly string[]
  /** The visitor's hash of the day, in hexadecimal; empty where there is none. */
  readonly visitor: string
  /** Whether this visitor already scanned this code today. */
  readonly repeat: boolean
  /** Where the phone says it is, `refused` where it was asked in vain, null where it was not asked. */
  readonly precise: Point | 'refused' | null
}

/** A scan of which nothing is known but when it came. */
export function plainVisit(at: number): Visit {
  return {
    at,
    query: '',
    place: NOWHERE,
    device: { type: 'other', system: '', systemVersion: '', browser: '' },
    languages: [],
    visitor: '',
    repeat: false,
    precise: null,
  }
}

/** What conditions may know of the scanned piece. */
export interface ScannedCode {
  readonly medium: string
  readonly source: string
  readonly content: string
  /** What the piece is called. */
  readonly label: string
  readonly place: Point | null
}

/** The best that is known of where a scan comes from: what the phone said, or else its network's place. */
export function pointOf({ precise, place }: Pick<Visit, 'precise' | 'place'>): Point | null {
  if (precise !== null && precise !== 'refused') return precise
  return place.latitude === null || place.longitude === null
    ? null
    : { latitude: place.latitude, longitude: place.longitude }
}
