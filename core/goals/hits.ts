import { z } from 'zod'
import { goalKey, goalValue } from './goal.ts'

/** The parameter by which a redirect names its scan to the site. */
export const REFERENCE_PARAMETER = 'flimbo'

/** A day: nobody looks at a page for longer. */
const SECONDS_MAX = 86_400
const reference = z.string().min(1).max(200)

/** An amount as a site sends it: a number, or the same as text with a point. */
const sentValue = z.union([
  goalValue,
  z
    .string()
    .trim()
    .regex(/^\d{1,10}(?:\.\d{1,6})?$/, 'Write the value as digits with a point, such as 39.50.')
    .transform(Number)
    .pipe(goalValue),
])
const sentCurrency = z
  .string()
  .trim()
  .toUpperCase()
  .regex(/^[A-Z]{3}$/, 'Write the currency with three letters, such as EUR.')

/** Empty texts, such as of a parameter nobody filled in, are as if they were not there. */
const unlessEmpty = <T extends z.ZodType>(schema: T) =>
  z.preprocess((value) => (value === '' || value === null ? undefined : value), schema.optional())

/** What the script tells of a page: that it is looked at, and later for how many seconds it was. */
export const viewHit = z.object({
  ref: reference,
  /** Names this look at the page, as the script made it up. */
  view: z.string().regex(/^[a-z0-9]{1,16}$/),
  address: z.string().max(4000),
  seconds: z.number().min(0).max(SECONDS_MAX).default(0).transform(Math.round),
})
export type ViewHit = z.output<typeof viewHit>

/** That a goal was reached, as a script, a picture or a server says it. */
export const goalHit = z.object({
  ref: reference,
  goal: goalKey,
  value: unlessEmpty(sentValue),
  currency: unlessEmpty(sentCurrency),
  /** What was ordered under which number: the same number counts once. */
  order: unlessEmpty(
    z.preprocess((value) => (typeof value === 'number' ? String(value) : value), z.string().trim().max(100)),
  ),
  /** Tells one from the next where each counts; what is sent twice has the same. */
  event: unlessEmpty(z.string().max(64)),
})
export type GoalHit = z.output<typeof goalHit>

/** What the script of a site sends. */
export const siteHit = z.union([viewHit, goalHit])
