import same from 'fast-deep-equal'
import type { EntityManager } from 'typeorm'
import type { Revision } from '@flimbo/core/routing'
import { bounds, type PageQuery } from '../api/index.ts'
import { insertedId, tables, type Database, type RevisionRow, peopleNames } from '../database/index.ts'

type Recorded = Pick<RevisionRow, 'of' | 'subjectId' | 'before' | 'after' | 'at' | 'personId'>

/** Stores a change of a route or a code as its next revision, in the caller's transaction. @returns its number in the table */
export async function recordRevision(manager: EntityManager, change: Recorded): Promise<number> {
  const { of, subjectId } = change
  const number = 1 + (await manager.countBy(tables.revisions, { of, subjectId }))
  return insertedId(await manager.insert(tables.revisions, { ...change, number }))
}

/** One page of a thing's revisions. */
export async function listRevisions(
  { read }: Pick<Database, 'read'>,
  of: Revision['of'],
  subjectId: number,
  query: PageQuery,
) {
  const [rows, total] = await read.findAndCount(tables.revisions, {
    where: { of, subjectId },
    order: { number: query.order },
    ...bounds(query),
  })
  const nameOf = await peopleNames(
    read,
    rows.map(({ personId }) => personId),
  )
  return {
    rows: rows.map(({ personId, ...row }): Revision => ({
      ...row,
      by: nameOf(personId),
    })),
    total,
    page: query.page,
    pageSize: query.pageSize,
  }
}

/** The part of an object that differs from another, or null where nothing does. */
export function changedPart<T extends object>(row: T, change: Partial<T>): Partial<T> | null {
  const entries = Object.entries(change).filter(
    ([field, value]) => value !== undefined && !same(value, row[field as keyof T]),
  )
  return entries.length > 0 ? (Object.fromEntries(entries) as Partial<T>) : null
}
