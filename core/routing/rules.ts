import { localMoment, zoneName } from '../time/index.ts'
import same from 'fast-deep-equal'
import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'
import { condition } from '../conditions/index.ts'
import { destination } from './destinationField.ts'

export const LANES_MAX = 100
export const VARIANTS_MAX = 10
export const WEIGHT_MAX = 1000

/** Exits that are no lane. Scans name the exit they took: one of these, or the id of a lane. */
export const EXITS = ['otherwise', 'before', 'after', 'full', 'full-today', ''] as const

const key = z
  .string()
  .regex(/^[a-z0-9]{1,16}$/, 'A key has up to 16 of the small letters and digits.')
  .refine((id) => !EXITS.some((exit) => exit === id), 'This key means something else.')

const address = z.strictObject({ kind: z.literal('address'), address: destination })
const message = z.strictObject({
  kind: z.literal('message'),
  title: requiredLine('a title', 80),
  text: line('the text', 600),
})

const page = z.strictObject({ kind: z.literal('page'), pageId: z.int() })

/** What a phone is answered with: it is sent on, or shown a few words, or a page of Flimbo's. */
export const answer = z.discriminatedUnion('kind', [address, message, page])
export type Answer = z.infer<typeof answer>

const variant = z.strictObject({
  id: key,
  name: requiredLine('a name for the variant', 80),
  ended: z.boolean(),
  leads: answer,
  weight: z
    .int('Give a weight as a whole number.')
    .min(0, 'A weight is not below 0.')
    .max(WEIGHT_MAX, `Give weights up to ${String(WEIGHT_MAX)}.`),
})
export type Variant = z.infer<typeof variant>

const split = z.strictObject({
  kind: z.literal('split'),
  variants: z
    .array(variant)
    .min(2, 'A split needs two variants or more.')
    .max(VARIANTS_MAX, `Make at most ${String(VARIANTS_MAX)} variants.`)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two variants have the same key.'),
})
const another = z.strictObject({ kind: z.literal('route'), routeId: z.int() })

/** What a lane does with the scans it takes. */
export const outcome = z.discriminatedUnion('kind', [address, message, page, split, another])
export type LaneOutcome = z.infer<typeof outcome>

export const lane = z.strictObject({
  id: key,
  /** What the manager calls it; empty to go by its sentence. */
  name: line('the name of the lane', 80),
  condition,
  outcome,
  /** Left in its place, but taking no scan. */
  resting: z.boolean(),
})
export type Lane = z.infer<typeof lane>

const count = z
  .int('Give a whole number of scans.')
  .min(1, 'Let at least one scan through.')
  .max(1_000_000_000, 'Give fewer scans.')

/** When a route takes scans and how many; null answers are Flimbo's own plain words. */
export const life = z
  .strictObject({
    zone: zoneName,
    startsAt: z.union([localMoment, z.literal('')]),
    endsAt: z.union([localMoment, z.literal('')]),
    /** Real scans let through in all, counted from `countedFrom` (UTC ms), and on one day of the zone. */
    limit: count.nullable(),
    countedFrom: z.int().min(0),
    daily: count.nullable(),
    /** Whether a visitor who scans again on the same day takes no further place. */
    once: z.boolean().default(false),
    before: answer.nullable(),
    after: answer.nullable(),
    full: answer.nullable(),
    fullToday: answer.nullable(),
  })
  .refine(({ startsAt, endsAt }) => startsAt === '' || endsAt === '' || startsAt < endsAt, {
    message: 'The end lies before the start.',
    path: ['endsAt'],
  })
export type Life = z.infer<typeof life>

export const rules = z.strictObject({
  lanes: z
    .array(lane)
    .max(LANES_MAX, `A route takes at most ${String(LANES_MAX)} lanes.`)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two lanes have the same key.'),
  /** The language of the otherwise destination (BCP 47), so that its readers are not sent elsewhere; empty where it does not matter. */
  language: z
    .string()
    .max(35)
    .regex(/^([A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*)?$/, 'Write a language as its tag (BCP 47): en.'),
  life: life.nullable(),
  /** A set of lanes kept for many routes, asked before or after the route's own; null for none. */
  shared: z
    .strictObject({ setId: z.int(), place: z.enum(['first', 'last']) })
    .nullable()
    .default(null),
  /** Why the phone is asked where it is, precisely; null where it is not asked. */
  askLocation: z.strictObject({ why: requiredLine('the reason', 300) }).nullable(),
  /** Keys of the workspace's visit tags that fire on the way. */
  tags: z
    .array(z.string().max(16))
    .max(20, 'A route fires at most 20 tags.')
    .refine((all) => new Set(all).size === all.length, 'A tag is named twice.')
    .default([]),
})
export type Rules = z.infer<typeof rules>

/** A route that sends every scan to its destination. */
export const NO_RULES: Rules = {
  lanes: [],
  language: '',
  life: null,
  shared: null,
  askLocation: null,
  tags: [],
}

/** A life without bounds, to be filled in. */
export function openLife(zone: string): Life {
  return {
    zone,
    startsAt: '',
    endsAt: '',
    limit: null,
    countedFrom: 0,
    daily: null,
    once: false,
    before: null,
    after: null,
    full: null,
    fullToday: null,
  }
}

/** The lanes of a shared set as a route asks them: under keys that none of its own can have. */
export function lanesOfSet(setId: number, lanes: readonly Lane[]): Lane[] {
  return lanes.map((each) => ({ ...each, id: `s${String(setId)}-${each.id}` }))
}

/** Every lane in the order a route asks them: its own, with those of its shared set before or after. */
export function allLanes({ lanes, shared }: Pick<Rules, 'lanes' | 'shared'>, ofSet: readonly Lane[]): Lane[] {
  if (shared === null) return lanes
  return shared.place === 'first' ? [...ofSet, ...lanes] : [...lanes, ...ofSet]
}

/** Every answer of some rules, with the words for where it stands. */
export function answersOf({
  lanes,
  life,
}: Pick<Rules, 'lanes' | 'life'>): { where: string; answer: Answer }[] {
  const found: { where: string; answer: Answer }[] = []
  for (const [i, { outcome: leads }] of lanes.entries()) {
    const where = `lane ${String(i + 1)}`
    if (leads.kind === 'split')
      for (const { name, leads: to } of leads.variants)
        found.push({ where: `${where}, variant ${name}`, answer: to })
    else if (leads.kind !== 'route') found.push({ where, answer: leads })
  }
  if (life) {
    for (const [where, to] of [
      ['before the start', life.before],
      ['after the end', life.after],
      ['when the limit is reached', life.full],
      ['when the day’s limit is reached', life.fullToday],
    ] as const) {
      if (to) found.push({ where, answer: to })
    }
  }
  return found
}

/** The pages that some rules and lanes lead to, each once. */
export function pagesLedTo(rules: Pick<Rules, 'lanes' | 'life'>): number[] {
  return [...new Set(answersOf(rules).flatMap(({ answer: to }) => (to.kind === 'page' ? [to.pageId] : [])))]
}

/** Whether two destinations with their rules are the same, whatever the order their parts are written in. */
export function isSameRoute(
  a: { readonly destination: string; readonly rules: Rules },
  b: { readonly destination: string; readonly rules: Rules },
): boolean {
  return a.destination === b.destination && same(a.rules, b.rules)
}

/** The routes that lanes lead on to, each once. */
export function routesLedTo({ lanes }: Pick<Rules, 'lanes'>): number[] {
  return [...new Set(lanes.flatMap(({ outcome: leads }) => (leads.kind === 'route' ? [leads.routeId] : [])))]
}
