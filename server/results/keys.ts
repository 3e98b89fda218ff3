/** Keys by their places, in the order in which they were met. */
export class Keys {
  readonly list: string[] = []
  private readonly places = new Map<string, number>()

  constructor(keys: readonly string[] = []) {
    for (const key of keys) this.placeOf(key)
  }

  placeOf(key: string): number {
    const there = this.places.get(key)
    if (there !== undefined) return there
    this.places.set(key, this.list.length)
    return this.list.push(key) - 1
  }
}
