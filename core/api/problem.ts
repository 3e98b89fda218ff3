import { z } from 'zod'

/**
 * An error as RFC 9457 describes it (problem details for HTTP APIs). `detail` is a sentence a person
 * can act on; `fields` names the inputs concerned, by their path in what was sent; `current` carries
 * the newer state when a save met someone else's change.
 */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int().min(400).max(599),
  detail: z.string(),
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  current: z.unknown().optional(),
})
export type Problem = z.infer<typeof problem>

/** The problem types Flimbo answers with, each with the title that stands for all of its occasions. */
export const PROBLEMS = {
  invalid: { status: 422, title: 'Something in the form needs another look' },
  malformed: { status: 400, title: 'The request could not be read' },
  unauthenticated: { status: 401, title: 'Sign in first' },
  forbidden: { status: 403, title: 'Not allowed' },
  missing: { status: 404, title: 'Not found' },
  conflict: { status: 409, title: 'Someone else changed this meanwhile' },
  taken: { status: 409, title: 'Already taken' },
  tooLarge: { status: 413, title: 'Too much at once' },
  tooMany: { status: 429, title: 'Too many attempts' },
  failed: { status: 500, title: 'Flimbo could not do this' },
  unavailable: { status: 503, title: 'Not possible for the moment' },
} as const
export type ProblemKind = keyof typeof PROBLEMS

export interface FieldFault {
  path: string
  message: string
}

/** Builds a problem of a kind with its sentence. */
export function problemOf(
  kind: ProblemKind,
  detail: string,
  more: { fields?: FieldFault[]; current?: unknown } = {},
): Problem {
  const { status, title } = PROBLEMS[kind]
  return { type: `/problems/${kind}`, title, status, detail, ...more }
}

/** Whether a problem is of a kind: its type says so (RFC 9457, section 3.1.1), not its words. */
export function isProblemOf(kind: ProblemKind, { type }: Pick<Problem, 'type'>): boolean {
  return type === `/problems/${kind}`
}

/** The faults Zod found, as field paths (`utm.source`) and sentences, one for each path. */
export function fieldFaults(error: z.ZodError): FieldFault[] {
  const seen = new Map<string, string>()
  for (const issue of error.issues) {
    if (issue.code === 'unrecognized_keys') {
      for (const key of issue.keys) {
        seen.set([...issue.path, key].join('.'), `“${key}” is not a field Flimbo knows here. Leave it out.`)
      }
      continue
    }
    const path = issue.path.join('.')
    if (!seen.has(path)) seen.set(path, issue.message)
  }
  return [...seen].map(([path, message]) => ({ path, message }))
}
