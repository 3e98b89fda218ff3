import type { EntityManager } from 'typeorm'
import { filesOf, HOUSE_STYLES_MAX, houseStylesApi, type HouseStyle } from '@flimbo/core/houseStyles'
import type { Look } from '@flimbo/core/symbol'
import { missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { isPictureType } from '@flimbo/core/files'
import { findAmong, insertedId, tables, type Database, type HouseStyleRow } from '../database/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { styleUses } from './uses.ts'

interface Parts {
  readonly database: Database
  readonly files: FileLibrary
  readonly live: LiveHub
}

/** The endpoints of house styles, as `core`’s contract describes them. */
export function houseStylesEndpoints(mounts: Mounts, { database, files, live }: Parts): void {
  const { read } = database

  async function viewed(rows: readonly HouseStyleRow[]): Promise<HouseStyle[]> {
    const counts = await read
      .createQueryBuilder(tables.codes, 'c')
      .select('c.styleId', 'styleId')
      .addSelect('count(*)', 'pieces')
      .where("c.styleId IN (:...ids) AND c.state <> 'deleted'", { ids: [0, ...rows.map(({ id }) => id)] })
      .groupBy('c.styleId')
      .getRawMany<{ styleId: number; pieces: number }>()
    const fixed = await read
      .createQueryBuilder(tables.staticCodes, 'c')
      .select('c.styleId', 'styleId')
      .addSelect('count(*)', 'pieces')
      .where('c.styleId IN (:...ids)', { ids: [0, ...rows.map(({ id }) => id)] })
      .groupBy('c.styleId')
      .getRawMany<{ styleId: number; pieces: number }>()
    const pieces = new Map<number, number>()
    for (const { styleId, pieces: more } of [...counts, ...fixed])
      pieces.set(styleId, (pieces.get(styleId) ?? 0) + more)
    return rows.map(({ workspaceId: _workspace, ...row }) => ({ ...row, pieces: pieces.get(row.id) ?? 0 }))
  }
  async function view(id: number): Promise<HouseStyle> {
    const [style] = await viewed(await read.findBy(tables.houseStyles, { id }))
    if (!style) throw missing('house style')
    return style
  }
  const tell = (workspaceId: number) => {
    live.tell(workspaceId, { type: 'change', of: 'campaign', id: 0 })
  }

  files.usedBy(async (workspaceId) =>
    (await read.findBy(tables.houseStyles, { workspaceId })).flatMap(({ id, name, look }) =>
      filesOf(look).map((sum) => ({ sum, use: { by: 'house-style' as const, id, name } })),
    ),
  )

  mount(mounts, houseStylesApi.list, async ({ who }) => ({
    rows: await viewed(
      await read.find(tables.houseStyles, {
        where: { workspaceId: who.workspace.id },
        order: { name: 'asc', id: 'asc' },
      }),
    ),
  }))

  mount(mounts, houseStylesApi.uses, ({ params: { id } }) => styleUses(read, id))

  mount(mounts, houseStylesApi.create, async ({ body: { name, look, clientId }, who }) => {
    const workspaceId = who.workspace.id
    const id = await database.write(async (manager) => {
      if ((await manager.countBy(tables.houseStyles, { workspaceId })) >= HOUSE_STYLES_MAX)
        throw wrongField(
          'name',
          `There are ${String(HOUSE_STYLES_MAX)} house styles already. Delete one first.`,
        )
      await checkName(manager, workspaceId, name)
      await checkFiles(manager, workspaceId, look)
      const row = { workspaceId, clientId, name, version: 1, createdAt: Date.now() }
      return insertedId(await manager.insert(tables.houseStyles, { ...row, look: look as never }))
    })
    tell(workspaceId)
    return view(id)
  })

  mount(mounts, houseStylesApi.change, async ({ params: { id }, body: { version, ...set }, who }) => {
    const workspaceId = who.workspace.id
    await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.houseStyles, { id })
      if (row.version !== version) throw overtaken('house style', await view(id))
      if (set.name !== undefined) await checkName(manager, workspaceId, set.name, id)
      if (set.look) await checkFiles(manager, workspaceId, set.look)
      await manager.update(tables.houseStyles, { id }, { ...set, version: version + 1 })
    })
    tell(workspaceId)
    return view(id)
  })

  mount(mounts, houseStylesApi.remove, async ({ params: { id }, who }) => {
    await database.write(async (manager) => {
      const pieces = await manager.find(tables.codes, { where: { styleId: id }, take: 2 })
      const [first] = pieces
      if (first)
        throw new Refusal(
          'taken',
          `“${first.name}”${pieces.length > 1 ? ' and others are' : ' is'} printed in this house style. Choose another for ${pieces.length > 1 ? 'them' : 'it'} in the plan first.`,
        )
      const fixed = await manager.findOneBy(tables.staticCodes, { styleId: id })
      if (fixed)
        throw new Refusal(
          'taken',
          `The static code “${fixed.name}” is printed in this house style. Choose another for it first.`,
        )
      await manager.delete(tables.houseStyles, { id })
    })
    tell(who.workspace.id)
  })
}

/** @throws Refusal where another house style of the workspace is called the same: pieces choose them by name */
async function checkName(
  manager: EntityManager,
  workspaceId: number,
  name: string,
  except?: number,
): Promise<void> {
  const all = await manager.findBy(tables.houseStyles, { workspaceId })
  const same = all.find((each) => each.id !== except && each.name.toLowerCase() === name.toLowerCase())
  if (same || name.toLowerCase() === 'plain')
    throw wrongField(
      'name',
      `There is a house style “${same?.name ?? 'Plain'}” already. Choose another name.`,
    )
}

/** @throws Refusal where a file that a look needs was deleted a moment ago */
async function checkFiles(manager: EntityManager, workspaceId: number, look: Look): Promise<void> {
  const wanted = filesOf(look)
  const there = await findAmong(manager, tables.files, 'sum', wanted, { workspaceId })
  if (there.some(({ type }) => !isPictureType(type)))
    throw new Refusal('invalid', 'What a look draws with is a picture. Choose another file.')
  if (there.length < wanted.length)
    throw new Refusal('missing', 'A picture of this look was deleted meanwhile. Choose another.')
}
