/** What an address may take from the scan: where it came from, what its reader reads, and which piece it was. */
export const PLACEHOLDERS = ['country', 'language', 'code', 'content'] as const
export type Placeholder = (typeof PLACEHOLDERS)[number]
export type PlaceholderValues = Readonly<Record<Placeholder, string>>

// The WHATWG parser writes braces in a path as %7B and %7D and leaves them as they are elsewhere.
const namesIn = (names: readonly string[]) => `(?:\\{|%7B)(${names.join('|')})(?:\\}|%7D)`
const ANY = new RegExp(namesIn(PLACEHOLDERS), 'gi')
const IN_HOST = new RegExp(`^https?://[^/?#\\\\]*${namesIn(PLACEHOLDERS)}`, 'i')

/** Whether a placeholder stands where the name of the site is: a scan may not choose whose site it goes to. */
export function hasPlaceholderInHost(address: string): boolean {
  return IN_HOST.test(address)
}

/** Whether an address has placeholders that each visit fills. */
export function hasPlaceholders(address: string): boolean {
  return address.search(ANY) >= 0
}

/** The placeholders an address has, each once. */
export function placeholdersIn(address: string): Placeholder[] {
  const found = new Set([...address.matchAll(ANY)].map((match) => match[1]?.toLowerCase()))
  return PLACEHOLDERS.filter((name) => found.has(name))
}

/** A path segment of only dots would climb to another directory when the address is parsed again. */
const inPath = (value: string) => (/^\.+$/.test(value) ? '' : encodeURIComponent(value))
const inQuery = (value: string) => new URLSearchParams([['', value]]).toString().slice(1)

/**
 * Makes a filler for addresses with placeholders of some names. Each is escaped by where it stands: as a path
 * segment or in the fragment by percent-encoding (RFC 3986), in the query as application/x-www-form-urlencoded
 * (WHATWG URL Standard). No value can end the part it stands in. Values that are not known are left empty.
 *
 * @returns a function of an address as the WHATWG parser writes it, and the values
 */
export function addressFiller<Name extends string>(
  names: readonly Name[],
): (address: string, values: Readonly<Record<Name, string>>) => string {
  const any = new RegExp(namesIn(names), 'gi')
  return (address, values) => {
    const fragment = address.indexOf('#') < 0 ? address.length : address.indexOf('#')
    const mark = address.indexOf('?')
    const query = mark < 0 || mark > fragment ? fragment : mark
    return address.replace(any, (_all, name: string, at: number) => {
      // The expression matches these names alone.
      const value = values[name.toLowerCase() as Name]
      if (at < query) return inPath(value)
      return at < fragment ? inQuery(value) : encodeURIComponent(value)
    })
  }
}

/** Fills what an address takes from the scan. */
export const fillPlaceholders: (address: string, values: PlaceholderValues) => string =
  addressFiller(PLACEHOLDERS)
