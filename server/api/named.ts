const NAMED = 3

/** A few things by their names, and how many there are beside them: “A”, “B”, “C” and 2 more. */
export function fewNamed(names: readonly string[], what = ''): string {
  const rest = names.length - NAMED
  return (
    names
      .slice(0, NAMED)
      .map((name) => `“${name}”`)
      .join(', ') + (rest > 0 ? ` and ${String(rest)} more${what}` : '')
  )
}
