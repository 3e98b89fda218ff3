import { randomBytes } from 'node:crypto'
import { Not, type EntityManager } from 'typeorm'
import { domainsApi, judgeRecords, wantedRecords, type Domain } from '@flimbo/core/domains'
import { missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, tables, type Database, type DomainRow } from '../database/index.ts'
import type { Addresses, Doors } from '../line/index.ts'
import { checkDestination } from '../routing/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { StandIns } from '../standins/index.ts'
import { OWN_DOMAIN, type Domains } from './directory.ts'
import type { FindRecords } from './resolver.ts'

interface Parts {
  readonly database: Database
  readonly domains: Domains
  readonly doors: Doors
  readonly live: LiveHub
  readonly addresses: Addresses
  readonly findRecords: FindRecords
  readonly standIns: StandIns | null
}

/** So many released pieces are named. */
const NAMED_MAX = 5

/** The endpoints of domains, as `core`’s contract describes them. */
export function domainsEndpoints(
  mounts: Mounts,
  { database, domains, doors, live, addresses, findRecords, standIns }: Parts,
): void {
  const target = () => new URL(addresses.door).hostname
  const recordsOf = (row: DomainRow) => wantedRecords(row.host, target(), row.token)

  async function viewsOf(
    workspaceId: number,
    rows: readonly DomainRow[],
    manager: EntityManager = database.read,
  ): Promise<Domain[]> {
    const workspace = await manager.findOneByOrFail(tables.workspaces, { id: workspaceId })
    return Promise.all(
      rows.map(async (row) => ({
        id: row.id,
        host: row.id === OWN_DOMAIN ? new URL(addresses.door).host : row.host,
        origin: domains.origin(row.id),
        own: row.id === OWN_DOMAIN,
        state: row.state,
        isDefault: workspace.domainId === row.id,
        home: row.home,
        unknown: row.unknown,
        unknownText: row.unknownText,
        records: row.id === OWN_DOMAIN ? null : recordsOf(row),
        checkedAt: row.checkedAt,
        finding: row.finding,
        version: row.version,
        links: await linksOn(manager, workspaceId, row.id),
        released: await releasedOn(manager, workspaceId, row.id),
      })),
    )
  }

  /** Short links of the workspace's codes on a domain, old ones of renamed codes among them. */
  function linksOn(manager: EntityManager, workspaceId: number, domainId: number): Promise<number> {
    return manager
      .createQueryBuilder()
      .select('l.slug')
      .from(tables.shortLinks, 'l')
      .innerJoin(tables.codes.options.name, 'c', 'c.id = l.codeId')
      .innerJoin(tables.campaigns.options.name, 'k', 'k.id = c.campaignId')
      .where('l.domainId = :domainId AND k.workspaceId = :workspaceId', { domainId, workspaceId })
      .getCount()
  }

  /** Pieces that were released for print with short links on a domain, by the names they were released under. */
  async function releasedOn(
    manager: EntityManager,
    workspaceId: number,
    domainId: number,
  ): Promise<Domain['released']> {
    const printed = manager
      .createQueryBuilder(tables.releases, 'r')
      .where('r.workspaceId = :workspaceId AND r.domainId = :domainId', { workspaceId, domainId })
    const { total } = (await printed
      .clone()
      .select('count(DISTINCT r.codeId)', 'total')
      .getRawOne<{ total: number }>()) ?? { total: 0 }
    const first = await printed
      .clone()
      .select('max(r.name)', 'name')
      .groupBy('r.codeId')
      .orderBy('r.codeId')
      .limit(NAMED_MAX)
      .getRawMany<{ name: string }>()
    return { total, names: first.map(({ name }) => name) }
  }

  async function domainOf(
    workspaceId: number,
    id: number,
    manager: EntityManager = database.read,
  ): Promise<DomainRow> {
    const row = await manager.findOneBy(tables.domains, { id })
    if (!row || row.state === 'removed' || (row.id !== OWN_DOMAIN && row.workspaceId !== workspaceId))
      throw missing('domain')
    return row
  }

  async function whole(workspaceId: number, id: number): Promise<Domain> {
    const [view] = await viewsOf(workspaceId, [await domainOf(workspaceId, id)])
    if (!view) throw missing('domain')
    return view
  }

  async function announceChange(workspaceId: number, id: number): Promise<void> {
    await domains.refresh()
    await doors.forget({ what: 'domains' })
    live.tell(workspaceId, { type: 'change', of: 'campaign', id })
  }

  /** Whether the record that proves a domain still stands; where no name server answers, it does. */
  async function provenBy(row: DomainRow): Promise<boolean> {
    const wanted = recordsOf(row)
    const { txt } = await findRecords(wanted)
    return txt === null || txt.some((value) => value.trim() === wanted.txt.value)
  }

  /** Whether a workspace is the one that set this installation up: what the front door itself answers is its. */
  async function ownsInstallation(workspaceId: number): Promise<boolean> {
    const [first] = await database.read.find(tables.workspaces, {
      select: { id: true },
      order: { id: 'asc' },
      take: 1,
    })
    return first?.id === workspaceId
  }

  mount(mounts, domainsApi.list, async ({ who }) => {
    const workspaceId = who.workspace.id
    const rows = await database.read.find(tables.domains, { order: { id: 'asc' } })
    return {
      rows: await viewsOf(
        workspaceId,
        rows.filter(
          (row) => row.state !== 'removed' && (row.id === OWN_DOMAIN || row.workspaceId === workspaceId),
        ),
      ),
    }
  })

  mount(mounts, domainsApi.create, async ({ body: { host }, who }) => {
    const workspaceId = who.workspace.id
    if (host === target())
      throw wrongField('host', 'This is the front door’s own address; short links can be on it already.')
    const id = await database.write(async (manager) => {
      // Others may have named the same host: it is held by whoever proves it.
      const there = await manager.findOneBy(tables.domains, { host, workspaceId })
      if (there && there.state !== 'removed') throw wrongField('host', 'This domain is in the list already.')
      const fresh = {
        workspaceId,
        state: 'waiting' as const,
        token: randomBytes(12).toString('hex'),
        home: '',
        unknown: '',
        unknownText: '',
        checkedAt: null,
        finding: '',
      }
      // A removed domain that comes back is the same one: its short links live again, once it is proven again.
      if (there) {
        await manager.update(tables.domains, { id: there.id }, { ...fresh, version: there.version + 1 })
        return there.id
      }
      return insertedId(
        await manager.insert(tables.domains, { ...fresh, host, version: 1, createdAt: Date.now() }),
      )
    })
    await announceChange(workspaceId, id)
    return whole(workspaceId, id)
  })

  mount(mounts, domainsApi.check, async ({ params: { id }, who }) => {
    const workspaceId = who.workspace.id
    const row = await domainOf(workspaceId, id)
    if (id === OWN_DOMAIN) return whole(workspaceId, id)
    const wanted = recordsOf(row)
    const { ready, sentence } = judgeRecords(wanted, await findRecords(wanted))
    const holder = ready
      ? await database.read.findOneBy(tables.domains, { host: row.host, state: 'ready', id: Not(id) })
      : null
    // Whoever keeps the domain's DNS decides: a holder whose proof is gone from it has lost the domain.
    const stillProven = holder !== null && (await provenBy(holder))
    const finding = stillProven
      ? 'Another workspace has proven this domain and its record still stands. Take its TXT record away first.'
      : sentence
    await database.write(async (manager) => {
      if (holder && !stillProven)
        await manager.update(
          tables.domains,
          { id: holder.id },
          {
            state: 'waiting',
            finding: 'Another workspace has proven this domain since; your record is gone.',
            version: holder.version + 1,
          },
        )
      // A domain that worked once goes on working: its print is out there, and a name server may be down.
      await manager.update(
        tables.domains,
        { id },
        { checkedAt: Date.now(), finding, ...(ready && !stillProven ? { state: 'ready' as const } : {}) },
      )
    })
    await announceChange(workspaceId, id)
    return whole(workspaceId, id)
  })

  mount(mounts, domainsApi.standIn, async ({ params: { id }, who }) => {
    const row = await domainOf(who.workspace.id, id)
    if (!standIns || id === OWN_DOMAIN)
      throw new Refusal(
        'forbidden',
        'The DNS stand-in is not running here. Set the records at whoever keeps this domain’s DNS.',
      )
    const { cname, txt } = recordsOf(row)
    await standIns.setRecords({ cname: { [cname.name]: cname.value }, txt: { [txt.name]: [txt.value] } })
    return whole(who.workspace.id, id)
  })

  mount(
    mounts,
    domainsApi.change,
    async ({ params: { id }, body: { version, isDefault, ...change }, who }) => {
      const workspaceId = who.workspace.id
      const isShared = id === OWN_DOMAIN && Object.values(change).some((value) => value !== undefined)
      if (isShared && !(await ownsInstallation(workspaceId)))
        throw new Refusal(
          'forbidden',
          'What the front door itself answers belongs to the workspace that set this Flimbo up. Add a domain of your own.',
        )
      for (const field of ['home', 'unknown'] as const)
        if (change[field]) checkDestination(change[field], domains, field)
      const outcome = await database.write(async (manager) => {
        const row = await domainOf(workspaceId, id, manager)
        if (row.version !== version) return 'overtaken'
        if (isDefault) {
          if (row.state !== 'ready')
            throw wrongField('isDefault', 'This domain is not ready: set its records and check them first.')
          await manager.update(tables.workspaces, { id: workspaceId }, { domainId: id })
        }
        if (id !== OWN_DOMAIN || isShared)
          await manager.update(tables.domains, { id }, { ...change, version: version + 1 })
        return 'changed'
      })
      if (outcome === 'overtaken') throw overtaken('domain', await whole(workspaceId, id))
      await announceChange(workspaceId, id)
      return whole(workspaceId, id)
    },
  )

  mount(mounts, domainsApi.remove, async ({ params: { id }, query: { links }, who }) => {
    const workspaceId = who.workspace.id
    if (id === OWN_DOMAIN)
      throw new Refusal(
        'forbidden',
        'The front door’s own address cannot be removed; the configuration names it.',
      )
    await database.write(async (manager) => {
      await domainOf(workspaceId, id, manager)
      const dying = await linksOn(manager, workspaceId, id)
      if (dying !== links)
        throw wrongField(
          'links',
          `${String(dying)} short links die with this domain. Confirm that number to remove it.`,
        )
      await manager.update(tables.domains, { id }, { state: 'removed' })
      await manager.update(tables.workspaces, { id: workspaceId, domainId: id }, { domainId: OWN_DOMAIN })
      await manager.update(tables.clients, { workspaceId, domainId: id }, { domainId: null })
      await manager.update(tables.campaigns, { workspaceId, domainId: id }, { domainId: null })
    })
    await announceChange(workspaceId, id)
    return undefined
  })
}
