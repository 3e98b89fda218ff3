import type { Request, Response, Router } from 'express'
import type { z } from 'zod'
import { fieldFaults, type Endpoint } from '@flimbo/core/api'
import { Refusal, signedOut } from './errors.ts'
import type { SignedIn } from '../workspace/index.ts'

/** What a handler gets: validated input, and who asks (null only at open endpoints). */
export interface Call<P, Q, B> {
  readonly params: P
  readonly query: Q
  readonly body: B
  readonly who: SignedIn
  readonly request: Request
  readonly response: Response
}

type Out<S> = S extends z.ZodType ? z.output<S> : undefined
type In<S> = S extends z.ZodUndefined ? unknown : S extends z.ZodType ? z.input<S> : undefined

type MaybeIn<S> = In<S> | Promise<In<S>>

function parse(schema: z.ZodType | undefined, value: unknown): unknown {
  if (!schema) return undefined
  const read = schema.safeParse(value)
  if (read.success) return read.data
  const fields = fieldFaults(read.error)
  throw new Refusal('invalid', fields.map((f) => f.message).join(' '), { fields })
}

/** Roles that may change things; a viewer only looks. */
function mayWrite(method: string, who: SignedIn): boolean {
  return method === 'GET' || who.person.role !== 'viewer'
}

/** Where endpoints are mounted, and the list of those that were: the OpenAPI document is made of it. */
export interface Mounts {
  readonly router: Router
  readonly endpoints: Endpoint[]
  readonly whoAsks: (request: Request) => Promise<SignedIn | null>
}

/**
 * Serves an endpoint: who asks is looked up, the request is validated by the contract before the
 * handler sees it, and the answer before anybody else does. A handler whose endpoint does not answer
 * JSON writes the response itself.
 */
export function mount<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  mounts: Mounts,
  described: Endpoint<P, Q, B, A>,
  handler: (call: Call<Out<P>, Out<Q>, Out<B>>) => MaybeIn<A>,
): void {
  mounts.endpoints.push(described)
  const method = described.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete'
  mounts.router[method](described.path, async (request, response) => {
    const who = described.open ? null : await mounts.whoAsks(request)
    if (!described.open && !who) throw signedOut()
    if (who && !mayWrite(request.method, who)) throw new Refusal('forbidden', 'You may look but not change. Ask an admin to make you an editor.')
    const answer = await handler({
      params: parse(described.params, request.params) as Out<P>,
      query: parse(described.query, request.query) as Out<Q>,
      body: parse(described.body, request.body) as Out<B>,
      who: who as SignedIn,
      request,
      response,
    })
    if (described.answers) return
    if (!described.answer) { response.status(described.status ?? 204).end(); return }
    response.status(described.status ?? 200).json(described.answer.parse(answer))
  })
}
