import fc from 'fast-check'
import { expect, it } from 'vitest'
import { rowTable } from './rowTable.ts'

it('has one row for each pair of keys, in the order of these, however many there could be', () => {
  const pairs = fc.array(fc.tuple(fc.nat(6), fc.nat(4)), { maxLength: 60 })
  // So few that an array finds them, and so many that a map does.
  fc.assert(
    fc.property(pairs, fc.constantFrom(1, 1e6), (met, scale) => {
      const table = rowTable(7 * scale, 5)
      const counts = new Map<string, number>()
      for (const [a, b] of met) {
        table.rowOf(a * scale, b).scans++
        const name = `${String(a * scale)} ${String(b)}`
        counts.set(name, (counts.get(name) ?? 0) + 1)
      }
      const rows = table.inOrder()
      expect(new Map(rows.map(({ a, b, scans }) => [`${String(a)} ${String(b)}`, scans]))).toEqual(counts)
      expect(rows).toHaveLength(counts.size)
      const places = rows.map(({ a, b }) => a * 5 + b)
      expect(places).toEqual([...places].sort((x, y) => x - y))
    }),
  )
})
