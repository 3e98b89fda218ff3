import { In, LessThanOrEqual } from 'typeorm'
import { pauseAfter } from '@flimbo/core/jobs'
import { tables, type Database, type OutboxRow } from '../database/index.ts'

/** How often it is looked whether something is to be done. */
const LOOK_MS = 1000
/** A look at millions of entries that wait for a collector takes a while: it rests so many times as long after. */
const REST_TIMES = 20
const BATCH = 100
const AT_ONCE = 4
/** After so many failures one upon the other, the rest of a batch is left for later. */
const FAILURES_MAX = 5
/** A whole queue rests no longer: one entry that will never succeed must not hold new ones up. */
const LONGEST_AWAY_MS = 60_000
/** What could not be done for so long is given up, and kept. */
export const GIVEN_UP_MS = 72 * 60 * 60_000

/** Carries out one entry. @returns an empty text where it is done, or else what went wrong, in words */
export type Deliver = (entry: OutboxRow, stopping: AbortSignal) => Promise<string>

/** How the entries of one kind are carried out: a queue of its own for each workspace and topic. */
export interface Delivery {
  readonly kind: string
  /** What carries out the entries of a queue; null where it rests, `gone` where there is nothing left to do them for. */
  open(workspaceId: number, topic: string): Promise<Deliver | 'gone' | null>
}

export interface Outbox {
  /** Forgets that a queue failed a moment ago. */
  tryNow(kind: string, workspaceId: number, topic: string): void
  stop(): Promise<void>
}

interface Failed {
  readonly id: number
  readonly attempts: number
  readonly at: number
  readonly fault: string
}

/**
 * Carries out what the front door stored with its scans. An entry leaves the outbox only once it is done, so one may
 * be done twice, and none is lost, whatever stops in between. A queue that fails holds no other up.
 */
export function startOutbox(database: Database, deliveries: readonly Delivery[]): Outbox {
  const { read } = database
  const busy = new Map<string, Promise<void>>()
  const away = new Map<string, { failures: number; until: number }>()
  const stopping = new AbortController()
  const keyOf = (kind: string, workspaceId: number, topic: string) =>
    `${kind}/${String(workspaceId)}/${topic}`

  async function look(): Promise<void> {
    const now = Date.now()
    const due = await read
      .createQueryBuilder(tables.outbox, 'o')
      .select('o.kind', 'kind')
      .addSelect('o.workspaceId', 'workspaceId')
      .addSelect('o.topic', 'topic')
      .where('o.nextAt <= :now', { now })
      .groupBy('o.kind')
      .addGroupBy('o.workspaceId')
      .addGroupBy('o.topic')
      .getRawMany<{ kind: string; workspaceId: number; topic: string }>()
    for (const { kind, workspaceId, topic } of due) {
      const key = keyOf(kind, workspaceId, topic)
      const delivery = deliveries.find((each) => each.kind === kind)
      if (!delivery || busy.has(key) || stopping.signal.aborted || (away.get(key)?.until ?? 0) > now) continue
      const working = empty(delivery, workspaceId, topic, key)
        .catch(() => undefined)
        .finally(() => {
          busy.delete(key)
        })
      busy.set(key, working)
    }
  }

  /** Works through a queue, until it is empty or fails. */
  async function empty(delivery: Delivery, workspaceId: number, topic: string, key: string): Promise<void> {
    const { kind } = delivery
    const deliver = await delivery.open(workspaceId, topic)
    if (deliver === null) return
    if (deliver === 'gone') {
      await database.writeAside((manager) => manager.delete(tables.outbox, { kind, workspaceId, topic }))
      return
    }
    for (;;) {
      const batch = await read.find(tables.outbox, {
        where: { kind, workspaceId, topic, nextAt: LessThanOrEqual(Date.now()) },
        order: { id: 'asc' },
        take: BATCH,
      })
      const { done, failed } = await deliverAll(deliver, batch)
      await settle(done, failed)
      if (done.length > 0) away.delete(key)
      else if (failed.length > 0) {
        const failures = (away.get(key)?.failures ?? 0) + 1
        away.set(key, { failures, until: Date.now() + Math.min(LONGEST_AWAY_MS, pauseAfter(failures)) })
      }
      if (batch.length < BATCH || done.length === 0 || stopping.signal.aborted) return
    }
  }

  async function deliverAll(
    deliver: Deliver,
    batch: readonly OutboxRow[],
  ): Promise<{ done: number[]; failed: Failed[] }> {
    const done: number[] = []
    const failed: Failed[] = []
    const left = [...batch]
    let failures = 0
    const mayGoOn = () => failures < FAILURES_MAX && !stopping.signal.aborted
    async function one(): Promise<void> {
      for (let entry = left.shift(); entry && mayGoOn(); entry = left.shift()) {
        const fault = await deliver(entry, stopping.signal)
        if (stopping.signal.aborted && fault !== '') return
        failures = fault === '' ? 0 : failures + 1
        if (fault === '') done.push(entry.id)
        else failed.push({ id: entry.id, attempts: entry.attempts + 1, at: entry.at, fault })
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, one))
    return { done, failed }
  }

  async function settle(done: readonly number[], failed: readonly Failed[]): Promise<void> {
    if (done.length + failed.length === 0) return
    const now = Date.now()
    await database.writeAside(async (manager) => {
      if (done.length > 0) await manager.delete(tables.outbox, { id: In([...done]) })
      for (const { id, attempts, at, fault } of failed) {
        const nextAt = now - at > GIVEN_UP_MS ? null : now + pauseAfter(attempts)
        await manager.update(tables.outbox, { id }, { attempts, fault, nextAt })
      }
    })
  }

  let restUntil = 0
  const timer = setInterval(() => {
    const began = performance.now()
    if (began < restUntil) return
    restUntil = Infinity
    look()
      // What fails one time, such as a full disk, is tried again at the next look.
      .catch(() => undefined)
      .finally(() => {
        restUntil = performance.now() + (performance.now() - began) * REST_TIMES
      })
  }, LOOK_MS)
  timer.unref()
  return {
    tryNow(kind, workspaceId, topic) {
      away.delete(keyOf(kind, workspaceId, topic))
    },
    async stop() {
      clearInterval(timer)
      stopping.abort()
      await Promise.all(busy.values())
    },
  }
}
