import { Like, type FindOptionsWhere } from 'typeorm'
import { writeContent } from '@flimbo/core/contents'
import { STATIC_CODES_MAX, staticCodesApi, type StaticCode } from '@flimbo/core/staticCodes'
import { bounds, missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, tables, type Database, type StaticCodeRow } from '../database/index.ts'
import { staticPrintStatesOf } from '../print/index.ts'
import type { LiveHub } from '../scans/index.ts'

interface Parts {
  readonly database: Database
  readonly live: LiveHub
}

/** The endpoints of static codes, as `core`’s contract describes them. */
export function staticCodesEndpoints(mounts: Mounts, { database, live }: Parts): void {
  const { read } = database

  async function viewed(rows: readonly StaticCodeRow[]): Promise<StaticCode[]> {
    const printOf = await staticPrintStatesOf(read, rows)
    return rows.map((row) => {
      const { proofKey: _key, proof: _proof, ...shown } = row
      return { ...shown, text: writeContent(row.content), ...printOf(row) }
    })
  }
  async function view(id: number): Promise<StaticCode> {
    const [code] = await viewed(await read.findBy(tables.staticCodes, { id }))
    if (!code) throw missing('static code')
    return code
  }
  const tell = (workspaceId: number, campaignId: number) => {
    live.tell(workspaceId, { type: 'change', of: 'campaign', id: campaignId })
  }

  mount(mounts, staticCodesApi.list, async ({ query }) => {
    const { campaignId, search = '', sort, order, page, pageSize } = query
    const where: FindOptionsWhere<StaticCodeRow> = {
      campaignId,
      ...(search.trim() === '' ? {} : { name: Like(`%${search.trim().replace(/[%_]/g, '_')}%`) }),
    }
    const [rows, total] = await read.findAndCount(tables.staticCodes, {
      where,
      order: { [sort]: order, id: order },
      ...bounds(query),
    })
    return { rows: await viewed(rows), total, page, pageSize }
  })

  mount(mounts, staticCodesApi.get, ({ params: { id } }) => view(id))

  mount(mounts, staticCodesApi.create, async ({ body, who }) => {
    const id = await database.write(async (manager) => {
      if ((await manager.countBy(tables.staticCodes, { campaignId: body.campaignId })) >= STATIC_CODES_MAX)
        throw wrongField(
          'name',
          `There are ${String(STATIC_CODES_MAX)} static codes already. Delete one first.`,
        )
      // TypeORM wants to know the parts of values it only writes as JSON.
      const row = { ...body, proofKey: '', proof: null, version: 1, createdAt: Date.now() } as never
      return insertedId(await manager.insert(tables.staticCodes, row))
    })
    tell(who.workspace.id, body.campaignId)
    return view(id)
  })

  mount(
    mounts,
    staticCodesApi.change,
    async ({ params: { id }, body: { version, ...set }, who, campaign }) => {
      await database.write(async (manager) => {
        const row = await manager.findOneByOrFail(tables.staticCodes, { id })
        if (row.version !== version) throw overtaken('static code', await view(id))
        await manager.update(tables.staticCodes, { id }, { ...set, version: version + 1 })
      })
      tell(who.workspace.id, campaign.id)
      return view(id)
    },
  )

  mount(mounts, staticCodesApi.remove, async ({ params: { id }, who, campaign }) => {
    await database.write(async (manager) => {
      if (await manager.existsBy(tables.releases, { staticCodeId: id }))
        throw new Refusal(
          'taken',
          'This static code was released for print: it is kept, so that a reprint is the same.',
        )
      await manager.delete(tables.staticCodes, { id })
    })
    tell(who.workspace.id, campaign.id)
  })
}
