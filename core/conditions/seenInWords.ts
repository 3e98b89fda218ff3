import { WEEKDAYS, clockFace } from '../time/index.ts'
import type { Leaf } from './condition.ts'
import { greatCircleKm, type Point } from './greatCircle.ts'
import { countryName, languageName } from './inWords.ts'
import { lookUp } from './lookUp.ts'
import { pointOf, type ScannedCode, type Visit } from './visit.ts'

const known = (text: string) => (text === '' ? 'not known' : text)
const two = (n: number) => String(n).padStart(2, '0')

function distance(a: Point | null, b: Point | null): string {
  if (a === null) return 'where it comes from is not known'
  if (b === null) return 'the piece has no place on the map'
  const km = greatCircleKm(a, b)
  return `${km < 10 ? km.toFixed(1) : km.toFixed(0)} km`
}

/** What a scan showed of what a condition asks, in words. */
export function seenInWords(leaf: Leaf, visit: Visit, code: ScannedCode, speaks: readonly string[]): string {
  const { place, device } = visit
  switch (leaf.kind) {
    case 'country':
      return known(countryName(place.country))
    case 'region':
      return known([place.region, place.country].filter((part) => part !== '').join(', '))
    case 'city':
      return known([place.city, place.country].filter((part) => part !== '').join(', '))
    case 'near':
      return distance(pointOf(visit), leaf)
    case 'distance':
      return distance(pointOf(visit), code.place)
    case 'device':
      return device.type
    case 'system':
      return known(`${device.system} ${device.systemVersion}`.trim())
    case 'browser':
      return known(device.browser)
    case 'language': {
      if (visit.languages.length === 0) return 'no language named'
      const found = lookUp(visit.languages, speaks)
      return `${visit.languages.join(', ')} → ${found === null ? 'none of those to be had' : languageName(found)}`
    }
    case 'window':
    case 'hours': {
      const { weekday, minute } = clockFace(leaf.zone, visit.at)
      const time = `${two(Math.floor(minute / 60))}:${two(minute % 60)}`
      return leaf.kind === 'hours'
        ? `${WEEKDAYS[weekday - 1] ?? ''}, ${time}`
        : `${new Intl.DateTimeFormat('en-GB', { timeZone: leaf.zone, day: 'numeric', month: 'short', year: 'numeric' }).format(visit.at)}, ${time}`
    }
    case 'visit':
      return visit.repeat ? 'scanned before today' : 'first scan today'
    case 'code':
      return known(code[leaf.field])
    case 'query': {
      const values = new URLSearchParams(visit.query).getAll(leaf.name)
      return values.length === 0 ? 'no such value' : values.map((value) => `“${value}”`).join(', ')
    }
  }
}
