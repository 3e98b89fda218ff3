import { z } from 'zod'
import { endpoint, idParams, line } from '../api/index.ts'
import { destination } from '../routing/index.ts'
import { hostName } from './host.ts'

export const DOMAIN_STATES = ['waiting', 'ready', 'removed'] as const
export type DomainState = (typeof DOMAIN_STATES)[number]

const record = z.object({ name: z.string(), value: z.string() })

export const domain = z.object({
  id: z.int(),
  /** Host name of its short links; the front door's own where `own` is true. */
  host: z.string(),
  /** Origin its short links begin with. */
  origin: z.string(),
  own: z.boolean(),
  state: z.enum(DOMAIN_STATES),
  isDefault: z.boolean(),
  home: z.string(),
  unknown: z.string(),
  unknownText: z.string(),
  records: z.object({ cname: record, txt: record }).nullable(),
  checkedAt: z.int().nullable(),
  finding: z.string(),
  /** Short links that were issued on it, old ones of renamed codes too: what dies with it. */
  links: z.int(),
  /** Pieces that were released for print with short links on it: how many, and the names of the first. */
  released: z.object({ total: z.int(), names: z.array(z.string()) }),
  version: z.int(),
})
export type Domain = z.infer<typeof domain>

/** An address, or nothing. */
const optionalAddress = z.union([z.literal(''), destination])

export const newDomain = z.strictObject({ host: hostName })

export const domainChange = z.strictObject({
  version: z.int(),
  isDefault: z.literal(true).optional(),
  home: optionalAddress.optional(),
  unknown: optionalAddress.optional(),
  unknownText: line('the text of the page', 400).optional(),
})
export type DomainChange = z.input<typeof domainChange>

export const domainsApi = {
  list: endpoint({
    method: 'GET',
    path: '/domains',
    room: 'domains',
    access: { right: 'view' },
    summary: 'The domains short links can be on',
    answer: z.object({ rows: z.array(domain) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/domains',
    room: 'domains',
    access: { right: 'administer' },
    status: 201,
    summary: 'Name a domain; it works once its records are found',
    body: newDomain,
    answer: domain,
  }),
  check: endpoint({
    method: 'POST',
    path: '/domains/:id/look-ups',
    room: 'domains',
    access: { right: 'edit', things: { domain: 'params.id' } },
    summary: 'Look the records of a domain up, now',
    params: idParams,
    answer: domain,
  }),
  standIn: endpoint({
    method: 'POST',
    path: '/domains/:id/stand-in-records',
    standIn: true,
    room: 'domains',
    access: { right: 'edit', things: { domain: 'params.id' } },
    summary: 'Set the records in the DNS stand-in, as one would at a provider',
    params: idParams,
    answer: domain,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/domains/:id',
    room: 'domains',
    access: { right: 'administer', things: { domain: 'params.id' } },
    summary: 'Change what a domain answers, or make it the default',
    params: idParams,
    body: domainChange,
    answer: domain,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/domains/:id',
    room: 'domains',
    access: { right: 'administer', things: { domain: 'params.id' } },
    summary: 'Remove a domain; its short links die with it, so their number must be given',
    params: idParams,
    query: z.strictObject({ links: z.coerce.number().int().min(0) }),
  }),
}
