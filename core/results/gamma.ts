/** ln Γ(x) for x ≥ 1/2, by Lanczos' approximation (g = 7, nine terms); to about 15 digits. */
export function logGamma(x: number): number {
  const terms = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ]
  const at = x - 1
  const t = at + 7.5
  const sum = terms.reduce((total, term, i) => total + (i === 0 ? term : term / (at + i)), 0)
  return 0.5 * Math.log(2 * Math.PI) + (at + 0.5) * Math.log(t) - t + Math.log(sum)
}
