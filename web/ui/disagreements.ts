export interface Disagreement {
  readonly name: string
  readonly mine: string
  readonly theirs: string
}

/** Where two sets of values differ, by the names people know the fields under. */
export function disagreements<T extends object>(
  mine: T,
  theirs: T,
  names: Readonly<Partial<Record<keyof T & string, string>>>,
): Disagreement[] {
  return Object.entries(names).flatMap(([field, name]) => {
    const [m, t] = [String(mine[field as keyof T]), String(theirs[field as keyof T])]
    return m === t || name === undefined ? [] : [{ name: name as string, mine: m, theirs: t }]
  })
}
