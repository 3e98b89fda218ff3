import { In } from 'typeorm'
import { codesApi, seriesOf, type CodeCellChange } from '@flimbo/core/codes'
import { fixSet } from '@flimbo/core/tagging'
import { mount, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { findAmong, tables, type CampaignRow, type CodeRow } from '../database/index.ts'
import { checkDomain, domainFor } from '../domains/index.ts'
import { forgetCodes } from '../line/index.ts'
import { changeRoute, checkDestination, type By } from '../routing/index.ts'
import { changeCodes, refuseOffList, type ChangedCodes } from './change.ts'
import { issueCodes, pieceToIssue, type FreshRoute } from './issue.ts'
import { codesNamed, copyCodes, moveCodes } from './move.ts'
import { houseOf, slugLengthOf, type CodesParts } from './parts.ts'
import type { Filter } from './select.ts'

/** Lists of codes, and everything that is done to many of them at once. */
export function manyCodesEndpoints(mounts: Mounts, parts: CodesParts): void {
  const { database, reviewer, doors, live, domains, tagging, selection, viewer } = parts
  const { read } = database

  async function announceChange(workspaceId: number, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return
    await forgetCodes(database, doors, ids)
    live.tell(workspaceId, { type: 'change', of: 'code', id: ids[0] ?? 0 })
  }

  mount(
    mounts,
    codesApi.list,
    async ({ query: { page, pageSize, sort, order, group, ...filter }, campaign }) => {
      const ids = await selection.ids(campaign, filter, { sort, order, group })
      const wanted = ids.slice(page * pageSize, (page + 1) * pageSize)
      const rows = new Map((await read.findBy(tables.codes, { id: In(wanted) })).map((row) => [row.id, row]))
      return {
        rows: await viewer(
          wanted.flatMap((id): CodeRow[] => {
            const row = rows.get(id)
            return row ? [row] : []
          }),
        ),
        total: ids.length,
        page,
        pageSize,
      }
    },
  )

  mount(mounts, codesApi.groups, async ({ query: { by, ...filter }, campaign }) => ({
    rows: await selection.groups(campaign, filter, by),
  }))

  /** Which pieces a fix of a whole column changes, and to what. Destinations belong to routes and are changed there. */
  async function fixes(
    campaign: CampaignRow,
    filter: Filter,
    kind: NonNullable<Filter['finding']>,
    field: string,
  ): Promise<Map<number, string>> {
    const wanted = new Set(await selection.ids(campaign, filter))
    return new Map(
      (await reviewer.ask('fixes', await tagging.questionOf(campaign), kind, field)).filter(([id]) =>
        wanted.has(id),
      ),
    )
  }

  async function fixDestinations(found: ReadonlyMap<number, string>, by: By): Promise<ChangedCodes> {
    const rows = await findAmong(read, tables.codes, 'id', found.keys())
    const byRoute = new Map(rows.map((row) => [row.routeId, found.get(row.id) ?? '']))
    for (const destination of byRoute.values()) checkDestination(destination, domains)
    await database.writeInTurns(async (manager, turns) => {
      await turns.begin()
      for (const [id, destination] of byRoute) {
        const { version } = await manager.findOneByOrFail(tables.routes, { id })
        await changeRoute(manager, id, version, { destination }, by)
        await turns.pause()
      }
    })
    return { ids: rows.map(({ id }) => id), refused: [], undo: [] }
  }

  mount(mounts, codesApi.changeMany, async ({ body, who, campaign }) => {
    const workspaceId = who.workspace.id
    const by = { personId: who.person.id, at: Date.now() }
    const house = await houseOf(parts, workspaceId)
    const run = (changes: readonly CodeCellChange[]) =>
      database.writeInTurns((manager, turns) => changeCodes(manager, house, changes, by, turns))
    let outcome: ChangedCodes
    if ('changes' in body) outcome = await run(body.changes)
    else {
      if ('set' in body) {
        const { set } = body
        outcome = await run((await selection.ids(campaign, body.matching)).map((id) => ({ id, set })))
      } else {
        const { kind, field } = body.fix
        const found = await fixes(campaign, body.matching, kind, field)
        if (field === 'destination') outcome = await fixDestinations(found, by)
        else if (field === 'campaign')
          throw new Refusal(
            'invalid',
            'The campaign value belongs to the campaign: change it in the campaign’s own form.',
          )
        else {
          const rows = await findAmong(read, tables.codes, 'id', found.keys())
          outcome = await run(
            rows.map(({ id, extra }) => ({ id, set: fixSet({ [field]: found.get(id) ?? '' }, extra) })),
          )
        }
      }
    }
    await announceChange(workspaceId, outcome.ids)
    return {
      changed: outcome.ids.length,
      refused: outcome.refused.map(({ id, name, sentence }) => ({ id, name, sentence })),
      undo: outcome.undo,
    }
  })

  mount(mounts, codesApi.move, async ({ body: { ids, routeId }, who, campaign }) => {
    const workspaceId = who.workspace.id
    await database.writeInTurns(async (manager, turns) =>
      moveCodes(
        manager,
        await codesNamed(manager, ids),
        campaign,
        routeId,
        { personId: who.person.id, at: Date.now() },
        turns,
      ),
    )
    await announceChange(workspaceId, ids)
    return { moved: ids.length }
  })

  mount(mounts, codesApi.copy, async ({ body, who }) => {
    const workspaceId = who.workspace.id
    const slugLength = await slugLengthOf(database, workspaceId)
    const by = { personId: who.person.id, at: Date.now() }
    const ids = await database.writeInTurns(async (manager, turns) =>
      copyCodes(manager, await codesNamed(manager, body.ids), by, slugLength, { turns }),
    )
    await announceChange(workspaceId, ids)
    return { ids }
  })

  mount(mounts, codesApi.series, async ({ body: { piece, numbers }, who, campaign }) => {
    const workspaceId = who.workspace.id
    checkDestination(piece.destination, domains)
    if (piece.otherwise !== '') checkDestination(piece.otherwise, domains, 'otherwise')
    if (piece.domainId !== undefined) await checkDomain(read, workspaceId, piece.domainId)
    refuseOffList(await tagging.rulesOf(workspaceId), piece.medium)
    let pieces
    try {
      pieces = seriesOf(piece, numbers)
    } catch (error) {
      if (error instanceof RangeError) throw wrongField('numbers', error.message)
      throw error
    }
    const domainId = piece.domainId ?? (await domainFor(read, campaign))
    const slugLength = await slugLengthOf(database, workspaceId)
    // A series leads to one place: its pieces share a route.
    const route: FreshRoute | undefined =
      piece.destination === undefined
        ? undefined
        : {
            name: piece.name.replaceAll('{n}', '').replace(/\s+/g, ' ').trim() || piece.name,
            destination: piece.destination,
          }
    const ids = await database.writeInTurns(async (manager, turns) => {
      const [first, ...rest] = pieces
      const sample = first ? await pieceToIssue(manager, campaign, first, domainId) : null
      const issued = sample
        ? [
            sample,
            ...rest.map(
              ({ destination: _destination, routeId: _route, domainId: _domain, slug, ...fields }) => ({
                ...sample,
                ...fields,
                slug: slug ?? null,
              }),
            ),
          ]
        : []
      return issueCodes(
        manager,
        issued.map((each) => ({ ...each, route: route ?? each.route })),
        { personId: who.person.id, at: Date.now() },
        slugLength,
        { turns },
      )
    })
    await announceChange(workspaceId, ids)
    return { ids }
  })
}
