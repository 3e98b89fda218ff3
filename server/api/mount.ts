import type { Request, Response, Router } from 'express'
import type { z } from 'zod'
import type { Endpoint } from '@flimbo/core/api'
import { whileAsked } from './abandoned.ts'
import { letBy, takeBytes, type Bodies } from './bodies.ts'
import { Refusal, signedOut } from './errors.ts'
import { checked, valueOf } from './read.ts'
import type { SignedIn } from '../workspace/index.ts'

/** What a handler gets: validated input, and who asks (null only at open endpoints). */
export interface Call<P, Q, B> {
  readonly params: P
  readonly query: Q
  readonly body: B
  /** The body byte for byte, of an endpoint that takes it so. */
  readonly bytes: Uint8Array
  readonly who: SignedIn
  readonly request: Request
  readonly response: Response
}

type Out<S> = S extends z.ZodType ? z.output<S> : undefined
type In<S> = S extends z.ZodUndefined ? unknown : S extends z.ZodType ? z.input<S> : undefined

type MaybeIn<S> = In<S> | Promise<In<S>>

const NO_BYTES = new Uint8Array(0)

/** Whether somebody may do what an endpoint does: a viewer only looks, but keeps how they look at it. */
function may({ method, own }: Endpoint, who: SignedIn): boolean {
  return method === 'GET' || own === true || who.person.role !== 'viewer'
}

/** Where endpoints are mounted, and the list of those that were: the OpenAPI document is made of it. */
export interface Mounts {
  readonly router: Router
  readonly endpoints: Endpoint[]
  readonly bodies: Bodies
  readonly whoAsks: (request: Request) => Promise<SignedIn | null>
}

/**
 * Serves an endpoint: who asks, and whether they may, is known before a byte of the body is read; the request is
 * validated by the contract before the handler sees it, and the answer before anybody else does. A handler whose
 * endpoint does not answer JSON writes the response itself.
 */
export function mount<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  mounts: Mounts,
  described: Endpoint<P, Q, B, A>,
  handler: (call: Call<Out<P>, Out<Q>, Out<B>>) => MaybeIn<A>,
): void {
  mounts.endpoints.push(described)
  const method = described.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete'

  async function serve(request: Request, response: Response): Promise<void> {
    const who = described.open ? null : await mounts.whoAsks(request)
    if (!described.open && !who) throw signedOut()
    if (who && !may(described, who))
      throw new Refusal('forbidden', 'You may look but not change. Ask an admin to make you an editor.')
    const params = valueOf(checked(described.params, request.params)) as Out<P>
    const query = valueOf(checked(described.query, request.query)) as Out<Q>
    const answer = await handler({
      params,
      query,
      body: (described.body ? await mounts.bodies.read(request, described) : undefined) as Out<B>,
      bytes: described.takes ? await takeBytes(request, described.bytesMax ?? 0) : NO_BYTES,
      who: who as SignedIn,
      request,
      response,
    })
    if (described.answers) return
    if (!described.answer) {
      response.status(described.status ?? 204).end()
      return
    }
    response.status(described.status ?? 200).json(described.answer.parse(answer))
  }

  mounts.router[method](described.path, async (request, response) => {
    try {
      await whileAsked(response, () => serve(request, response))
    } finally {
      letBy(request)
    }
  })
}
