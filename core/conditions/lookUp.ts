/**
 * Lookup of RFC 4647, section 3.4: the one tag of `available` that a reader's ranges lead to, the dearest
 * range first, each cut back from its end until it fits; a single letter or digit goes with what followed it.
 * Letter case does not matter; the answer is spelt as in `available`. Null where nothing fits.
 */
export function lookUp(ranges: readonly string[], available: readonly string[]): string | null {
  for (const range of ranges) {
    let subtags = range.toLowerCase().split('-')
    while (subtags.length > 0) {
      const wanted = subtags.join('-')
      const found = available.find((tag) => tag.toLowerCase() === wanted)
      if (found !== undefined) return found
      subtags = subtags.slice(0, -1)
      if ((subtags.at(-1)?.length ?? 2) === 1) subtags = subtags.slice(0, -1)
    }
  }
  return null
}
