import { In, IsNull, type EntityManager } from 'typeorm'
import {
  filesOfStyle,
  PAGE_STYLES_MAX,
  pageStylesApi,
  type PageStyle,
  type SavedStyle,
} from '@flimbo/core/pages'
import { missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { findAmong, insertedId, tables, type Database, type PageStyleRow } from '../database/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { campaignsOf } from './leading.ts'
import { usesOf } from './usesOf.ts'

interface Parts {
  readonly database: Database
  readonly doors: Doors
  readonly live: LiveHub
  readonly files: FileLibrary
}

/** How pages look, saved for a workspace or one of its clients. */
export function pageStylesEndpoints(mounts: Mounts, { database, doors, live, files }: Parts): void {
  const { read } = database

  /** The names of pages that chose a style, in what is live or prepared. */
  async function pagesIn(workspaceId: number): Promise<Map<number, string[]>> {
    const pages = await read.find(tables.pages, {
      select: { id: true, name: true, summary: true },
      where: { campaignId: In(await campaignsOf(read, workspaceId)) },
    })
    const byStyle = new Map<number, string[]>()
    for (const { name, summary } of pages)
      for (const id of summary.styles) byStyle.set(id, [...(byStyle.get(id) ?? []), name])
    return byStyle
  }

  async function viewed(workspaceId: number, rows: readonly PageStyleRow[]): Promise<SavedStyle[]> {
    const pages = await pagesIn(workspaceId)
    return rows.map(({ workspaceId: _workspace, ...row }) => ({
      ...row,
      pages: pages.get(row.id)?.length ?? 0,
    }))
  }
  async function view(workspaceId: number, id: number): Promise<SavedStyle> {
    const [style] = await viewed(workspaceId, await read.findBy(tables.pageStyles, { id }))
    if (!style) throw missing('page style')
    return style
  }

  files.usedBy(async (workspaceId) => {
    const styles = await read.findBy(tables.pageStyles, { workspaceId })
    return usesOf(
      read,
      workspaceId,
      styles.map(({ id, name, style }) => ({
        use: { by: 'page-style', id, name },
        keys: filesOfStyle(style),
      })),
    )
  })

  async function checkFiles(workspaceId: number, style: PageStyle): Promise<void> {
    const keys = filesOfStyle(style)
    const there = await findAmong(read, tables.files, 'key', keys, { workspaceId })
    if (there.length < keys.length)
      throw new Refusal('missing', 'A picture of this style was deleted meanwhile. Choose another.')
    await files.prepare(keys)
  }

  /** One style alone is what pages of a client, or of the workspace, look like unasked. */
  async function takeDefault(
    manager: EntityManager,
    workspaceId: number,
    clientId: number | null,
  ): Promise<void> {
    const of = { workspaceId, clientId: clientId ?? IsNull() }
    await manager.update(tables.pageStyles, of, { isDefault: false })
  }

  async function changed(workspaceId: number): Promise<void> {
    await doors.forget({ what: 'pages' })
    live.tell(workspaceId, { type: 'change', of: 'page', id: 0 })
  }

  mount(mounts, pageStylesApi.list, async ({ who }) => {
    const workspaceId = who.workspace.id
    const rows = await read.find(tables.pageStyles, {
      where: { workspaceId },
      order: { name: 'asc', id: 'asc' },
    })
    return { rows: await viewed(workspaceId, rows) }
  })

  mount(mounts, pageStylesApi.create, async ({ body: { name, style, clientId, isDefault }, who }) => {
    const workspaceId = who.workspace.id
    await checkFiles(workspaceId, style)
    const id = await database.write(async (manager) => {
      if ((await manager.countBy(tables.pageStyles, { workspaceId })) >= PAGE_STYLES_MAX)
        throw wrongField(
          'name',
          `There are ${String(PAGE_STYLES_MAX)} page styles already. Delete one first.`,
        )
      await checkName(manager, workspaceId, name)
      if (isDefault) await takeDefault(manager, workspaceId, clientId)
      const row = { workspaceId, clientId, name, isDefault, version: 1, createdAt: Date.now() }
      return insertedId(await manager.insert(tables.pageStyles, { ...row, style: style as never }))
    })
    await changed(workspaceId)
    return view(workspaceId, id)
  })

  mount(mounts, pageStylesApi.change, async ({ params: { id }, body: { version, ...set }, who }) => {
    const workspaceId = who.workspace.id
    if (set.style) await checkFiles(workspaceId, set.style)
    const isDone = await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.pageStyles, { id })
      if (row.version !== version) return false
      if (set.name !== undefined) await checkName(manager, workspaceId, set.name, id)
      const clientId = set.clientId === undefined ? row.clientId : set.clientId
      if (set.isDefault ?? row.isDefault) await takeDefault(manager, workspaceId, clientId)
      const isDefault = set.isDefault ?? row.isDefault
      await manager.update(tables.pageStyles, { id }, { ...set, isDefault, version: version + 1 })
      return true
    })
    if (!isDone) throw overtaken('page style', await view(workspaceId, id))
    await changed(workspaceId)
    return view(workspaceId, id)
  })

  mount(mounts, pageStylesApi.remove, async ({ params: { id }, who }) => {
    const workspaceId = who.workspace.id
    const [first, ...more] = (await pagesIn(workspaceId)).get(id) ?? []
    if (first !== undefined)
      throw new Refusal(
        'taken',
        `The page “${first}”${more.length > 0 ? ` and ${String(more.length)} more look` : ' looks'} like this. Choose another style there first.`,
      )
    await database.write((manager) => manager.delete(tables.pageStyles, { id }))
    await changed(workspaceId)
  })
}

/** @throws Refusal where another style of the workspace is called the same */
async function checkName(
  manager: EntityManager,
  workspaceId: number,
  name: string,
  except?: number,
): Promise<void> {
  const all = await manager.findBy(tables.pageStyles, { workspaceId })
  if (all.some((each) => each.id !== except && each.name.toLowerCase() === name.toLowerCase()))
    throw wrongField('name', `There is a page style “${name}” already. Choose another name.`)
}
