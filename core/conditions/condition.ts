import { localMoment, zoneName } from '../time/index.ts'
import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'
import { DEVICE_TYPES } from '../scans/index.ts'

/** How many parts a condition may have in all, and how deep they may nest. */
export const PARTS_MAX = 60
export const DEPTH_MAX = 5

const some = <T extends z.ZodType>(value: T, what: string) =>
  z.array(value).min(1, `Choose ${what}.`).max(300, `Choose fewer than 300 of ${what}.`)

const countryCode = z.string().regex(/^[A-Z]{2}$/, 'Write a country as its two letters (ISO 3166-1): DE.')
const languageTag = z
  .string()
  .max(35)
  .regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, 'Write a language as its tag (BCP 47): de or de-AT.')
const latitude = z
  .number('Give the latitude in degrees.')
  .min(-90, 'A latitude lies between −90 and 90.')
  .max(90, 'A latitude lies between −90 and 90.')
const longitude = z
  .number('Give the longitude in degrees.')
  .min(-180, 'A longitude lies between −180 and 180.')
  .max(180, 'A longitude lies between −180 and 180.')
const version = z.string().regex(/^(\d{1,6}(\.\d{1,6}){0,3})?$/, 'Write a version as 17 or 17.5.')
const km = z
  .number('Give a distance in kilometres.')
  .min(0.1, 'Give at least 0.1 km.')
  .max(20_038, 'No two places are further apart than 20,038 km.')

/** A time of day: `08:00`. */
const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time as 08:00.')

export const CODE_FIELDS = ['medium', 'source', 'content', 'label'] as const
export type CodeField = (typeof CODE_FIELDS)[number]

/**
 * What a lane can ask of a scan. `near` and `distance` measure great circles in kilometres; `hours` and
 * `window` read the clock of their zone; an empty `from` or `upTo` is open on that side.
 */
const leaves = [
  z.strictObject({ kind: z.literal('country'), in: some(countryCode, 'countries') }),
  z.strictObject({
    kind: z.literal('region'),
    in: some(z.strictObject({ country: countryCode, region: requiredLine('a region', 100) }), 'regions'),
  }),
  z.strictObject({
    kind: z.literal('city'),
    in: some(z.strictObject({ country: countryCode, city: requiredLine('a city', 100) }), 'cities'),
  }),
  z.strictObject({
    kind: z.literal('near'),
    name: line('the name of the place', 100),
    latitude,
    longitude,
    km,
  }),
  z.strictObject({ kind: z.literal('distance'), km, beyond: z.boolean() }),
  z.strictObject({ kind: z.literal('device'), in: some(z.enum(DEVICE_TYPES), 'devices') }),
  z.strictObject({
    kind: z.literal('system'),
    is: requiredLine('a system', 40),
    from: version,
    upTo: version,
  }),
  z.strictObject({ kind: z.literal('browser'), in: some(requiredLine('a browser', 60), 'browsers') }),
  z.strictObject({ kind: z.literal('language'), in: some(languageTag, 'languages') }),
  z.strictObject({
    kind: z.literal('window'),
    from: z.union([localMoment, z.literal('')]),
    upTo: z.union([localMoment, z.literal('')]),
    zone: zoneName,
  }),
  z.strictObject({
    kind: z.literal('hours'),
    days: some(z.int().min(1).max(7), 'days'),
    from: timeOfDay,
    upTo: timeOfDay,
    zone: zoneName,
  }),
  z.strictObject({ kind: z.literal('visit'), is: z.enum(['first', 'repeat']) }),
  z.strictObject({
    kind: z.literal('code'),
    field: z.enum(CODE_FIELDS),
    in: some(requiredLine('a value', 200), 'values'),
  }),
  z.strictObject({
    kind: z.literal('query'),
    name: requiredLine('the name of a query value', 100),
    in: z.array(line('a value', 200)).max(300),
  }),
] as const

export type Leaf = z.infer<(typeof leaves)[number]>
export type LeafKind = Leaf['kind']
export type Condition =
  | Leaf
  | { readonly kind: 'all'; readonly of: readonly Condition[] }
  | { readonly kind: 'any'; readonly of: readonly Condition[] }
  | { readonly kind: 'not'; readonly of: Condition }

const all = z.strictObject({
  kind: z.literal('all'),
  get of(): z.ZodType<readonly Condition[]> {
    return z.array(nested).max(PARTS_MAX)
  },
})
const any = z.strictObject({
  kind: z.literal('any'),
  get of(): z.ZodType<readonly Condition[]> {
    return z.array(nested).max(PARTS_MAX)
  },
})
const not = z.strictObject({
  kind: z.literal('not'),
  get of(): z.ZodType<Condition> {
    return nested
  },
})
const nested: z.ZodType<Condition> = z.discriminatedUnion('kind', [...leaves, all, any, not])

/** How many parts a condition has, itself among them, and how deep it goes. */
export function measureCondition(condition: Condition): { parts: number; depth: number } {
  if (condition.kind !== 'all' && condition.kind !== 'any' && condition.kind !== 'not')
    return { parts: 1, depth: 1 }
  const inner = (condition.kind === 'not' ? [condition.of] : condition.of).map(measureCondition)
  return {
    parts: 1 + inner.reduce((sum, { parts }) => sum + parts, 0),
    depth: 1 + Math.max(0, ...inner.map(({ depth }) => depth)),
  }
}

/** A condition; `all` of nothing is every scan, `any` of nothing is none. */
export const condition: z.ZodType<Condition> = nested.superRefine((given, context) => {
  const { parts, depth } = measureCondition(given)
  if (parts > PARTS_MAX)
    context.addIssue({
      code: 'custom',
      message: `Make the condition of at most ${String(PARTS_MAX)} parts; split it into two lanes.`,
    })
  if (depth > DEPTH_MAX)
    context.addIssue({ code: 'custom', message: `Nest a condition at most ${String(DEPTH_MAX)} deep.` })
})

/** Every leaf of a condition, in order. */
export function leavesOf(given: Condition): Leaf[] {
  if (given.kind === 'not') return leavesOf(given.of)
  if (given.kind === 'all' || given.kind === 'any') return given.of.flatMap(leavesOf)
  return [given]
}

/** The condition that every scan meets. */
export const EVERY_SCAN: Condition = { kind: 'all', of: [] }
/** Whether a condition is that of every scan, as it is written: one that asks nothing. */
export const asksNothing = (given: Condition): boolean => given.kind === 'all' && given.of.length === 0
