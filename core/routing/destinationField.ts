import { z } from 'zod'
import { readDestination } from './destination.ts'

/** A destination as it is typed, a site without its scheme taken as `https://`; the server also refuses its own front door. */
export const destination = z.string({ error: 'Give the address this leads to.' }).superRefine((typed, context) => {
  const reading = readDestination(typed)
  if (!reading.ok) context.addIssue({ code: 'custom', message: reading.sentence })
}).transform((typed) => { const reading = readDestination(typed); return reading.ok ? reading.text : typed.trim() })
