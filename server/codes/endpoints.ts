import { chosenSlug, codesApi, shortLink, type Code } from '@flimbo/core/codes'
import { missing, mount, overtaken, type Mounts } from '../api/index.ts'
import { tables, type CampaignRow, type CodeRow } from '../database/index.ts'
import { checkDomain, domainFor, OWN_DOMAIN } from '../domains/index.ts'
import { scopeOwner } from '../results/index.ts'
import { forgetCodes } from '../line/index.ts'
import { checkDestination, listRevisions } from '../routing/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import { changeCodes, refuseOffList } from './change.ts'
import { issueCodes, pieceToIssue } from './issue.ts'
import { manyCodesEndpoints } from './many.ts'
import { houseOf, slugLengthOf, type CodesParts } from './parts.ts'
import { freeOnesLike, holders } from './slugs.ts'

export function codesEndpoints(mounts: Mounts, parts: CodesParts): void {
  const { database, doors, live, domains, tagging, viewer } = parts
  const { read } = database

  async function codeOf(workspaceId: number, id: number): Promise<CodeRow> {
    const row = await read.findOneBy(tables.codes, { id })
    if (!row) throw missing('code')
    await scopeOwner(database, workspaceId, { codeId: id })
    return row
  }

  async function whole(workspaceId: number, id: number): Promise<Code> {
    const [code] = await viewer([await codeOf(workspaceId, id)])
    if (!code) throw missing('code')
    return code
  }

  async function domainOf(
    who: SignedIn,
    { campaignId, domainId }: { campaignId?: number | undefined; domainId?: number | undefined },
  ): Promise<number> {
    if (domainId !== undefined) {
      await checkDomain(read, who.workspace.id, domainId)
      return domainId
    }
    if (campaignId === undefined) return OWN_DOMAIN
    return domainFor(read, await scopeOwner(database, who.workspace.id, { campaignId }))
  }

  manyCodesEndpoints(mounts, parts)

  mount(mounts, codesApi.get, ({ params, who }) => whole(who.workspace.id, params.id))

  mount(mounts, codesApi.create, async ({ body, who }) => {
    const workspaceId = who.workspace.id
    checkDestination(body.destination, domains)
    if (body.otherwise !== '') checkDestination(body.otherwise, domains, 'otherwise')
    const campaign: CampaignRow = await scopeOwner(database, workspaceId, { campaignId: body.campaignId })
    const domainId = await domainOf(who, body)
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
    return whole(workspaceId, id)
  })

  mount(mounts, codesApi.change, async ({ params: { id }, body: { version, ...set }, who }) => {
    const workspaceId = who.workspace.id
    await codeOf(workspaceId, id)
    const house = await houseOf(parts, workspaceId)
    const {
      ids,
      refused: [refused],
    } = await database.write((manager) =>
      changeCodes(manager, house, [{ id, version, set }], { personId: who.person.id, at: Date.now() }),
    )
    if (refused)
      throw refused.refusal.problem.type.endsWith('conflict')
        ? overtaken('code', await whole(workspaceId, id))
        : refused.refusal
    if (ids.length > 0) {
      await forgetCodes(database, doors, ids)
      live.tell(workspaceId, { type: 'change', of: 'code', id })
    }
    return whole(workspaceId, id)
  })

  mount(mounts, codesApi.revisions, async ({ params, query, who }) => {
    await codeOf(who.workspace.id, params.id)
    return listRevisions(database, 'code', params.id, query)
  })

  mount(mounts, codesApi.slug, async ({ params, query, who }) => {
    const domainId = await domainOf(who, query)
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
    if (!(await holders(read, domainId, [slug])).has(slug)) return { ...answer, free: true, instead: [] }
    return {
      ...answer,
      free: false,
      why: `The short link ${slug} is taken. Choose another.`,
      instead: await freeOnesLike(read, domainId, slug, new Date().getFullYear()),
    }
  })
}
