import type { IncomingMessage } from 'node:http'
import type { Point } from '@flimbo/core/conditions'
import { readBody } from './readBody.ts'

/** What a form of the front door was sent with. */
export interface Given {
  readonly password: string | null
  /** The seal of the page it was sent from; empty where there was none. */
  readonly asked: string
  /** Where the phone says it is; null where that was not asked. */
  readonly precise: Point | 'refused' | null
  /** Whether the place may be kept, rounded. */
  readonly keep: boolean
  /** Where the visit goes on to, sealed, where the page asked whether tags may fire; and what the visitor said. */
  readonly onward: string | null
  readonly agreed: boolean
}

const BYTES_MAX = 16_384

/** Reads a form's fields; null where the body is too long or no form. */
export async function readForm(request: IncomingMessage): Promise<Given | null> {
  if (!/^application\/x-www-form-urlencoded\b/i.test(request.headers['content-type'] ?? '')) return null
  const body = await readBody(request, BYTES_MAX)
  return body === null ? null : givenBy(new URLSearchParams(body))
}

function givenBy(fields: URLSearchParams): Given {
  return {
    password: fields.get('password'),
    asked: fields.get('asked') ?? '',
    precise: fields.has('latitude') ? pointOf(fields) : null,
    keep: fields.get('keep') === 'yes',
    onward: fields.get('onward'),
    agreed: fields.get('agreed') === 'yes',
  }
}

function pointOf(fields: URLSearchParams): Point | 'refused' {
  const [north, east] = [fields.get('latitude') ?? '', fields.get('longitude') ?? '']
  const [latitude, longitude] = [Number(north), Number(east)]
  const isPoint = north !== '' && east !== '' && Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180
  return isPoint ? { latitude, longitude } : 'refused'
}

/** A place rounded to hundredths of a degree: about a kilometre. */
export function roundPlace({ latitude, longitude }: Point): Point {
  return { latitude: Math.round(latitude * 100) / 100, longitude: Math.round(longitude * 100) / 100 }
}
