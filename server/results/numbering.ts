/** Gives things that are equal the same number, in the order in which they are met. */
export interface Numbering<T> {
  /** The things by their numbers. */
  readonly list: readonly T[]
  numberOf(key: string | number, make: () => T): number
}

export function numbering<T>(): Numbering<T> {
  const list: T[] = []
  const numbers = new Map<string | number, number>()
  return {
    list,
    numberOf(key, make) {
      const known = numbers.get(key)
      if (known !== undefined) return known
      numbers.set(key, list.length)
      return list.push(make()) - 1
    },
  }
}
