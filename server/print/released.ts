import type { EntityManager } from 'typeorm'
import { changedSince, type Printed, type ReleaseMark } from '@flimbo/core/symbol'
import { findAmong, tables, type ReleaseRow } from '../database/index.ts'

/** The newest release of each of some codes, or static codes. */
export async function newestReleases(
  read: EntityManager,
  of: 'codeId' | 'staticCodeId',
  ids: readonly number[],
): Promise<Map<number, ReleaseRow>> {
  const newest = new Map<number, ReleaseRow>()
  for (const row of await findAmong(read, tables.releases, of, ids)) {
    const id = row[of] ?? 0
    if ((newest.get(id)?.number ?? 0) < row.number) newest.set(id, row)
  }
  return newest
}

/** What is to be said of a release in lists: what of its piece is another by now. */
export function markOf(released: ReleaseRow | undefined, now: Printed): ReleaseMark | null {
  if (!released) return null
  const { id, number, at, codeId } = released
  return { id, number, at, changed: changedSince(released, now, codeId === null ? 'content' : 'link') }
}
