import { fieldFaults, isShallow, type Endpoint, type FieldFault } from '@flimbo/core/api'
import { Refusal } from './errors.ts'

/** What reading a body gave: what the contract makes of it, or what is wrong. */
export type BodyRead =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly kind: 'malformed'; readonly sentence: string }
  | { readonly ok: false; readonly kind: 'invalid'; readonly fields: FieldFault[] }

/** So many faults are told; whoever has more will not read them all. */
const FAULTS_MAX = 20

/** Reads and checks something by its schema. */
export function checked(schema: Endpoint['body'], value: unknown): BodyRead {
  if (!schema) return { ok: true, value: undefined }
  const read = schema.safeParse(value)
  return read.success
    ? { ok: true, value: read.data }
    : { ok: false, kind: 'invalid', fields: fieldFaults(read.error).slice(0, FAULTS_MAX) }
}

/** What was read, for the handler. @throws Refusal with what is wrong */
export function valueOf(read: BodyRead): unknown {
  if (read.ok) return read.value
  if (read.kind === 'malformed') throw new Refusal('malformed', read.sentence)
  throw new Refusal('invalid', [...new Set(read.fields.map(({ message }) => message))].join(' '), {
    fields: read.fields,
  })
}

const malformed = (sentence: string): BodyRead => ({ ok: false, kind: 'malformed', sentence })

/** Reads a JSON body by a schema; nothing is built of what is nested too deep. */
export function readJson(bytes: Uint8Array, schema: Endpoint['body']): BodyRead {
  if (!isShallow(bytes)) return malformed('The request is nested deeper than anything the server takes.')
  let value: unknown
  try {
    value =
      bytes.length === 0 ? undefined : JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    return malformed(
      'The request is not valid JSON. Check it for a missing bracket, comma or quotation mark.',
    )
  }
  return checked(schema, value)
}
