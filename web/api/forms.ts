import type { FieldValues, Path, Resolver, UseFormSetError } from 'react-hook-form'
import type { z } from 'zod'
import { fieldFaults } from '@flimbo/core/api'
import { ApiProblem } from './call.ts'

/** Checks a form by the same schema the server checks it by. `shape` makes of its values what is sent. */
export function byContract<Values extends FieldValues>(
  schema: z.ZodType,
  shape: (values: Values) => unknown = (values) => values,
): Resolver<Values> {
  return (values) => {
    const read = schema.safeParse(shape(values))
    if (read.success) return { values, errors: {} }
    return {
      values: {},
      errors: Object.fromEntries(
        fieldFaults(read.error).map(({ path, message }) => [path, { type: 'contract', message }]),
      ) as never,
    }
  }
}

/** Puts the sentences of a refusal at the fields concerned. @returns what belongs to no field */
export function showFaults<Values extends FieldValues>(
  error: unknown,
  setError: UseFormSetError<Values>,
  fields: readonly Path<Values>[],
): string | null {
  if (!(error instanceof ApiProblem))
    return 'Something went wrong in this page. Try again; nothing typed was lost.'
  const faults = error.problem.fields ?? []
  const known = faults.filter(({ path }) => (fields as readonly string[]).includes(path))
  for (const { path, message } of known) setError(path as Path<Values>, { type: 'server', message })
  return known.length > 0 && known.length === faults.length ? null : error.problem.detail
}
