import { z } from 'zod'
import { readDestination } from './destination.ts'

/** A destination as it is typed; the server also refuses its own front door. */
export const destination = z.string({ error: 'Give the address this leads to.' }).superRefine((typed, context) => {
  const reading = readDestination(typed)
  if (!reading.ok) context.addIssue({ code: 'custom', message: reading.sentence })
}).transform((typed) => typed.trim())
