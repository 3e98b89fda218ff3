/**
 * P-values corrected for how many there are, by the step-up procedure of Benjamini and Hochberg (J. R. Stat. Soc. B 57,
 * 1995): whoever rejects all whose corrected value is at most q is wrong in a part of q of them, in the long run.
 *
 * @param values between 0 and 1
 * @returns the corrected values, in the same order
 */
export function adjustedForMany(values: readonly number[]): number[] {
  const order = values.map((value, i) => ({ value, i })).sort((a, b) => b.value - a.value)
  const adjusted = new Array<number>(values.length)
  let least = 1
  for (const [place, { value, i }] of order.entries()) {
    least = Math.min(least, (value * values.length) / (values.length - place))
    adjusted[i] = least
  }
  return adjusted
}
