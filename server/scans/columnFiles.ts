import {
  AsyncByteQueue,
  Bool,
  Field,
  Float64,
  Int64,
  makeData,
  RecordBatch,
  RecordBatchFileWriter,
  Schema,
  Struct,
  TimestampMillisecond,
  Utf8,
  type Data,
  type DataType,
} from 'apache-arrow'
import { ByteWriter, ParquetWriter } from 'hyparquet-writer'
import type { ScanCell } from '../results/index.ts'
import { cellOf, scanFileColumns, type ScanFileKind } from './scanFileColumns.ts'

/** Writes a file of columns, group by group: what is ready of it is given at once. */
export interface ColumnFile {
  write(rows: readonly (readonly ScanCell[])[]): Uint8Array
  /** What stands behind the last group. */
  end(): Uint8Array
}

type Rows = readonly (readonly ScanCell[])[]

/** The cells of each column. */
const columnsOf = (rows: Rows) =>
  scanFileColumns.map((column) => ({ ...column, cells: rows.map((row) => cellOf(column, row)) }))

const ARROW: Readonly<Record<ScanFileKind, () => DataType>> = {
  integer: () => new Int64(),
  moment: () => new TimestampMillisecond('UTC'),
  flag: () => new Bool(),
  degrees: () => new Float64(),
  text: () => new Utf8(),
}

/** Which cells are there, a bit each from the lowest on; and how many are not. */
function validity(cells: readonly ScanCell[], isSet: (cell: ScanCell) => boolean) {
  const bits = new Uint8Array(Math.ceil(cells.length / 8))
  let unset = 0
  cells.forEach((cell, i) => {
    if (isSet(cell)) bits[i >> 3] = (bits[i >> 3] ?? 0) | (1 << (i & 7))
    else unset++
  })
  return { bits, unset }
}

/** Texts one behind the other, and where each begins. */
function textData(cells: readonly ScanCell[]): { data: Uint8Array; valueOffsets: Int32Array } {
  const data = Buffer.from(cells.map((cell) => cell ?? '').join(''))
  const valueOffsets = new Int32Array(cells.length + 1)
  const lengths = new Map<ScanCell, number>()
  cells.forEach((cell, i) => {
    let length = lengths.get(cell)
    if (length === undefined) lengths.set(cell, (length = Buffer.byteLength(String(cell ?? ''))))
    valueOffsets[i + 1] = (valueOffsets[i] ?? 0) + length
  })
  return { data, valueOffsets }
}

/** Whole numbers below 2^53 as 64 bits each, written as two halves: a BigInt for each would take longer than all else. */
function wholeNumbers(cells: readonly ScanCell[]): BigInt64Array {
  const numbers = new BigInt64Array(cells.length)
  const halves = new Uint32Array(numbers.buffer)
  cells.forEach((cell, i) => {
    const number = Number(cell)
    halves[2 * i] = number >>> 0
    halves[2 * i + 1] = Math.floor(number / 2 ** 32)
  })
  return numbers
}

const nullsOf = (cells: readonly ScanCell[]) => {
  if (!cells.includes(null)) return { nullCount: 0 }
  const { bits: nullBitmap, unset: nullCount } = validity(cells, (cell) => cell !== null)
  return { nullCount, nullBitmap }
}

/** The cells of a column as Arrow has them in memory. */
function arrowData(kind: ScanFileKind, cells: readonly ScanCell[]): Data {
  const common = { type: ARROW[kind](), length: cells.length, ...nullsOf(cells) }
  // Types and what holds their values belong together: each is written out here.
  const made = (more: object) => makeData({ ...common, ...more } as never)
  switch (kind) {
    case 'text':
      return made(textData(cells))
    case 'flag':
      return made({ data: validity(cells, (cell) => cell === 1).bits })
    case 'degrees':
      return made({ data: Float64Array.from(cells, (cell) => Number(cell)) })
    case 'integer':
    case 'moment':
      return made({ data: wholeNumbers(cells) })
  }
}

/** A sink that is emptied whenever it is asked. */
class Bytes extends AsyncByteQueue {
  private parts: Uint8Array[] = []
  override write(value: ArrayBufferView): void {
    this.parts.push(new Uint8Array(value.buffer, value.byteOffset, value.byteLength))
  }
  take(): Uint8Array {
    const taken = Buffer.concat(this.parts)
    this.parts = []
    return taken
  }
}

/** Apache Arrow's IPC file format (columnar format 1.5). */
export function arrowFile(): ColumnFile {
  const schema = new Schema(
    scanFileColumns.map(({ heading, kind }) => new Field(heading, ARROW[kind](), true)),
  )
  const bytes = new Bytes()
  const writer = new RecordBatchFileWriter({ autoDestroy: false })
  writer.reset(bytes, schema)
  return {
    write(rows) {
      const children = columnsOf(rows).map(({ kind, cells }) => arrowData(kind, cells))
      const type = new Struct(schema.fields)
      writer.write(new RecordBatch(schema, makeData({ type, length: rows.length, nullCount: 0, children })))
      return bytes.take()
    },
    end() {
      writer.finish()
      return bytes.take()
    },
  }
}

/** Types of Parquet, and the cells of a column as their values. Whole numbers and moments of scans are always there. */
const PARQUET = {
  integer: { element: { type: 'INT64' }, values: wholeNumbers },
  moment: { element: { type: 'INT64', converted_type: 'TIMESTAMP_MILLIS' }, values: wholeNumbers },
  flag: {
    element: { type: 'BOOLEAN' },
    values: (cells: readonly ScanCell[]) => cells.map((cell) => cell === 1),
  },
  degrees: { element: { type: 'DOUBLE' }, values: (cells: readonly ScanCell[]) => [...cells] },
  text: {
    element: { type: 'BYTE_ARRAY', converted_type: 'UTF8' },
    values: (cells: readonly ScanCell[]) => [...cells],
  },
} as const

/** Apache Parquet, each group of rows packed with Snappy. */
export function parquetFile(): ColumnFile {
  const bytes = new ByteWriter()
  const take = () => {
    const taken = bytes.getBytes().slice()
    bytes.index = 0
    return taken
  }
  const writer = new ParquetWriter({
    writer: bytes,
    schema: [
      { name: 'scans', num_children: scanFileColumns.length },
      ...scanFileColumns.map(({ heading, kind }) => ({
        ...PARQUET[kind].element,
        ...{ name: heading, repetition_type: 'OPTIONAL' as const },
      })),
    ],
    // Whoever reads all of it needs none, and they take a third of the time.
    statistics: false,
    createdBy: 'Flimbo',
  })
  return {
    write(rows) {
      const columnData = columnsOf(rows).map(({ heading, kind, cells }) => ({
        name: heading,
        data: PARQUET[kind].values(cells),
      }))
      // Nothing is waited for: the bytes stay in memory.
      void writer.write({ columnData, rowGroupSize: rows.length })
      return take()
    },
    end() {
      void writer.finish()
      return take()
    },
  }
}
