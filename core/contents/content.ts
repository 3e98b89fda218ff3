import { z } from 'zod'
import { localMoment, zoneName } from '../time/index.ts'

/** What a static code can carry. */
export const CONTENT_KINDS = [
  'address',
  'text',
  'phone',
  'sms',
  'email',
  'place',
  'contact',
  'event',
  'wifi',
  'transfer',
  'payment',
] as const
export type ContentKind = (typeof CONTENT_KINDS)[number]

/** Longer than any symbol: 7,089 digits are the most that one holds (ISO/IEC 18004). */
const TEXT_MAX = 7089
const text = z.string().max(TEXT_MAX)
/** Empty where it is left out. */
const optional = text.default('')

/**
 * What a static code carries, as people enter it. The schema holds its shape alone; whether it is right by its standard
 * is what `contentFaults` says, field by field.
 */
export const content = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('address'), address: text }),
  z.object({ kind: z.literal('text'), text }),
  z.object({ kind: z.literal('phone'), number: text }),
  z.object({ kind: z.literal('sms'), number: text, body: optional }),
  z.object({ kind: z.literal('email'), to: text, subject: optional, body: optional }),
  z.object({
    kind: z.literal('place'),
    latitude: z.number().min(-90).max(90),
    longitude: z.number().min(-180).max(180),
    label: optional,
  }),
  z.object({
    kind: z.literal('contact'),
    /** The newer version says more; the older is read by more phones. */
    version: z.enum(['3.0', '4.0']).default('3.0'),
    given: optional,
    family: optional,
    organisation: optional,
    role: optional,
    phone: optional,
    mobile: optional,
    email: optional,
    web: optional,
    street: optional,
    postcode: optional,
    town: optional,
    country: optional,
    note: optional,
  }),
  z.object({
    kind: z.literal('event'),
    title: text,
    start: localMoment,
    end: localMoment,
    allDay: z.boolean().default(false),
    zone: zoneName,
    place: optional,
    description: optional,
    web: optional,
  }),
  z.object({
    kind: z.literal('wifi'),
    security: z.enum(['WPA', 'WEP', 'nopass']),
    name: text,
    password: optional,
    hidden: z.boolean().default(false),
  }),
  z.object({
    kind: z.literal('transfer'),
    name: text,
    iban: text,
    bic: optional,
    /** In cents; null where the payer decides. */
    cents: z.number().int().nullable().default(null),
    purpose: optional,
    /** A creditor reference (ISO 11649), or else a text: never both. */
    reference: optional,
    remittance: optional,
  }),
  z.object({
    kind: z.literal('payment'),
    /** The scheme of the address, such as `bitcoin`. */
    scheme: text,
    address: text,
    /** In whole coins, as digits with a point. */
    amount: optional,
    label: optional,
    message: optional,
  }),
])
export type Content = z.infer<typeof content>
export type ContentOf<K extends ContentKind> = Extract<Content, { kind: K }>
