import same from 'fast-deep-equal'
import { In, IsNull, Not } from 'typeorm'
import {
  emptyContent,
  fileContent,
  filesOfPage,
  pageChanges,
  pagesApi,
  startContent,
  type Page,
  type PageContent,
  type PageSummary,
} from '@flimbo/core/pages'
import { fewNamed, missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, tables, type Database, type PageRow, peopleNames } from '../database/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { contentChecks } from './checks.ts'
import { campaignsOf, findLeading, pagesLeadingTo } from './leading.ts'
import { storeLive } from './storeLive.ts'
import { summaryOf } from './summary.ts'
import { usesOf } from './usesOf.ts'

interface Parts {
  readonly database: Database
  readonly doors: Doors
  readonly live: LiveHub
  readonly files: FileLibrary
  readonly domains: { origins(): readonly string[] }
}

const SUMMARY_COLUMNS = {
  id: true,
  campaignId: true,
  name: true,
  summary: true,
  revisionId: true,
  draftVersion: true,
  version: true,
  createdAt: true,
  changedAt: true,
} as const
const HISTORY_MAX = 100
const PAGE_NAME_MAX = 100
/** Of pages that say nothing but the name of their file. */
const OWN_LANGUAGE = 'en'

/** The pages of Flimbo's own that routes may lead to. */
export function pagesEndpoints(mounts: Mounts, { database, doors, live, files, domains }: Parts): void {
  const { read } = database
  const checks = contentChecks({ read, domains })

  async function one(workspaceId: number, id: number): Promise<Page> {
    const row = await read.findOneBy(tables.pages, { id })
    if (!row) throw missing('page')
    const { routesTo } = await findLeading(read, workspaceId)
    const { title: _title, summary: _summary, maps: _maps, ...shown } = row
    const keys = [row.live, row.draft].flatMap((content) => (content ? filesOfPage(content) : []))
    return {
      ...shown,
      routes: routesTo(id).map(({ id: routeId, name }) => ({ id: routeId, name })),
      files: await files.byKeys(workspaceId, keys),
    }
  }

  files.usedBy(async (workspaceId) => {
    const pages = await read.find(tables.pages, {
      select: { id: true, name: true, summary: true },
      where: { campaignId: In(await campaignsOf(read, workspaceId)) },
    })
    return usesOf(
      read,
      workspaceId,
      pages.map(({ id, name, summary: { files: keys } }) => ({ use: { by: 'page', id, name }, keys })),
    )
  })

  async function insertPage(
    campaignId: number,
    name: string,
    draft: PageContent,
    workspaceId: number,
  ): Promise<Page> {
    const at = Date.now()
    const id = await database.write(async (manager) =>
      insertedId(
        await manager.insert(tables.pages, {
          campaignId,
          name,
          ...summaryOf(draft, null),
          maps: {},
          live: null,
          revisionId: 0,
          draft: draft as never,
          draftVersion: 1,
          version: 1,
          createdAt: at,
          changedAt: at,
        }),
      ),
    )
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  }

  /** Makes a content live, and answers when every front door knows. @throws Refusal */
  async function makeLive(
    who: { workspace: { id: number }; person: { id: number } },
    id: number,
    choose: (row: PageRow) => Promise<PageContent>,
  ): Promise<Page> {
    const workspaceId = who.workspace.id
    const before = await read.findOneByOrFail(tables.pages, { id })
    const content = await choose(before)
    await checks.shown(workspaceId, content)
    await files.prepare(filesOfPage(content))
    const done = await database.writeInTurns(async (manager, turns) => {
      const row = await read.findOneByOrFail(tables.pages, { id })
      if (row.version !== before.version || row.draftVersion !== before.draftVersion) return null
      const routes = (await findLeading(read, workspaceId)).routesTo(id)
      await storeLive(manager, turns, row, routes, content, { personId: who.person.id, at: Date.now() })
      return routes
    })
    if (done === null) throw overtaken('page', await one(workspaceId, id))
    await doors.forget({ what: 'pages' })
    await doors.forget({ what: 'routes', routeIds: done.map((route) => route.id) })
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  }

  mount(mounts, pagesApi.list, async ({ query: { campaignId }, who }) => {
    const workspaceId = who.workspace.id
    const campaigns = campaignId === undefined ? await campaignsOf(read, workspaceId) : [campaignId]
    const rows = await read.find(tables.pages, {
      select: SUMMARY_COLUMNS,
      where: { campaignId: In(campaigns) },
    })
    const drafts = await read.find(tables.pages, {
      select: { id: true },
      where: { campaignId: In(campaigns), draft: Not(IsNull()) },
    })
    const prepared = new Set(drafts.map(({ id }) => id))
    const { routesTo } = await findLeading(read, workspaceId)
    return {
      rows: rows
        .map(({ summary: { parts, languages }, ...row }): PageSummary => ({
          ...row,
          parts,
          languages,
          hasDraft: prepared.has(row.id),
          routes: routesTo(row.id).map(({ id, name }) => ({ id, name })),
        }))
        .sort((a, b) => a.name.localeCompare(b.name) || a.id - b.id),
    }
  })

  mount(mounts, pagesApi.get, ({ params: { id }, who }) => one(who.workspace.id, id))

  mount(mounts, pagesApi.create, async ({ body: { campaignId, name, start, language }, who }) => {
    const { zone } = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
    const content = start === null ? emptyContent(language, zone) : startContent(start, language, zone)
    return insertPage(campaignId, name, content, who.workspace.id)
  })

  mount(mounts, pagesApi.createForFile, async ({ body: { campaignId, key }, who }) => {
    const workspaceId = who.workspace.id
    const [file] = await files.byKeys(workspaceId, [key])
    if (!file) throw wrongField('key', 'This file was deleted meanwhile. Choose another.')
    const { zone } = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
    const name = file.name.slice(0, PAGE_NAME_MAX)
    const { id } = await insertPage(campaignId, name, fileContent(file, OWN_LANGUAGE, zone), workspaceId)
    return makeLive(who, id, async (row) => {
      if (row.draft === null) throw overtaken('page', await one(workspaceId, id))
      return row.draft
    })
  })

  mount(mounts, pagesApi.copy, async ({ params: { id }, who }) => {
    const { campaignId, name, live: shown, draft } = await read.findOneByOrFail(tables.pages, { id })
    const content = draft ?? shown
    if (content === null) throw missing('page')
    return insertPage(campaignId, `${name.slice(0, 92)} (copy)`, content, who.workspace.id)
  })

  mount(mounts, pagesApi.rename, async ({ params: { id }, body: { version, name }, who }) => {
    const workspaceId = who.workspace.id
    const isDone = await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.pages, { id })
      if (row.version !== version) return false
      await manager.update(tables.pages, { id }, { name, version: version + 1, changedAt: Date.now() })
      return true
    })
    if (!isDone) throw overtaken('page', await one(workspaceId, id))
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  })

  mount(mounts, pagesApi.saveDraft, async ({ params: { id }, body: { draftVersion, content }, who }) => {
    const workspaceId = who.workspace.id
    await checks.stored(workspaceId, content)
    const isDone = await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.pages, { id })
      if (row.draftVersion !== draftVersion) return false
      const draft = same(row.live, content) ? null : content
      await manager.update(
        tables.pages,
        { id },
        {
          draft: draft,
          draftVersion: draftVersion + 1,
          changedAt: Date.now(),
          ...summaryOf(content, row.live),
        },
      )
      return true
    })
    if (!isDone) throw overtaken('draft', await one(workspaceId, id))
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  })

  mount(mounts, pagesApi.discardDraft, async ({ params: { id }, query: { draftVersion }, who }) => {
    const workspaceId = who.workspace.id
    const isDone = await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.pages, { id })
      if (row.live === null) throw new Refusal('taken', 'This page was never published. Delete it instead.')
      if (row.draftVersion !== draftVersion) return false
      const next = { draft: null, draftVersion: draftVersion + 1, ...summaryOf(row.live, null) }
      await manager.update(tables.pages, { id }, next)
      return true
    })
    if (!isDone) throw overtaken('draft', await one(workspaceId, id))
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  })

  mount(mounts, pagesApi.publish, ({ params: { id }, body: { draftVersion }, who }) =>
    makeLive(who, id, async (row) => {
      if (row.draft === null)
        throw new Refusal('taken', 'There is nothing to publish: what is prepared is live already.')
      if (row.draftVersion !== draftVersion) throw overtaken('draft', await one(who.workspace.id, id))
      return row.draft
    }),
  )

  mount(mounts, pagesApi.goBack, ({ params: { id }, body: { version, number }, who }) =>
    makeLive(who, id, async (row) => {
      if (row.version !== version) throw overtaken('page', await one(who.workspace.id, id))
      if (row.draft !== null)
        throw new Refusal('taken', 'Something is prepared on this page. Publish or discard it first.')
      const revision = await read.findOneBy(tables.pageRevisions, { pageId: id, number })
      if (!revision) throw missing('revision')
      return revision.content
    }),
  )

  mount(mounts, pagesApi.revisions, async ({ params: { id } }) => {
    const rows = await read.find(tables.pageRevisions, {
      where: { pageId: id },
      order: { number: 'desc' },
      take: HISTORY_MAX + 1,
    })
    const nameOf = await peopleNames(
      read,
      rows.map(({ personId }) => personId),
    )
    return {
      rows: rows.slice(0, HISTORY_MAX).map(({ number, at, personId, content }, i) => ({
        number,
        at,
        by: nameOf(personId),
        changes: pageChanges(rows[i + 1]?.content ?? null, content),
      })),
    }
  })

  mount(mounts, pagesApi.remove, async ({ params: { id }, who }) => {
    await database.writeAfter(
      async () => {
        const { name } = await read.findOneOrFail(tables.pages, {
          select: { id: true, name: true },
          where: { id },
        })
        const { routesTo, othersTo } = await findLeading(read, who.workspace.id)
        const users = [
          ...new Set([
            ...routesTo(id).map((route) => route.name),
            ...othersTo(id),
            ...(await pagesLeadingTo(read, who.workspace.id, id)),
          ]),
        ]
        if (users.length > 0)
          throw new Refusal(
            'taken',
            `${fewNamed(users)} ${users.length === 1 ? 'leads' : 'lead'} to “${name}”. Lead ${users.length === 1 ? 'it' : 'them'} elsewhere first.`,
          )
      },
      async (manager) => {
        await manager.delete(tables.pageRevisions, { pageId: id })
        await manager.delete(tables.pages, { id })
      },
    )
    live.tell(who.workspace.id, { type: 'change', of: 'page', id })
  })
}
