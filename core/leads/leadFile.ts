import { z } from 'zod'

/** What of a lead can stand in a file, beside its answers, in the order in which it does. */
export const LEAD_COLUMNS = [
  'lead',
  'time_utc',
  'state',
  'tags',
  'page',
  'code_id',
  'code',
  'route_id',
  'scan',
  'language',
  'country',
  'region',
  'city',
  'device',
  'utm_source',
  'utm_medium',
  'utm_campaign',
  'utm_content',
  'utm_term',
  'confirmed_utc',
  'consents',
] as const
export type LeadColumn = (typeof LEAD_COLUMNS)[number]

/** How leads are written as a file. */
export const leadFileLook = z.strictObject({
  format: z.enum(['csv', 'xlsx']).default('csv'),
  columns: z
    .array(z.enum(LEAD_COLUMNS))
    .max(LEAD_COLUMNS.length)
    .default([...LEAD_COLUMNS]),
  /** Whether each question has a column. */
  isAnswered: z.boolean().default(true),
  /** Choices in one column, in words, or a column each. */
  choices: z.enum(['joined', 'split']).default('joined'),
})
export type LeadFileLook = z.infer<typeof leadFileLook>
