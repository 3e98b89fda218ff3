import { localMoment, momentOf, zoneName } from '../time/index.ts'
import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'
import { DEVICE_TYPES } from '../scans/index.ts'
import type { CompiledCode, CompiledRoute } from './compile.ts'
import { decide, plainArrival, type Arrival, type Decision } from './decide.ts'

/** A made-up scan: where, on what, in which language and when. Nothing of it is ever counted. */
export const rehearsal = z.strictObject({
  place: z.strictObject({
    country: z.string().max(2),
    region: z.string().max(100),
    city: z.string().max(100),
    latitude: z.number().min(-90).max(90).nullable(),
    longitude: z.number().min(-180).max(180).nullable(),
  }),
  device: z.strictObject({
    type: z.enum(DEVICE_TYPES),
    system: line('a system', 40),
    systemVersion: line('a version', 40),
    browser: line('a browser', 60),
  }),
  languages: z.array(z.string().max(35)).max(10),
  /** On the clock of `zone`; empty for the moment it is run. */
  at: z.union([localMoment, z.literal('')]),
  zone: zoneName,
  repeat: z.boolean(),
  query: line('the query', 500),
})
export type Rehearsal = z.infer<typeof rehearsal>

/** A rehearsal whose result was kept: publishing runs it again and says where it would now lead. */
export const expectation = z.strictObject({
  id: z.string().regex(/^[a-z0-9]{1,16}$/),
  name: requiredLine('a name', 120),
  rehearsal,
  /** Where it led, by `leadsWhere`. */
  leads: z.string().max(3000),
})
export type Expectation = z.infer<typeof expectation>

/** The arrival a rehearsal stands for; behind a password, as if it had been given. */
export function arrivalOf(
  { place, device, languages, at, zone, repeat, query }: Rehearsal,
  now: number,
): Arrival {
  return plainArrival(at === '' ? now : momentOf(zone, at), {
    place,
    device,
    languages,
    repeat,
    query,
    unlocked: true,
    precise: 'refused',
    visitor: '00000000000000ff',
  })
}

const MESSAGES = {
  paused: 'a page that says the code is paused',
  deleted: 'a page that says the code was withdrawn',
  early: 'a page that says it has not begun',
  over: 'a page that says it is over',
  full: 'a page that says everything is taken',
  'full-today': 'a page that says everything is taken today',
} as const

/** Where a decision leads, in one line: the address with its query, or the message shown. */
export function leadsWhere(decision: Decision): string {
  if (decision.kind === 'redirect') return decision.address
  if (decision.kind === 'page') return `the page “${decision.page.name}”`
  if (decision.kind === 'ask')
    return decision.ask === 'password'
      ? 'a page that asks for the password'
      : 'a page that asks where the phone is'
  return decision.message === 'own' ? `the message “${decision.title}”` : MESSAGES[decision.message]
}

/** The part of an address a person means by it: without the tags and whatever else the query brings. */
export function withoutQuery(address: string): string {
  return address.split(/[?#]/, 1)[0] ?? address
}

/** The expectations that a route would not meet, and where they would lead instead. Tags are not looked at. */
export function brokenExpectations(
  expectations: readonly Expectation[],
  code: CompiledCode,
  route: CompiledRoute,
  now: number,
): { name: string; expected: string; would: string }[] {
  return expectations.flatMap(({ name, rehearsal: given, leads }) => {
    const would = leadsWhere(decide({ code, route }, arrivalOf(given, now)))
    return withoutQuery(would) === withoutQuery(leads)
      ? []
      : [{ name, expected: withoutQuery(leads), would: withoutQuery(would) }]
  })
}
