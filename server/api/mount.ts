import type { Request, Response, Router } from 'express'
import type { z } from 'zod'
import { CAMPAIGN_THINGS, type Access, type CampaignThing, type Endpoint } from '@flimbo/core/api'
import { hasRight } from '@flimbo/core/workspace'
import type { FindReached, Reached } from '../access/index.ts'
import type { CampaignRow } from '../database/index.ts'
import { withAbandonSignal } from './abandoned.ts'
import { drainBody, readBytes, type Bodies } from './bodies.ts'
import { Refusal, signedOut, wrongField } from './errors.ts'
import { checked, valueOf } from './read.ts'
import type { SignedIn } from '../workspace/index.ts'

/** What a handler gets: validated input, and who asks (null only at open endpoints). */
export interface Call<P, Q, B, C = Reached> {
  readonly params: P
  readonly query: Q
  readonly body: B
  /** The body byte for byte, of an endpoint that takes it so. */
  readonly bytes: Uint8Array
  readonly who: SignedIn
  /** The campaign that what was named stands in; null where nothing was named that stands in one. */
  readonly campaign: C
  readonly request: Request
  readonly response: Response
}

type Out<S> = S extends z.ZodType ? z.output<S> : undefined
type In<S> = S extends z.ZodUndefined ? unknown : S extends z.ZodType ? z.input<S> : undefined

type MaybeIn<S> = In<S> | Promise<In<S>>

/** The campaign that a handler gets: there always is one where the endpoint must be told something of one. */
type CampaignOf<W> = W extends { orAll: true }
  ? Reached
  : W extends { things: infer T }
    ? Extract<keyof T, CampaignThing> extends never
      ? null
      : CampaignRow
    : null

const NO_BYTES = new Uint8Array(0)
const MAY_NOT = {
  view: 'You may not look at this. Ask an admin of your workspace.',
  edit: 'You may look but not change. Ask an admin to make you an editor.',
  administer: 'Only an admin may change this, as it concerns the whole workspace. Ask one.',
}

/** Where endpoints are mounted, and the list of those that were: the OpenAPI document is made of it. */
export interface Mounts {
  readonly router: Router
  readonly endpoints: Endpoint[]
  readonly bodies: Bodies
  readonly whoAsks: (request: Request) => Promise<SignedIn | null>
  readonly findReached: FindReached
  /** Whether the stand-ins run. */
  readonly standIns: boolean
}

/** Who asks, where somebody must. @throws Refusal where nobody is signed in, or not allowed to */
async function admit(mounts: Mounts, access: Access, request: Request): Promise<SignedIn | null> {
  if (access === 'anybody') return null
  const who = await mounts.whoAsks(request)
  if (!who) throw signedOut()
  if (!hasRight(who.person.role, access.right)) throw new Refusal('forbidden', MAY_NOT[access.right])
  return who
}

/** The campaign of what an input names. @throws Refusal where something of it is not the workspace's */
async function reach(mounts: Mounts, access: Access, who: SignedIn | null, input: unknown): Promise<Reached> {
  if (access === 'anybody' || !who || !access.things) return null
  return mounts.findReached(who.workspace.id, access.things, input)
}

function wantsCampaign(access: Access): boolean {
  if (access === 'anybody' || access.orAll) return false
  return CAMPAIGN_THINGS.some((thing) => access.things?.[thing] !== undefined)
}

/**
 * Serves an endpoint: who asks, whether they may, and whether what the address names is theirs, is known before a
 * byte of the body is read; what the body names is looked at before the handler sees it. The request is validated by
 * the contract before the handler, and the answer before anybody else sees it. A handler whose endpoint does not
 * answer JSON writes the response itself.
 */
export function mount<
  P extends z.ZodType,
  Q extends z.ZodType,
  B extends z.ZodType,
  A extends z.ZodType,
  W extends Access,
>(
  mounts: Mounts,
  described: Endpoint<P, Q, B, A, W>,
  handler: (call: Call<Out<P>, Out<Q>, Out<B>, CampaignOf<W>>) => MaybeIn<A>,
): void {
  mounts.endpoints.push(described)
  const method = described.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete'

  async function serve(request: Request, response: Response): Promise<void> {
    const access: Access = described.access
    const who = await admit(mounts, access, request)
    if (described.standIn && !mounts.standIns)
      throw new Refusal('missing', 'The stand-ins do not run here; the configuration says so.')
    const params = valueOf(checked(described.params, request.params)) as Out<P>
    const query = valueOf(checked(described.query, request.query)) as Out<Q>
    const byAddress = await reach(mounts, access, who, { params, query })
    const body = (described.body ? await mounts.bodies.read(request, described) : undefined) as Out<B>
    const byBody = await reach(mounts, access, who, { body })
    const campaign = byAddress ?? byBody
    if (campaign === null && wantsCampaign(access))
      throw wrongField('campaignId', 'Name the campaign, or something that stands in it.')
    const answer = await handler({
      params,
      query,
      body,
      bytes:
        described.takes && !described.isStreamed
          ? await readBytes(request, described.bytesMax ?? 0)
          : NO_BYTES,
      who: who as SignedIn,
      campaign: campaign as CampaignOf<W>,
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
      await withAbandonSignal(response, () => serve(request, response))
    } finally {
      drainBody(request)
    }
  })
}
