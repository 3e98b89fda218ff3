/** Where each band of distances ends, in kilometres; the last has no end. */
const ENDS_KM = [1, 5, 20, 50, 100, 300, 1000] as const

/** The bands, by their keys, the nearest first. */
export const DISTANCE_BANDS: readonly string[] = [
  ...ENDS_KM.map((end, i) => `${String(ENDS_KM[i - 1] ?? 0)}-${String(end)}`),
  `${String(ENDS_KM.at(-1))}-`,
]

/**
 * The band a distance falls in: from its first kilometre to before its last.
 *
 * @param km kilometres, not below 0
 */
export function distanceBand(km: number): string {
  const band = ENDS_KM.findIndex((end) => km < end)
  return DISTANCE_BANDS.at(band) ?? ''
}
