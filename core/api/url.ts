/** The longest address Flimbo takes, in characters. Common practice, no published source. */
export const ADDRESS_MAX = 2048

/**
 * Reads an address by the WHATWG URL Standard; null where it is none. Node.js 20's own `URL.canParse`, once
 * it has been called a few thousand times, refuses what has letters such as "ü": its quick path takes them for
 * broken UTF-8. Nothing here may use it; the parser itself is right.
 */
export function readUrl(text: string, base?: string | URL): URL | null {
  try {
    return new URL(text, base)
  } catch {
    return null
  }
}
