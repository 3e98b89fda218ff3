import { UTM_FIELDS, UTM_VALUE_MAX, utmName } from './utm.ts'
import { z } from 'zod'
import { line } from '../api/index.ts'
import { patternFault } from './contentPattern.ts'

const RESERVED = new Set<string>(UTM_FIELDS.map(utmName))

/** A query parameter of a workspace's own that every piece may carry, beside the UTM ones. */
export const ownParameter = z.strictObject({
  name: line('the parameter’s name', 40)
    .regex(
      /^[A-Za-z][\w.-]*$/,
      'Begin the parameter with a letter and use only letters, digits, dots, dashes and underscores.',
    )
    .refine(
      (name) => !RESERVED.has(name.toLowerCase()),
      'This is one of the five UTM parameters; they are there already.',
    ),
  label: line('a label', 40).refine((label) => label !== '', 'Give a label, such as Region.'),
  required: z.boolean(),
})
export type OwnParameter = z.infer<typeof ownParameter>

/** How a workspace writes its tags. */
export const houseRules = z.strictObject({
  letterCase: z.enum(['lower', 'any']),
  separator: z.enum(['-', '_', 'any']),
  /** Media that may be used; an empty list allows every medium. */
  media: z
    .array(line('a medium', UTM_VALUE_MAX).refine((medium) => medium !== '', 'Remove the empty line.'))
    .max(200),
  offList: z.enum(['warn', 'refuse']),
  required: z.array(z.enum(['term', 'content'])),
  /** Content made of a piece's fields, such as `{place}-{size}`; empty for none. */
  contentPattern: line('the pattern', 200).superRefine((pattern, context) => {
    const fault = patternFault(pattern)
    if (fault !== null) context.addIssue({ code: 'custom', message: fault })
  }),
  parameters: z
    .array(ownParameter)
    .max(10, 'Ten parameters of your own are the most.')
    .refine(
      (all) => new Set(all.map(({ name }) => name)).size === all.length,
      'Two parameters have the same name.',
    ),
})
export type HouseRules = z.infer<typeof houseRules>

/** How most of the trade writes tags: small letters, dashes. Common practice, no published source. */
export const DEFAULT_RULES: HouseRules = {
  letterCase: 'lower',
  separator: '-',
  media: [],
  offList: 'warn',
  required: [],
  contentPattern: '',
  parameters: [],
}
