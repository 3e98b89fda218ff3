import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DuckDBInstance } from '@duckdb/node-api'
import { tableFromIPC } from 'apache-arrow'
import fc from 'fast-check'
import { parquetReadObjects } from 'hyparquet'
import { describe, expect, it } from 'vitest'
import { scanColumns, type ScanCell } from '../results/index.ts'
import { arrowFile, parquetFile, type ColumnFile } from './columnFiles.ts'
import { scanFileColumns } from './scanFileColumns.ts'

const text = fc.oneof(fc.string({ unit: 'grapheme' }), fc.constantFrom('', ' ', 'Kraków', '\u0000', '=1+1'))
const cellOf = (kind: string): fc.Arbitrary<ScanCell> => {
  if (kind === 'text') return fc.option(text)
  if (kind === 'flag') return fc.constantFrom(0, 1)
  if (kind === 'moment') return fc.integer({ min: 0, max: 7_000_000_000_000 })
  if (kind === 'degrees') return fc.option(fc.double({ min: -180, max: 180, noNaN: true }))
  return fc.integer({ min: 0, max: 2_000_000_000 })
}
/** Cells stand as the rows of scans have them, whatever order the file has. */
const row = fc
  .tuple(...scanFileColumns.map(({ kind }) => cellOf(kind)))
  .map((cells) =>
    scanColumns.map((name) => cells[scanFileColumns.findIndex(({ from }) => from === name)] ?? null),
  )

/** What other tools are to find in a file: by heading. */
const expected = (rows: readonly (readonly ScanCell[])[]) =>
  rows.map((cells) =>
    Object.fromEntries(
      scanFileColumns.map(({ heading, kind, at }) => {
        const cell = cells[at] ?? null
        return [heading, kind === 'flag' ? cell === 1 : cell]
      }),
    ),
  )
function written(
  file: ColumnFile,
  groups: readonly (readonly (readonly ScanCell[])[])[],
): Uint8Array<ArrayBuffer> {
  return new Uint8Array(Buffer.concat([...groups.map((rows) => file.write(rows)), file.end()]))
}
const plain = (value: unknown) => {
  if (value instanceof Date) return value.getTime()
  // Zero has two signs there, and none in what is compared.
  return typeof value === 'bigint' ? Number(value) : value
}
const groups = fc.array(fc.array(row, { minLength: 1, maxLength: 12 }), { minLength: 1, maxLength: 4 })

describe('a file of columns', () => {
  it('in Arrow is read by another reader as what was written, group after group', () => {
    fc.assert(
      fc.property(groups, (all) => {
        const table = tableFromIPC(written(arrowFile(), all))
        const found = table
          .toArray()
          .map((each: Record<string, unknown>) =>
            Object.fromEntries(scanFileColumns.map(({ heading }) => [heading, plain(each[heading])])),
          )
        expect(found).toEqual(expected(all.flat()))
      }),
      { numRuns: 60 },
    )
  })

  it('in Parquet is read by another library as what was written', async () => {
    await fc.assert(
      fc.asyncProperty(groups, async (all) => {
        const { buffer } = written(parquetFile(), all)
        const found = (await parquetReadObjects({ file: buffer })).map((each) =>
          Object.fromEntries(Object.entries(each).map(([name, value]) => [name, plain(value)])),
        )
        expect(found).toEqual(expected(all.flat()))
      }),
      { numRuns: 60 },
    )
  })

  it('of nothing is a file all the same', async () => {
    expect(tableFromIPC(written(arrowFile(), [])).numRows).toBe(0)
    expect(await parquetReadObjects({ file: written(parquetFile(), []).buffer })).toEqual([])
  })

  it('in Parquet is read by a database, with moments as moments', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'flimbo-parquet-'))
    try {
      const [rows = []] = fc.sample(fc.array(row, { minLength: 30, maxLength: 30 }), { numRuns: 1, seed: 7 })
      const path = join(directory, 'scans.parquet')
      writeFileSync(path, written(parquetFile(), [rows.slice(0, 10), rows.slice(10)]))
      const connection = await (await DuckDBInstance.create()).connect()
      const answer = await connection.runAndReadAll(
        `SELECT count(*)::INT AS n, epoch_ms(min(time_utc)) AS first, sum(scan)::DOUBLE AS ids,
          count(*) FILTER (WHERE "unique")::INT AS uniques FROM '${path}'`,
      )
      const at = (name: 'at' | 'id' | 'isUnique') =>
        rows.map((cells) => Number(cells[scanColumns.indexOf(name)]))
      expect(
        answer.getRowObjects().map(({ n, first, ids, uniques }) => [n, Number(first), ids, uniques]),
      ).toEqual([
        [
          30,
          Math.min(...at('at')),
          at('id').reduce((sum, id) => sum + id, 0),
          at('isUnique').filter((unique) => unique === 1).length,
        ],
      ])
      connection.closeSync()
    } finally {
      rmSync(directory, { recursive: true, force: true })
    }
  })
})
