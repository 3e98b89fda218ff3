import { dayForward } from '@flimbo/core/time'
import { IsNull, Not } from 'typeorm'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { mount, missing, overtaken, sortedPage, wrongField, type Mounts } from '../api/index.ts'
import { copyPlan, slugLengthOf } from '../codes/index.ts'
import { insertedId, tables, type CampaignRow, type Database } from '../database/index.ts'
import { checkDomain, domainFor } from '../domains/index.ts'
import { type Reader } from '../reader/index.ts'
import { tallyOf, type TallyAmong } from '../results/index.ts'
import { copyGoals } from '../goals/index.ts'
import { forgetCodes, type Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly doors: Doors
  readonly live: LiveHub
}

const RECENT_DAYS = 30

/** The endpoints of campaigns, as `core`’s contract describes them. */
export function campaignsEndpoints(mounts: Mounts, { database, reader, doors, live }: Parts): void {
  const { read } = database

  /** Rows with their counts, in the same order; `among` is what has to be summed for them. */
  async function withCounts(rows: readonly CampaignRow[], among: TallyAmong): Promise<Campaign[]> {
    const countOf = async (
      table: typeof tables.codes | typeof tables.routes | typeof tables.pages,
      which = '1',
    ) => {
      const counts = await read
        .createQueryBuilder()
        .select('t.campaignId', 'campaignId')
        .addSelect('count(*)', 'n')
        .from(table, 't')
        .where(which)
        .groupBy('t.campaignId')
        .getRawMany<{ campaignId: number; n: number }>()
      return new Map(counts.map(({ campaignId, n }) => [campaignId, n]))
    }
    const inUse = "t.state <> 'deleted'"
    const answers = async () => {
      const counts = await read
        .createQueryBuilder()
        .select('p.campaignId', 'campaignId')
        .addSelect('sum(f.answers)', 'n')
        .from(tables.formCounts, 'f')
        .innerJoin(tables.pages.options.name, 'p', 'p.id = f.pageId')
        .groupBy('p.campaignId')
        .getRawMany<{ campaignId: number; n: number }>()
      return new Map(counts.map(({ campaignId, n }) => [campaignId, n]))
    }
    const [codes, routes, pages, leads, tallies, recent] = await Promise.all([
      countOf(tables.codes, inUse),
      countOf(tables.routes, inUse),
      countOf(tables.pages),
      answers(),
      reader.ask('tallies', 'campaign', among),
      reader.ask(
        'recent',
        rows.map(({ id, zone }) => ({ id, zone })),
        RECENT_DAYS,
        Math.floor(Date.now() / 60_000),
      ),
    ])
    return rows.map((row) => ({
      ...row,
      codes: codes.get(row.id) ?? 0,
      routes: routes.get(row.id) ?? 0,
      pages: pages.get(row.id) ?? 0,
      leads: leads.get(row.id) ?? 0,
      scans: tallyOf(tallies, row.id),
      recent: recent.get(row.id) ?? [],
    }))
  }

  async function whole(id: number): Promise<Campaign> {
    const row = await read.findOneByOrFail(tables.campaigns, { id })
    const [campaign] = await withCounts([row], { campaign: id })
    if (!campaign) throw missing('campaign')
    return campaign
  }

  mount(mounts, campaignsApi.list, async ({ query, who }) => {
    const archived = { current: { archivedAt: IsNull() }, archived: { archivedAt: Not(IsNull()) }, all: {} }[
      query.shown
    ]
    const all = await withCounts(
      await read.findBy(tables.campaigns, { workspaceId: who.workspace.id, ...archived }),
      { workspace: who.workspace.id },
    )
    const value = {
      name: (c: Campaign) => c.name,
      createdAt: (c: Campaign) => c.createdAt,
      scans: (c: Campaign) => c.scans.scans,
      lastScan: (c: Campaign) => c.scans.lastAt,
    }
    // What somebody pinned stands first, whatever the order; sorting is stable.
    const ordered = sortedPage(
      all,
      { ...query, page: 0, pageSize: Math.max(1, all.length) },
      value[query.sort],
    ).sort((a, b) => Number(b.pinned) - Number(a.pinned))
    return {
      rows: ordered.slice(query.page * query.pageSize, (query.page + 1) * query.pageSize),
      total: all.length,
      page: query.page,
      pageSize: query.pageSize,
    }
  })

  // Before the one below, whose parameter would take the word.
  mount(mounts, campaignsApi.names, async ({ who }) => {
    const where = { workspaceId: who.workspace.id, archivedAt: IsNull() }
    return {
      rows: await read.find(tables.campaigns, {
        select: { id: true, name: true, clientId: true },
        where,
        order: { pinned: 'desc', name: 'asc', id: 'asc' },
      }),
    }
  })

  mount(mounts, campaignsApi.get, ({ params }) => whole(params.id))

  mount(mounts, campaignsApi.create, async ({ body: { clientId, ...body }, who }) => {
    const workspaceId = who.workspace.id
    const client = await read.findOneBy(
      tables.clients,
      clientId === undefined ? { workspaceId } : { id: clientId, workspaceId },
    )
    if (!client) throw wrongField('clientId', 'This client does not exist. Choose another.')
    if (body.domainId !== null) await checkDomain(read, workspaceId, body.domainId)
    const id = await database.write(async (manager) =>
      insertedId(
        await manager.insert(tables.campaigns, {
          ...body,
          workspaceId,
          clientId: client.id,
          version: 1,
          createdAt: Date.now(),
        }),
      ),
    )
    live.tell(workspaceId, { type: 'change', of: 'campaign', id })
    return whole(id)
  })

  mount(
    mounts,
    campaignsApi.change,
    async ({ params: { id }, body: { version, archived, ...change }, who }) => {
      const workspaceId = who.workspace.id
      if (change.domainId) await checkDomain(read, workspaceId, change.domainId)
      const stored = await database.write(async (manager) => {
        const row = await manager.findOneByOrFail(tables.campaigns, { id })
        if (row.version !== version) return { overtaken: true }
        const { startsOn, endsOn } = { ...row, ...change }
        if (startsOn && endsOn && startsOn > endsOn)
          throw wrongField('endsOn', 'The last day lies before the first.')
        const archivedAt = (archived ?? row.archivedAt !== null) ? (row.archivedAt ?? Date.now()) : null
        await manager.update(tables.campaigns, { id }, { ...change, archivedAt, version: version + 1 })
        return { overtaken: false }
      })
      if (stored.overtaken) throw overtaken('campaign', await whole(id))
      // Its codes carry the campaign value in their addresses.
      await forgetCodes(
        database,
        doors,
        (await read.find(tables.codes, { select: { id: true }, where: { campaignId: id } })).map(
          (code) => code.id,
        ),
      )
      live.tell(workspaceId, { type: 'change', of: 'campaign', id })
      return whole(id)
    },
  )

  mount(mounts, campaignsApi.copy, async ({ params, body: { pieceDays, ...given }, who, campaign }) => {
    const workspaceId = who.workspace.id
    const {
      id: _id,
      version: _version,
      createdAt: _created,
      archivedAt: _archived,
      pinned: _pinned,
      ...from
    } = campaign
    const slugLength = await slugLengthOf(database, workspaceId)
    const at = Date.now()
    const id = await database.writeInTurns(async (manager, turns) => {
      await turns.begin()
      const copy = insertedId(
        await manager.insert(tables.campaigns, {
          ...from,
          ...given,
          pinned: false,
          archivedAt: null,
          version: 1,
          createdAt: at,
        }),
      )
      const day = (was: string) => (pieceDays === 'clear' ? null : dayForward(was))
      await copyPlan(
        manager,
        params.id,
        copy,
        { domainId: await domainFor(manager, from), day },
        { personId: who.person.id, at },
        slugLength,
        { turns },
      )
      await copyGoals(manager, params.id, copy, at)
      return copy
    })
    // Somebody may have tried one of the new short links before it was issued.
    await doors.forget({ what: 'all' })
    live.tell(workspaceId, { type: 'change', of: 'campaign', id })
    return whole(id)
  })
}
