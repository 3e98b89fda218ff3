import type { z } from 'zod'
import type { Access } from './access.ts'

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE'

type Shape = z.ZodType

/**
 * One operation of the office's API, described once: the server validates with it, the web client
 * takes its types from it, and the OpenAPI document is generated from it.
 *
 * `path` is relative to `/api` and writes its parameters as `:name`. `answers` names the media type
 * where the answer is not JSON; such an answer has no schema.
 */
export interface Endpoint<
  Params extends Shape = Shape,
  Query extends Shape = Shape,
  Body extends Shape = Shape,
  Answer extends Shape = Shape,
  Who extends Access = Access,
> {
  readonly method: Method
  readonly path: string
  readonly room: string
  readonly summary: string
  readonly access: Who
  /** Whether a stand-in answers it: it is there only where the stand-ins run. */
  readonly standIn?: true
  readonly params?: Params
  readonly query?: Query
  readonly body?: Body
  readonly answer?: Answer
  readonly answers?: string
  /** Media type of a body that is taken as it is, byte for byte; such an endpoint has no `body`. */
  readonly takes?: string
  /** Whether the handler reads such a body by itself, part by part as it comes, instead of getting it whole. */
  readonly isStreamed?: true
  /** The largest body that is taken, in bytes; 1 MB where it is not named, 16 kB where nobody need be signed in. */
  readonly bytesMax?: number
  /** Status of the successful answer; 200 where it is not named, 204 where there is no answer. */
  readonly status?: number
}

/** Keeps the literal types of an endpoint's parts. */
export function endpoint<
  Params extends Shape = z.ZodUndefined,
  Query extends Shape = z.ZodUndefined,
  Body extends Shape = z.ZodUndefined,
  Answer extends Shape = z.ZodUndefined,
  const Who extends Access = Access,
>(description: Endpoint<Params, Query, Body, Answer, Who>): Endpoint<Params, Query, Body, Answer, Who> {
  return description
}

/** What a caller passes to an endpoint, before validation. */
export type InputOf<E> =
  E extends Endpoint<infer P, infer Q, infer B>
    ? (P extends z.ZodUndefined ? unknown : { params: z.input<P> }) &
        (Q extends z.ZodUndefined ? unknown : { query: z.input<Q> }) &
        (B extends z.ZodUndefined ? unknown : { body: z.input<B> })
    : never

/** What an endpoint answers, after validation. */
export type AnswerOf<E> = E extends Endpoint<infer _P, infer _Q, infer _B, infer A> ? z.output<A> : never

/**
 * Fills an endpoint's path and query: `/codes/:id` with `{id: 7}` and `{page: 2}` is `/codes/7?page=2`.
 * Values are percent-encoded by the WHATWG URL Standard; undefined query values are left out.
 * @throws Error when a path parameter is missing.
 */
export function addressOf(
  path: string,
  params: Readonly<Record<string, unknown>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const filled = path.replace(/:([a-zA-Z]+)/g, (_all, name: string) => {
    const value = params[name]
    if (typeof value !== 'string' && typeof value !== 'number')
      throw new Error(`No value for :${name} in ${path}`)
    return encodeURIComponent(value)
  })
  const search = new URLSearchParams()
  for (const [name, value] of Object.entries(query)) {
    if (value === undefined || value === null || value === '') continue
    search.append(name, typeof value === 'string' ? value : JSON.stringify(value))
  }
  return search.size > 0 ? `${filled}?${search.toString()}` : filled
}
