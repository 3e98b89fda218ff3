/** FNV-1a, 32 bits (Fowler, Noll and Vo; from memory): spreads texts that are alike. */
function hash(text: string): number {
  let value = 0x811c9dc5
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193)
  // The last step of MurmurHash3, from memory: without it, what differs at the end alone stays in order.
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b)
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35)
  return (value ^ (value >>> 16)) >>> 0
}

/** Things in an order that a seed decides: the same for the same seed, and any other for another. */
export function shuffled<T extends { readonly key: string }>(things: readonly T[], seed: string): T[] {
  return things
    .map((thing) => ({ thing, place: hash(`${seed} ${thing.key}`) }))
    .sort((a, b) => a.place - b.place)
    .map(({ thing }) => thing)
}
