import type { PlanWorld } from './planLine.ts'

/** What the look is called that needs no house style. */
export const PLAIN_STYLE = 'Plain'

/** The house style of a name, whatever its case; null for the plain one, undefined where there is none. */
export function styleNamed(name: string, styles: PlanWorld['styles']): number | null | undefined {
  const wanted = name.trim().toLowerCase()
  if (wanted === '' || wanted === PLAIN_STYLE.toLowerCase()) return null
  return styles.find((style) => style.name.toLowerCase() === wanted)?.id
}

export const unknownStyle = (name: string) =>
  `There is no house style “${name}”. Save one under that name on Print, or choose another.`
