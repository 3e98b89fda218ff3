import type { FactRows } from '@flimbo/core/figures'
import type Sqlite from 'better-sqlite3'

/** A kind of thing that happens and is counted over time: what it has, and how it is read. */
export interface Fact<D extends string = string> {
  /** What it is called, and the directory its segments stand in. */
  readonly name: string
  readonly dimensions: readonly D[]
  /**
   * Dimensions by which those that are kept apart are summed up too. By the first of them sums of what is folded are
   * kept by quarters of an hour.
   */
  readonly everyFact: readonly [D, ...D[]]
  /** A dimension that names a group each fact belonged to when it happened, such as the route that decided a scan. */
  readonly group: { readonly dimension: D; of(value: string): number }
  /** Reads them from a database. */
  reader(database: Sqlite.Database): FactReader<D>
}

export interface FactReader<D extends string = string> {
  /** The newest number; 0 where there is none. */
  newest(): number
  /** Those with numbers above one and up to another, in the order of their numbers; at most so many. */
  between(after: number, upTo: number, limit: number): FactRows<D>
  /** Something that is never the same of two that bear the same number; empty where there is no such one. */
  proof(id: number): string
}
