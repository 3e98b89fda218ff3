/** A list with the entries at two places changed over; the list itself where one of the places is not there. */
export function swap<T>(list: readonly T[], a: number, b: number): T[] {
  const copy = [...list]
  const [first, second] = [list[a], list[b]]
  if (first !== undefined && second !== undefined) [copy[a], copy[b]] = [second, first]
  return copy
}
