import { In, Raw, type FindOptionsWhere } from 'typeorm'
import { chosenSlug, codesApi, type Code } from '@flimbo/core/codes'
import { bounds, missing, mount, overtaken, sortedPage, wrongField, type Mounts } from '../api/index.ts'
import type { Config } from '../config/index.ts'
import { tables, type CodeRow, type Database } from '../database/index.ts'
import { scopeOwner, tallyOf, type Reader } from '../results/index.ts'
import { checkDestination, listRevisions, type Lookup } from '../routing/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { changeCode, insertCode } from './store.ts'
import { codeViews } from './views.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly lookup: Lookup
  readonly live: LiveHub
  readonly config: Pick<Config, 'doorUrl'>
}

/** Conditions for a search in a code's name, slug, source, content and place; any of them. */
function searching(scope: FindOptionsWhere<CodeRow>, search: string | undefined): FindOptionsWhere<CodeRow>[] {
  if (!search?.trim()) return [scope]
  const escaped = `%${search.trim().replace(/[\\%_]/g, '\\$&')}%`
  const contains = () => Raw((column) => `${column} LIKE :escaped ESCAPE '\\'`, { escaped })
  return [{ name: contains() }, { source: contains() }, { content: contains() }, { place: contains() }, { slug: contains() }]
    .map((condition) => ({ ...scope, ...condition }))
}

export function codesEndpoints(mounts: Mounts, { database, reader, lookup, live, config }: Parts): void {
  const { read } = database

  async function codeOf(workspaceId: number, id: number): Promise<CodeRow> {
    const row = await read.findOneBy(tables.codes, { id })
    if (!row) throw missing('code')
    await scopeOwner(database, workspaceId, { codeId: id })
    return row
  }

  async function views(rows: readonly CodeRow[]): Promise<Code[]> {
    return codeViews(database, config, rows, await reader.ask('tallies', 'code', { codes: rows.map((row) => row.id) }))
  }

  async function whole(workspaceId: number, id: number): Promise<Code> {
    const [code] = await views([await codeOf(workspaceId, id)])
    if (!code) throw missing('code')
    return code
  }

  mount(mounts, codesApi.list, async ({ query, who }) => {
    const { campaignId, routeId, search, page, pageSize, sort, order } = query
    if (campaignId === undefined && routeId === undefined) throw wrongField('campaignId', 'Name the campaign or the route whose codes you want.')
    const campaign = await scopeOwner(database, who.workspace.id, { campaignId, routeId })
    const where = searching({ campaignId: campaign.id, ...(routeId === undefined ? {} : { routeId }) }, search)
    if (sort !== 'scans' && sort !== 'lastScan') {
      const [rows, total] = await read.findAndCount(tables.codes, { where, order: { [sort]: order, id: order }, ...bounds(query) })
      return { rows: await views(rows), total, page, pageSize }
    }
    const ids = await read.find(tables.codes, { select: { id: true }, where, order: { id: 'asc' } })
    const tallies = await reader.ask('tallies', 'code', { campaign: campaign.id })
    const wanted = sortedPage(ids, query, ({ id }) => (sort === 'scans' ? tallyOf(tallies, id).scans : tallyOf(tallies, id).lastAt)).map(({ id }) => id)
    const rows = new Map((await read.findBy(tables.codes, { id: In(wanted) })).map((row) => [row.id, row]))
    return { rows: await views(wanted.flatMap((id) => rows.get(id) ?? [])), total: ids.length, page, pageSize }
  })

  mount(mounts, codesApi.get, ({ params, who }) => whole(who.workspace.id, params.id))

  mount(mounts, codesApi.create, async ({ body, who }) => {
    checkDestination(body.destination, config)
    await scopeOwner(database, who.workspace.id, { campaignId: body.campaignId })
    const id = await database.write((manager) => insertCode(manager, body, { personId: who.person.id, at: Date.now() }))
    const code = await whole(who.workspace.id, id)
    // Somebody may have tried the short link before it was issued.
    lookup.forget([code.slug])
    live.tell(who.workspace.id, { type: 'change', of: 'code', id })
    return code
  })

  mount(mounts, codesApi.change, async ({ params: { id }, body, who }) => {
    const { slug } = await codeOf(who.workspace.id, id)
    const outcome = await database.write((manager) => changeCode(manager, id, body, { personId: who.person.id, at: Date.now() }))
    if (outcome === 'overtaken') throw overtaken('code', await whole(who.workspace.id, id))
    if (outcome === 'changed') {
      lookup.forget([slug])
      live.tell(who.workspace.id, { type: 'change', of: 'code', id })
    }
    return whole(who.workspace.id, id)
  })

  mount(mounts, codesApi.revisions, async ({ params, query, who }) => {
    await codeOf(who.workspace.id, params.id)
    return listRevisions(database, 'code', params.id, query)
  })

  mount(mounts, codesApi.slug, async ({ params }) => {
    const wished = chosenSlug.safeParse(params.slug)
    if (!wished.success) return { slug: params.slug, free: false, why: wished.error.issues[0]?.message ?? 'Choose another.' }
    const free = !(await read.existsBy(tables.codes, { slug: wished.data }))
    return { slug: wished.data, free, ...(free ? {} : { why: `The short link ${wished.data} is taken. Choose another.` }) }
  })
}
