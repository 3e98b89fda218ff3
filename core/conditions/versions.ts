/** Compares dotted versions number by number; a missing part of `b` matches anything, so that "17.6" equals "17". */
function compare(a: readonly number[], b: readonly number[]): number {
  for (const [i, part] of b.entries()) {
    const difference = (a[i] ?? 0) - part
    if (difference !== 0) return difference
  }
  return 0
}

const partsOf = (version: string) => version.split('.').map((part) => Number.parseInt(part, 10) || 0)

/**
 * Whether a version lies in a range with both ends in it; an empty end is open. "upTo 17" takes every 17.x in.
 * A version that is not known lies only in a range open on both sides.
 */
export function inVersions(version: string, from: string, upTo: string): boolean {
  if (from === '' && upTo === '') return true
  if (version === '') return false
  const parts = partsOf(version)
  return (
    (from === '' || compare(parts, partsOf(from)) >= 0) && (upTo === '' || compare(parts, partsOf(upTo)) <= 0)
  )
}
