import { tag, type ExtraValues, type Tagged, type UtmValues } from '../tagging/index.ts'
import { readDestination } from './destination.ts'
import { fillPlaceholders, type PlaceholderValues } from './placeholders.ts'

/**
 * Where a destination leads in the end: with its placeholders filled, where it is known by what, and with the tags of
 * a piece. Null where it is no address.
 */
export function finalAddress(
  destination: string,
  utm: UtmValues,
  extra: ExtraValues = {},
  values?: PlaceholderValues,
): Tagged | null {
  const reading = readDestination(destination)
  if (!reading.ok) return null
  const url = values ? new URL(fillPlaceholders(reading.url.href, values)) : reading.url
  return tag(url, utm, extra)
}
