import { sumsOf, type Columns, type DimensionSums, type Sums } from '@flimbo/core/figures'
import { encodeTable, type ReadTable } from './arrow.ts'
import type { Fact } from './fact.ts'

export const EVER = { start: -Infinity, end: Infinity } as const

/** The sums of an owner, such as a campaign, and of which of its codes they are. */
export interface Sheet<D extends string = string> {
  readonly fingerprint: string
  readonly sums: Sums<D>
}

/** An owner of facts: what it is called, and of which of its codes a segment has any. */
export interface SheetOwner {
  readonly key: string
  readonly codes: ReadonlySet<number>
  readonly fingerprint: string
}

/** The sums of some owners in some columns. */
export function sheetsOf<D extends string>(
  columns: Columns<D>,
  fact: Fact<D>,
  owners: readonly SheetOwner[],
): KeyedSheet<D>[] {
  return owners.map(({ key, codes, fingerprint }) => ({
    key,
    fingerprint,
    sums: sumsOf(columns, codes, EVER, fact.everyFact),
  }))
}

/** A sheet with the key of its owner. */
export type KeyedSheet<D extends string = string> = Sheet<D> & { readonly key: string }

const NO_FIGURES = new Uint32Array()

interface SheetNote {
  readonly key: string
  readonly fingerprint: string
  readonly count: number
  readonly uniques: number
  readonly lastAt: number
  /** Where each of its parts ends: the quarters, the quarters of what is kept apart, then each dimension of the fact. */
  readonly ends: readonly number[]
}

/** Sheets as one table. */
export function encodeSheets<D extends string>(fact: Fact<D>, sheets: readonly KeyedSheet<D>[]): Uint8Array {
  const parts: DimensionSums[] = []
  let end = 0
  const notes: SheetNote[] = sheets.map(({ key, fingerprint, sums }) => {
    const { quarters, dimensions, count, uniques, lastAt } = sums
    const own: DimensionSums[] = [
      { value: quarters.quarter, count: quarters.count, uniques: quarters.uniques },
      { value: quarters.apart, count: NO_FIGURES, uniques: NO_FIGURES },
      ...fact.dimensions.map((each) => dimensions[each]),
    ]
    parts.push(...own)
    const ends = own.map(({ value }) => (end += value.length))
    return { key, fingerprint, count, uniques, lastAt, ends }
  })
  const joined = (column: keyof DimensionSums) => {
    const all = new Uint32Array(end)
    let to = 0
    for (const part of parts) {
      all.set(part[column], to)
      to += part.value.length
    }
    return all
  }
  return encodeTable({ value: joined('value'), count: joined('count'), uniques: joined('uniques') }, notes)
}

/** @throws Error where they are of another fact */
export function decodeSheets<D extends string>(table: ReadTable, fact: Fact<D>): Map<string, Sheet<D>> {
  const sheets = new Map<string, Sheet<D>>()
  const [value, count, uniques] = (['value', 'count', 'uniques'] as const).map((each) =>
    table.plain(each, Uint32Array),
  ) as [Uint32Array, Uint32Array, Uint32Array]
  let from = 0
  for (const note of table.note as SheetNote[]) {
    const own = note.ends.map((end): DimensionSums => {
      const part = {
        value: value.subarray(from, end),
        count: count.subarray(from, end),
        uniques: uniques.subarray(from, end),
      }
      from = end
      return part
    })
    const [quarters, apart, ...rest] = own
    if (!quarters || !apart || rest.length !== fact.dimensions.length)
      throw new Error('A sheet is of another fact.')
    sheets.set(note.key, {
      fingerprint: note.fingerprint,
      sums: {
        count: note.count,
        uniques: note.uniques,
        lastAt: note.lastAt,
        quarters: {
          quarter: quarters.value,
          count: quarters.count,
          uniques: quarters.uniques,
          apart: apart.value,
        },
        dimensions: Object.fromEntries(
          fact.dimensions.map((each, i) => [each, rest[i]]),
        ) as unknown as Record<D, DimensionSums>,
      },
    })
  }
  return sheets
}
