import { UNIQUE } from '@flimbo/core/figures'

/** Pairs of so many keys are counted in one array (8 bytes each); of more, in a map. */
const DENSE_MAX = 1 << 20
/** A map holds no more: what nobody could read must not fill the memory either. */
export const PAIRS_MAX = 400_000

/** Two dimensions have more in common than can be counted, or read. */
export class TooManyPairs extends RangeError {
  override readonly name = 'TooManyPairs'
  constructor() {
    super(
      'That is too many combinations to count. Choose fewer days, a larger unit of time or another dimension, or narrow it.',
    )
  }
}

/** How many scans there are of two keys, by the places of these, and how many of them are unique. */
export interface PairCount {
  readonly a: number
  readonly b: number
  readonly scans: number
  readonly uniques: number
}

/** Counts of pairs of keys, those that are not unique and those that are. */
export class Pairs {
  private readonly dense: Uint32Array | null
  private readonly sparse = new Map<number, number>()

  constructor(
    private readonly as: number,
    private readonly bs: number,
  ) {
    this.dense = as * bs <= DENSE_MAX ? new Uint32Array(2 * as * bs) : null
  }

  /** Counts facts one by one: by the places of their keys, and their flags, which stand at `facts`. */
  addFacts(a: Uint32Array, b: Uint32Array, flags: Uint8Array, facts: Uint32Array, length: number): void {
    const { dense, sparse, bs } = this
    for (let k = 0; k < length; k++) {
      const slot = 2 * ((a[k] ?? 0) * bs + (b[k] ?? 0)) + (((flags[facts[k] ?? 0] ?? 0) & UNIQUE) >> 1)
      if (dense) dense[slot] = (dense[slot] ?? 0) + 1
      else sparse.set(slot, (sparse.get(slot) ?? 0) + 1)
    }
    this.checkSize()
  }

  /** @throws TooManyPairs */
  private checkSize(): void {
    if (this.sparse.size > PAIRS_MAX) throw new TooManyPairs()
  }

  /** Counts as many of a pair as were summed up elsewhere. */
  addSum(a: number, b: number, count: number, uniques: number): void {
    const slot = 2 * (a * this.bs + b)
    this.add(slot, count - uniques)
    this.add(slot + 1, uniques)
    this.checkSize()
  }

  private add(slot: number, n: number): void {
    if (n === 0) return
    if (this.dense) this.dense[slot] = (this.dense[slot] ?? 0) + n
    else this.sparse.set(slot, (this.sparse.get(slot) ?? 0) + n)
  }

  /** Those pairs there is any scan of. */
  counts(): PairCount[] {
    const { dense, sparse, bs } = this
    const found: PairCount[] = []
    const take = (pair: number, others: number, uniques: number) => {
      if (others + uniques > 0)
        found.push({ a: Math.floor(pair / bs), b: pair % bs, scans: others + uniques, uniques })
    }
    if (dense)
      for (let pair = 0; pair < this.as * bs; pair++)
        take(pair, dense[2 * pair] ?? 0, dense[2 * pair + 1] ?? 0)
    else
      for (const pair of new Set([...sparse.keys()].map((slot) => Math.floor(slot / 2))))
        take(pair, sparse.get(2 * pair) ?? 0, sparse.get(2 * pair + 1) ?? 0)
    return found
  }
}
