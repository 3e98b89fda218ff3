import { LessThanOrEqual, type EntityManager } from 'typeorm'
import { number, quantity } from '@flimbo/core/formats'
import {
  judgeWatch,
  nextSummary,
  OF_NAMES,
  summaryPeriod,
  type Told,
  type WatchMemory,
  type Watched,
} from '@flimbo/core/watches'
import { tables, type Database, type WatchRow } from '../database/index.ts'
import { lookAgain } from '../jobs/index.ts'
import { queueMail } from '../mail/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { figuresOf } from './figures.ts'
import { thingOf, type WatchedThing } from './things.ts'

/** How often it is looked, and how long a watch rests in between: what compares weeks takes longer to work out. */
const LOOK_MS = 30_000
const REST_MS = 60_000
const SPIKE_REST_MS = 15 * 60_000
const AT_ONCE = 100

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly live: Pick<LiveHub, 'tell'>
}

/** Whether something is looked at again and again: leads are told of by the front door itself. */
export const restOf = ({ what }: Pick<WatchRow, 'what'>): number =>
  what === 'spike' ? SPIKE_REST_MS : REST_MS

/** Why somebody is told, as a sentence. */
function sentenceOf(watch: WatchRow, { name }: WatchedThing, { latest, total }: Watched, told: Told): string {
  const thing = `The ${OF_NAMES[watch.of]} “${name}”`
  switch (told?.kind) {
    case 'first':
      return `${thing} was scanned for the first time.`
    case 'count':
      return `${thing} passed ${quantity(watch.n ?? 0, 'scan')}: it has ${number(total)} by now.`
    case 'silent':
      return `${thing} is live, and was not scanned for ${quantity(watch.n ?? 0, 'day')}. Is it still there?`
    case 'spike':
      return `${thing} had ${quantity(latest, 'scan')} in 24 hours: ${number(Math.round(told.usual))} are usual.`
    case undefined:
      return ''
  }
}

/** Looks at what is watched and due, and tells who watches it: on the desk and by mail. */
export async function lookAtWatches({ database, reader, live }: Parts, now: number): Promise<void> {
  const { read } = database

  async function change(
    watch: WatchRow,
    set: Partial<WatchRow>,
    tell: (manager: EntityManager) => Promise<void>,
  ) {
    await database.write(async (manager) => {
      await manager.update(tables.watches, { id: watch.id }, set as never)
      await tell(manager)
    })
  }
  const mail = (watch: WatchRow, { campaign }: WatchedThing) => ({
    workspaceId: watch.workspaceId,
    campaignId: campaign.id,
    personId: watch.personId,
    watchId: watch.id,
    at: now,
  })

  async function sumUp(watch: WatchRow, thing: WatchedThing): Promise<void> {
    if (watch.every === 'once') return
    const { zone } = thing.campaign
    // Of what was due, however late it is looked: a day while the office was away is summed up too. Hours are not made up for.
    const due = watch.nextAt ?? now
    const payload = { ...summaryPeriod(watch.every, zone, due), every: watch.every }
    const memory: WatchMemory = { toldAt: now }
    const nextAt = nextSummary(watch.every, zone, watch.every === 'hour' ? now : due)
    const set = { nextAt, state: memory }
    await change(watch, set, async (manager) => {
      await queueMail(manager, { ...mail(watch, thing), kind: 'summary', payload })
    })
  }

  async function judge(watch: WatchRow, thing: WatchedThing): Promise<void> {
    const figures = await figuresOf(reader, watch, thing, now)
    // It was a memory when it was stored.
    const told = judgeWatch(watch.what, watch.n ?? 0, figures, watch.state as WatchMemory)
    // What is told once is not looked at again.
    const isOver = told !== null && (watch.what === 'first' || watch.what === 'count')
    const nextAt = isOver ? null : now + restOf(watch)
    if (!told) {
      await database.writeAside((manager) => manager.update(tables.watches, { id: watch.id }, { nextAt }))
      return
    }
    const sentence = sentenceOf(watch, thing, figures, told)
    const memory: WatchMemory = { toldAt: now }
    await change(watch, { nextAt, state: memory }, async (manager) => {
      await manager.insert(tables.notices, {
        workspaceId: watch.workspaceId,
        personId: watch.personId,
        watchId: watch.id,
        campaignId: thing.campaign.id,
        of: watch.of,
        refId: watch.refId,
        at: now,
        sentence,
        seenAt: null,
      })
      await queueMail(manager, { ...mail(watch, thing), kind: 'notice', payload: { sentence } })
    })
    live.tell(watch.workspaceId, { type: 'mails' })
  }

  const due = await read.find(tables.watches, {
    where: { nextAt: LessThanOrEqual(now) },
    order: { nextAt: 'ASC' },
    take: AT_ONCE,
  })
  for (const watch of due) {
    const thing = await thingOf(read, watch, now)
    if (!thing) await database.writeAside((manager) => manager.delete(tables.watches, { id: watch.id }))
    else if (watch.what === 'summary') await sumUp(watch, thing)
    else await judge(watch, thing)
  }
}

/** Looks again and again, for as long as the office runs. */
export const startWatching = (parts: Parts, failed: (error: unknown) => void) =>
  lookAgain(() => lookAtWatches(parts, Date.now()), failed, { everyMs: LOOK_MS })
