import {
  Dictionary,
  Field,
  Int32,
  makeData,
  makeVector,
  RecordBatch,
  Schema,
  Struct,
  Table,
  tableFromIPC,
  tableToIPC,
  Uint16,
  Uint32,
  Uint8,
  Utf8,
  vectorFromArray,
  type Data,
  type DataType,
} from 'apache-arrow'
import type { Dimension, DimensionValue } from '@flimbo/core/figures'

/** Tables in the Arrow IPC file format (Apache Arrow columnar format 1.5), which other tools read too. */

export type Plain = Uint8Array | Uint16Array | Uint32Array | Float64Array

/** @param note what else is to be known of a table, as its metadata */
export function encodeTable(
  columns: Readonly<Record<string, Plain | Dimension>>,
  note: unknown = null,
): Uint8Array {
  const parts = Object.entries(columns).map(([name, column]) => {
    const data = 'index' in column ? dictionaryData(column) : plainData(column)
    return { field: new Field(name, data.type), data }
  })
  const schema = new Schema(
    parts.map(({ field }) => field),
    new Map([['flimbo', JSON.stringify(note)]]),
  )
  const [first] = parts
  const batch = new RecordBatch(
    schema,
    makeData({
      type: new Struct(schema.fields),
      length: first?.data.length ?? 0,
      nullCount: 0,
      children: parts.map(({ data }) => data),
    }),
  )
  return tableToIPC(new Table(schema, [batch]), 'file')
}

function plainData(column: Plain): Data {
  const [data] = makeVector(column).data
  if (!data) throw new Error('A column has no data.')
  return data as Data
}

function dictionaryData({ values, index }: Dimension): Data {
  // A dimension has values of one kind.
  const isText = values.some((value) => typeof value === 'string')
  const dictionary = isText
    ? vectorFromArray(values.map(String), new Utf8())
    : vectorFromArray(values.map(Number), new Int32())
  const type = new Dictionary<DataType, Uint8 | Uint16 | Uint32>(dictionary.type, indexType(index))
  return makeData({ type, length: index.length, nullCount: 0, data: index as never, dictionary } as never)
}

function indexType(index: Dimension['index']): Uint8 | Uint16 | Uint32 {
  if (index instanceof Uint8Array) return new Uint8()
  return index instanceof Uint16Array ? new Uint16() : new Uint32()
}

/** A table that was read; its columns are views of the bytes it was read from. */
export interface ReadTable {
  readonly length: number
  readonly note: unknown
  plain<A extends Plain>(name: string, kind: { new (length: number): A }): A
  /** Whole numbers, whatever kind of array they were written from. */
  numbers(name: string): Dimension['index']
  dimension(name: string): Dimension
}

/** A column without what fills its place up to the next eight bytes. */
const whole = <A extends Plain>(values: A, length: number): A => values.subarray(0, length) as A

/** @throws Error where the bytes are no such table */
export function decodeTable(bytes: Uint8Array): ReadTable {
  const table = tableFromIPC(bytes)
  const dataOf = (name: string): Data => {
    const data = table.getChild(name)?.data
    if (data?.length !== 1 || !data[0]) throw new Error(`There is no column ${name} in one piece.`)
    return data[0] as Data
  }
  return {
    length: table.numRows,
    note: JSON.parse(table.schema.metadata.get('flimbo') ?? 'null'),
    plain<A extends Plain>(name: string, kind: { new (length: number): A }) {
      const data = dataOf(name)
      const values: unknown = data.values
      if (!(values instanceof kind)) throw new Error(`The column ${name} is of another kind.`)
      return whole(values, data.length)
    },
    numbers(name) {
      const data = dataOf(name)
      return whole(data.values as Dimension['index'], data.length)
    },
    dimension(name) {
      const data = dataOf(name)
      const values = [...(data.dictionary ?? [])] as DimensionValue[]
      return { values, index: whole(data.values as Dimension['index'], data.length) }
    },
  }
}
