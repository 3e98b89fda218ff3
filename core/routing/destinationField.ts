import { z } from 'zod'
import { readDestination } from './destination.ts'

/** A destination as it is typed, a site without its scheme taken as `https://`; the server also refuses its own front door. */
export const destination = z
  .string({ error: 'Give the address this leads to.' })
  .transform((typed, context) => {
    const reading = readDestination(typed)
    if (reading.ok) return reading.text
    context.addIssue({ code: 'custom', message: reading.sentence })
    return z.NEVER
  })
