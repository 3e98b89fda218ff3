import same from 'fast-deep-equal'
import { z } from 'zod'

/**
 * One change of a route or a code: who made it, when, what was and what is. `before` is null where the
 * thing was made. Scans name the revision of the route that decided them.
 */
export const revision = z.object({
  id: z.int(),
  of: z.enum(['route', 'code']),
  subjectId: z.int(),
  number: z.int().min(1),
  at: z.int(),
  by: z.string(),
  before: z.record(z.string(), z.unknown()).nullable(),
  after: z.record(z.string(), z.unknown()),
})
export type Revision = z.infer<typeof revision>

/** One field that differs between the two sides of a revision. */
export interface Difference {
  readonly field: string
  readonly was: unknown
  readonly is: unknown
}

/** The fields a revision changed, in the order of its newer side; all of them where it was the first. */
export function differences(change: Pick<Revision, 'before' | 'after'>): Difference[] {
  return Object.entries(change.after)
    .map(([field, is]) => ({ field, was: change.before?.[field], is }))
    .filter(({ was, is }) => !same(was, is))
}
