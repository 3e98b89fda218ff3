/**
 * A name in small plain letters, digits and single hyphens, such as `season-pass`: accents fall away, all
 * other signs become hyphens. Empty where nothing is left.
 *
 * @param longest in characters
 */
export function plainName(name: string, longest = Infinity): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-/, '')
  return plain.slice(0, longest).replace(/-$/, '')
}
