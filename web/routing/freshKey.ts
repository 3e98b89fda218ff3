/** A key that none of those taken has. */
export function freshKey(taken: readonly string[]): string {
  for (let n = taken.length + 1; ; n++) {
    const key = `l${n.toString(36)}`
    if (!taken.includes(key)) return key
  }
}
