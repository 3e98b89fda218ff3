import type { EntityManager } from 'typeorm'
import { findAmong, tables, type CodeRow } from '../database/index.ts'

/** The names of the house styles that pieces are printed in; the plain one, which is none, has no name. */
export async function styleNames(
  read: EntityManager,
  rows: readonly Pick<CodeRow, 'styleId'>[],
): Promise<ReadonlyMap<number | null, string>> {
  const ids = rows.flatMap(({ styleId }) => (styleId === null ? [] : [styleId]))
  return new Map((await findAmong(read, tables.houseStyles, 'id', ids)).map(({ id, name }) => [id, name]))
}
