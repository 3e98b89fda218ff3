/** Numbers from 0 to 1 that look like chance and are the same for the same seed (mulberry32). */
export function seededNumbers(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** Numbers about 0 that vary as noise does, with a standard deviation of 1 (Box and Muller, 1958). */
export function seededNoise(seed: number): () => number {
  const next = seededNumbers(seed)
  let spare: number | null = null
  return () => {
    if (spare !== null) {
      const kept = spare
      spare = null
      return kept
    }
    const radius = Math.sqrt(-2 * Math.log(1 - next()))
    const angle = 2 * Math.PI * next()
    spare = radius * Math.sin(angle)
    return radius * Math.cos(angle)
  }
}
