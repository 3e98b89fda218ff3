/** A key that none of some others is. */
export function freshKey(prefix: string, used: readonly string[]): string {
  const taken = new Set(used)
  for (let n = used.length + 1; ; n++) if (!taken.has(`${prefix}${String(n)}`)) return `${prefix}${String(n)}`
}
