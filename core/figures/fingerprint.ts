import type { Columns } from './columns.ts'
import { placesAmong, type CodeSet } from './select.ts'

/**
 * Stands for those codes of some columns that are among others: two sets that share the same ones with the columns
 * have the same facts in them. Two 32-bit hashes (FNV-1a, with two offsets) and the number of codes.
 */
export function fingerprintOf({ codes }: Pick<Columns, 'codes'>, wanted: CodeSet): string {
  let [a, b, count] = [0x811c9dc5, 0x01000193, 0]
  const places = placesAmong(codes, wanted)
  for (let k = 0; k < places.length; k++) {
    const code = codes[places[k] ?? 0] ?? 0
    a = Math.imul(a ^ code, 0x01000193)
    a ^= a >>> 13
    b = Math.imul(b ^ (code + 0x9e3779b9), 0x85ebca6b)
    b ^= b >>> 15
    count++
  }
  return `${String(count)}.${(a >>> 0).toString(36)}.${(b >>> 0).toString(36)}`
}
