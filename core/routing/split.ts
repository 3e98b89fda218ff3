/** One side of a split test. */
export interface Weighted {
  readonly id: string
  /** Its share is its weight over the sum of all that have not ended. */
  readonly weight: number
  readonly ended: boolean
}

/** FNV-1a, 32 bits (Fowler, Noll, Vo; IETF draft-eastlake-fnv). */
function fnv1a(text: string, from = 0x811c9dc5): number {
  let hash = from
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return hash >>> 0
}

/** The finishing step of MurmurHash3 (Appleby): every bit of the input stirs every bit of the output. */
function stir(hash: number): number {
  let h = hash
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}

/**
 * Which variant a visitor gets: the same one for as long as the visitor's hash stays the same, which is a
 * day. By weighted rendezvous hashing (Thaler and Ravishankar 1998; logarithmic weights: Schindelhauer and
 * Schomaker 2005): each variant draws −w ⁄ ln u with its own u of (0, 1) for the visitor, and the largest wins.
 * Shares are exactly the weights in the long run, and ending a variant, or changing a weight, moves only the
 * visitors it must. Null where every variant has ended or weighs nothing.
 *
 * @param split tells one split from another, so that they do not sort visitors alike
 */
export function chooseVariant<V extends Weighted>(
  variants: readonly V[],
  visitor: string,
  split: string,
): V | null {
  let best: V | null = null
  let highest = -1
  const seed = fnv1a(`${split}\u0000${visitor}`)
  for (const variant of variants) {
    if (variant.ended || variant.weight <= 0) continue
    const u = (stir(stir(fnv1a(variant.id, seed)) ^ fnv1a(variant.id)) + 0.5) / 2 ** 32
    const drawn = -variant.weight / Math.log(u)
    if (drawn > highest) [best, highest] = [variant, drawn]
  }
  return best
}
