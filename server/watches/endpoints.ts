import { In, IsNull } from 'typeorm'
import {
  nextSummary,
  watchesApi,
  type NewWatch,
  type Watch,
  type WatchMemory,
  type WatchOf,
} from '@flimbo/core/watches'
import { missing, mount, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, tables, type Database, type WatchRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { figuresOf } from './figures.ts'
import { restOf } from './look.ts'
import { thingOf, type WatchedThing } from './things.ts'

/** Nobody reads what more watches tell. */
const WATCHES_MAX = 100
const NOTICES_MAX = 50

interface Refs {
  readonly campaignId?: number | undefined
  readonly routeId?: number | undefined
  readonly codeId?: number | undefined
}
function refOf({ campaignId, routeId, codeId }: Refs): { of: WatchOf; refId: number } | null {
  if (codeId !== undefined) return { of: 'code', refId: codeId }
  if (routeId !== undefined) return { of: 'route', refId: routeId }
  return campaignId === undefined ? null : { of: 'campaign', refId: campaignId }
}

/** The endpoints of watches, as `core`’s contract describes them. */
export function watchesEndpoints(
  mounts: Mounts,
  { database, reader }: { database: Database; reader: Reader },
): void {
  const { read } = database

  async function shown(row: WatchRow): Promise<Watch | null> {
    const thing = await thingOf(read, row, Date.now())
    if (!thing) return null
    const { id, of, refId, what, every, n, state } = row
    // It was a memory when it was stored.
    const { toldAt = null } = state as Partial<WatchMemory>
    return { id, of, refId, what, every, n, toldAt, name: thing.name, campaignId: thing.campaign.id }
  }

  mount(mounts, watchesApi.list, async ({ query, who }) => {
    const rows = await read.find(tables.watches, {
      where: { personId: who.person.id, ...refOf(query) },
      order: { id: 'ASC' },
    })
    const all = await Promise.all(rows.map(shown))
    return { rows: all.filter((each) => each !== null) }
  })

  /** When something is looked at first. @throws Refusal where it has happened already */
  async function firstLook(body: NewWatch, row: WatchRow, thing: WatchedThing, now: number) {
    if (body.what === 'leads' || body.what === 'unusual') return null
    if (body.every !== 'once') return nextSummary(body.every, thing.campaign.zone, now)
    if (body.what !== 'spike') {
      const { total } = await figuresOf(reader, row, thing, now)
      if (body.what === 'first' && total > 0)
        throw wrongField('what', 'It was scanned already. Watch for a number of scans instead.')
      if (body.what === 'count' && total >= (body.n ?? 0))
        throw wrongField('n', `It has ${total.toLocaleString('en-GB')} scans already. Give a larger number.`)
    }
    return now + restOf(row)
  }

  mount(mounts, watchesApi.add, async ({ body, who }) => {
    const now = Date.now()
    const ref = refOf(body)
    const thing = ref && (await thingOf(read, ref, now))
    if (!ref || !thing) throw missing('campaign, route or piece')
    const { what, every, n } = body
    const mine = { personId: who.person.id }
    const memory: WatchMemory = { toldAt: null }
    const row = {
      ...ref,
      ...mine,
      workspaceId: who.workspace.id,
      what,
      every,
      n,
      state: memory,
      nextAt: null,
      createdAt: now,
    }
    const nextAt = await firstLook(body, { ...row, id: 0 }, thing, now)
    const id = await database.write(async (manager) => {
      const same = await manager.findOneBy(tables.watches, { ...mine, ...ref, what, every, n: n ?? IsNull() })
      if (same) return same.id
      if ((await manager.countBy(tables.watches, mine)) >= WATCHES_MAX)
        throw new Refusal('taken', `You watch ${String(WATCHES_MAX)} things already. Remove some first.`)
      return insertedId(await manager.insert(tables.watches, { ...row, nextAt }))
    })
    return { id, ...ref, what, every, n, toldAt: null, name: thing.name, campaignId: thing.campaign.id }
  })

  mount(mounts, watchesApi.remove, async ({ params: { id }, who }) => {
    const { affected } = await database.write((manager) =>
      manager.delete(tables.watches, { id, personId: who.person.id }),
    )
    if (affected !== 1) throw missing('watch')
  })

  mount(mounts, watchesApi.notices, async ({ who }) => {
    const rows = await read.find(tables.notices, {
      where: { personId: who.person.id, seenAt: IsNull() },
      order: { id: 'DESC' },
      take: NOTICES_MAX,
    })
    return {
      rows: rows.map(({ id, at, sentence, campaignId, of, refId }) => ({
        id,
        at,
        sentence,
        campaignId,
        of,
        refId,
      })),
    }
  })

  mount(mounts, watchesApi.seen, async ({ body: { ids }, who }) => {
    await database.write((manager) =>
      manager.update(tables.notices, { id: In(ids), personId: who.person.id }, { seenAt: Date.now() }),
    )
  })
}
