import { In, Not } from 'typeorm'
import { readUrl } from '@flimbo/core/api'
import { HIT, isHitOf, visitTagsApi, type QueueRow, type VisitTagSettings } from '@flimbo/core/visitTags'
import { fewNamed, mount, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'
import type { Outbox } from '../jobs/index.ts'
import type { Doors } from '../line/index.ts'
import { destinationFault } from '../routing/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { standInTarget, type StandIns } from '../standins/index.ts'
import { readSetting, writeSetting } from '../workspace/index.ts'
import { VISIT_TAGS } from './section.ts'

interface Parts {
  readonly database: Database
  readonly doors: Doors
  readonly live: LiveHub
  readonly outbox: Outbox
  readonly domains: { origins(): readonly string[] }
  readonly standIns: StandIns | null
}

/** The endpoints of visit tags, as `core`’s contract describes them. */
export function visitTagsEndpoints(
  mounts: Mounts,
  { database, doors, live, outbox, domains, standIns }: Parts,
): void {
  const { read } = database

  /** Refuses to take tags away that routes still fire. */
  async function checkUnused(workspaceId: number, { tags }: VisitTagSettings): Promise<void> {
    const { value: stored } = await readSetting(read, workspaceId, VISIT_TAGS)
    const gone = stored.tags.filter(({ id }) => !tags.some((tag) => tag.id === id))
    if (gone.length === 0) return
    const campaigns = (
      await read.find(tables.campaigns, { select: { id: true }, where: { workspaceId } })
    ).map(({ id }) => id)
    const routes = await read.find(tables.routes, {
      where: { campaignId: In(campaigns), state: Not('deleted') },
    })
    for (const { id, name } of gone) {
      const using = routes.filter(
        ({ rules, draft }) => rules.tags.includes(id) || draft?.rules.tags.includes(id) === true,
      )
      if (using.length > 0)
        throw new Refusal(
          'taken',
          `The tag “${name}” is used by ${fewNamed(
            using.map((route) => route.name),
            ' routes',
          )}. Remove it there first, or turn it off.`,
        )
    }
  }

  mount(mounts, visitTagsApi.settings, ({ who }) => readSetting(read, who.workspace.id, VISIT_TAGS))

  mount(mounts, visitTagsApi.change, async ({ body, who }) => {
    for (const [i, { address, name }] of body.value.tags.entries()) {
      const fault = destinationFault(address, domains)
      if (fault !== null) throw wrongField(`value.tags.${String(i)}.address`, `${name}: ${fault}`)
    }
    await checkUnused(who.workspace.id, body.value)
    const stored = await writeSetting(database, who.workspace.id, VISIT_TAGS, body)
    await doors.forget({ what: 'all' })
    live.tell(who.workspace.id, { type: 'change', of: 'route', id: 0 })
    return stored
  })

  mount(mounts, visitTagsApi.queue, async ({ who }) => {
    const mine = { kind: HIT, workspaceId: who.workspace.id }
    const queues = await read
      .createQueryBuilder(tables.outbox, 'h')
      .select('h.topic', 'tagId')
      .addSelect('count(h.nextAt)', 'waiting')
      .addSelect('count(*) - count(h.nextAt)', 'givenUp')
      .addSelect('min(h.at)', 'oldestAt')
      .addSelect('min(h.nextAt)', 'nextAt')
      .where(mine)
      .groupBy('h.topic')
      .getRawMany<Omit<QueueRow, 'fault'>>()
    const rows = queues.map(async (queue): Promise<QueueRow> => {
      const [worst] = await read.find(tables.outbox, {
        select: { fault: true },
        where: { ...mine, topic: queue.tagId },
        order: { attempts: 'desc', id: 'asc' },
        take: 1,
      })
      return { ...queue, fault: worst?.fault ?? '' }
    })
    return { rows: await Promise.all(rows) }
  })

  mount(mounts, visitTagsApi.sendAgain, async ({ params: { tag }, who }) => {
    outbox.tryNow(HIT, who.workspace.id, tag)
    await database.writeAside((manager) =>
      manager.update(
        tables.outbox,
        { kind: HIT, workspaceId: who.workspace.id, topic: tag },
        { nextAt: Date.now() },
      ),
    )
  })

  mount(mounts, visitTagsApi.drop, async ({ params: { tag }, who }) => {
    await database.writeAside((manager) =>
      manager.delete(tables.outbox, { kind: HIT, workspaceId: who.workspace.id, topic: tag }),
    )
  })

  mount(mounts, visitTagsApi.received, async ({ who }) => {
    if (!standIns) return { rows: [] }
    const {
      value: { tags },
    } = await readSetting(read, who.workspace.id, VISIT_TAGS)
    // The stand-in may be addressed by itself, the site it stands in for being the first part of the path.
    const meant = tags.map((tag) => {
      const address = readUrl(tag.address)
      return { ...tag, address: address ? standInTarget(address).href : tag.address }
    })
    return { rows: (await standIns.received()).filter((hit) => meant.some((tag) => isHitOf(tag, hit))) }
  })
}
