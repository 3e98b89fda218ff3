import { isProblemOf } from '@flimbo/core/api'
import { chosenSlug, codesApi, shortLink, type Code } from '@flimbo/core/codes'
import { missing, mount, overtaken, type Mounts } from '../api/index.ts'
import { tables, type CampaignRow } from '../database/index.ts'
import { checkDomain, domainFor, OWN_DOMAIN } from '../domains/index.ts'
import { forgetCodes } from '../line/index.ts'
import { checkDestination, listRevisions } from '../routing/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import { changeCodes, refuseOffList } from './change.ts'
import { issueCodes, pieceToIssue } from './issue.ts'
import { manyCodesEndpoints } from './many.ts'
import { houseOf, slugLengthOf, type CodesParts } from './parts.ts'
import { similarFreeSlugs, slugHolders } from './slugs.ts'

/** The endpoints of codes, as `core`’s contract describes them. */
export function codesEndpoints(mounts: Mounts, parts: CodesParts): void {
  const { database, doors, live, domains, tagging, viewer } = parts
  const { read } = database

  async function whole(id: number): Promise<Code> {
    const [code] = await viewer([await read.findOneByOrFail(tables.codes, { id })])
    if (!code) throw missing('code')
    return code
  }

  async function domainOf(
    who: SignedIn,
    campaign: CampaignRow | null,
    domainId: number | undefined,
  ): Promise<number> {
    if (domainId !== undefined) {
      await checkDomain(read, who.workspace.id, domainId)
      return domainId
    }
    return campaign === null ? OWN_DOMAIN : domainFor(read, campaign)
  }

  manyCodesEndpoints(mounts, parts)

  mount(mounts, codesApi.get, ({ params }) => whole(params.id))

  mount(mounts, codesApi.create, async ({ body, who, campaign }) => {
    const workspaceId = who.workspace.id
    checkDestination(body.destination, domains)
    if (body.otherwise !== '') checkDestination(body.otherwise, domains, 'otherwise')
    const domainId = await domainOf(who, campaign, body.domainId)
    refuseOffList(await tagging.rulesOf(workspaceId), body.medium)
    const slugLength = await slugLengthOf(database, workspaceId)
    const [id = 0] = await database.write(async (manager) =>
      issueCodes(
        manager,
        [await pieceToIssue(manager, campaign, body, domainId)],
        { personId: who.person.id, at: Date.now() },
        slugLength,
      ),
    )
    // Somebody may have tried the short link before it was issued.
    await forgetCodes(database, doors, [id])
    live.tell(workspaceId, { type: 'change', of: 'code', id })
    return whole(id)
  })

  mount(mounts, codesApi.change, async ({ params: { id }, body: { version, ...set }, who }) => {
    const workspaceId = who.workspace.id
    const house = await houseOf(parts, workspaceId)
    const {
      ids,
      refused: [refused],
    } = await database.write((manager) =>
      changeCodes(manager, house, [{ id, version, set }], { personId: who.person.id, at: Date.now() }),
    )
    if (refused)
      throw isProblemOf('conflict', refused.refusal.problem)
        ? overtaken('code', await whole(id))
        : refused.refusal
    if (ids.length > 0) {
      await forgetCodes(database, doors, ids)
      live.tell(workspaceId, { type: 'change', of: 'code', id })
    }
    return whole(id)
  })

  mount(mounts, codesApi.revisions, ({ params, query }) => listRevisions(database, 'code', params.id, query))

  mount(mounts, codesApi.slug, async ({ params, query, who, campaign }) => {
    const domainId = await domainOf(who, campaign, query.domainId)
    const origin = domains.origin(domainId)
    const wished = chosenSlug.safeParse(params.slug)
    if (!wished.success)
      return {
        slug: params.slug,
        shortLink: '',
        free: false,
        why: wished.error.issues[0]?.message ?? 'Choose another.',
        instead: [],
      }
    const slug = wished.data
    const answer = { slug, shortLink: shortLink(origin, slug) }
    if (!(await slugHolders(read, domainId, [slug])).has(slug)) return { ...answer, free: true, instead: [] }
    return {
      ...answer,
      free: false,
      why: `The short link ${slug} is taken. Choose another.`,
      instead: await similarFreeSlugs(read, domainId, slug, new Date().getFullYear()),
    }
  })
}
