/** What a part of sorted figures lies below; 0 where there are none. */
export const at = (sorted: readonly number[], part: number): number =>
  sorted[Math.floor(sorted.length * part)] ?? 0

export const ascending = (figures: Iterable<number>): number[] => [...figures].sort((a, b) => a - b)

export const median = (figures: Iterable<number>): number => at(ascending(figures), 0.5)
