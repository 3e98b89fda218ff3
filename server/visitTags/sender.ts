import { In, LessThanOrEqual } from 'typeorm'
import type { VisitTag } from '@flimbo/core/visitTags'
import { tables, type Database, type HitRow } from '../database/index.ts'
import type { Reach } from '../reach/index.ts'
import { tagsOf } from './section.ts'
import { sendHit } from './send.ts'

/** How often it is looked whether something is to be sent. */
const LOOK_MS = 1000
const BATCH = 100
const AT_ONCE = 4
/** After so many failures one upon the other, the rest of a batch is left for later. */
const FAILURES_MAX = 5
const FIRST_PAUSE_MS = 5000
const LONGEST_PAUSE_MS = 60 * 60_000
/** A whole tag rests no longer: one hit that its collector will never take must not hold new ones up. */
const LONGEST_AWAY_MS = 60_000
/** A hit that could not be sent for so long is given up, and kept. */
export const GIVEN_UP_MS = 72 * 60 * 60_000

/** How long to wait after so many failures: five seconds, then twice as long each time, an hour at most. */
export function pauseAfter(attempts: number): number {
  return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (attempts - 1))
}

interface Parts {
  readonly database: Database
  readonly reach: Reach
}
interface Failed {
  readonly id: number
  readonly attempts: number
  readonly at: number
  readonly fault: string
}

export interface HitSender {
  /** Forgets that a collector failed a moment ago. */
  tryNow(workspaceId: number, tagId: string): void
  stop(): Promise<void>
}

/**
 * Sends what the front door stored with its scans. A hit leaves the queue only once the collector took it, so
 * one may arrive twice, which its `visit` tells, and none is lost, whatever stops in between. Each tag has a
 * queue of its own: a collector that is away holds nobody else up.
 */
export function startHitSender({ database, reach }: Parts): HitSender {
  const busy = new Map<string, Promise<void>>()
  const away = new Map<string, { failures: number; until: number }>()
  const stopping = new AbortController()
  const keyOf = (workspaceId: number, tagId: string) => `${String(workspaceId)}/${tagId}`

  async function look(): Promise<void> {
    const now = Date.now()
    const due = await database.read
      .createQueryBuilder(tables.hits, 'h')
      .select('h.workspaceId', 'workspaceId')
      .addSelect('h.tagId', 'tagId')
      .where('h.nextAt <= :now', { now })
      .groupBy('h.workspaceId')
      .addGroupBy('h.tagId')
      .getRawMany<{ workspaceId: number; tagId: string }>()
    for (const { workspaceId, tagId } of due) {
      const key = keyOf(workspaceId, tagId)
      if (busy.has(key) || stopping.signal.aborted || (away.get(key)?.until ?? 0) > now) continue
      busy.set(
        key,
        work(workspaceId, tagId, key)
          .catch(() => undefined)
          .finally(() => {
            busy.delete(key)
          }),
      )
    }
  }

  async function work(workspaceId: number, tagId: string, key: string): Promise<void> {
    const { tags } = await tagsOf(database.read, workspaceId)
    const tag = tags.find(({ id }) => id === tagId)
    if (!tag) {
      await database.writeAside((manager) => manager.delete(tables.hits, { workspaceId, tagId }))
      return
    }
    if (tag.resting) return
    for (;;) {
      const batch = await database.read.find(tables.hits, {
        where: { workspaceId, tagId, nextAt: LessThanOrEqual(Date.now()) },
        order: { id: 'asc' },
        take: BATCH,
      })
      const { done, failed } = await sendAll(tag, batch)
      await settle(done, failed)
      if (done.length > 0) away.delete(key)
      else if (failed.length > 0) {
        const failures = (away.get(key)?.failures ?? 0) + 1
        away.set(key, { failures, until: Date.now() + Math.min(LONGEST_AWAY_MS, pauseAfter(failures)) })
      }
      if (batch.length < BATCH || done.length === 0 || stopping.signal.aborted) return
    }
  }

  async function sendAll(
    tag: VisitTag,
    batch: readonly HitRow[],
  ): Promise<{ done: number[]; failed: Failed[] }> {
    const done: number[] = []
    const failed: Failed[] = []
    const left = [...batch]
    let failures = 0
    async function one(): Promise<void> {
      for (
        let hit = left.shift();
        hit && failures < FAILURES_MAX && !stopping.signal.aborted;
        hit = left.shift()
      ) {
        // Test scans are for rehearsing: no real collector hears of them.
        const isSent = !hit.isTest || reach.standIn(new URL(tag.address)) !== null
        const fault = isSent ? await sendHit(tag, hit.visit, reach, stopping.signal) : ''
        if (stopping.signal.aborted && fault !== '') return
        failures = fault === '' ? 0 : failures + 1
        if (fault === '') done.push(hit.id)
        else failed.push({ id: hit.id, attempts: hit.attempts + 1, at: hit.at, fault })
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, one))
    return { done, failed }
  }

  async function settle(done: readonly number[], failed: readonly Failed[]): Promise<void> {
    if (done.length + failed.length === 0) return
    const now = Date.now()
    await database.writeAside(async (manager) => {
      if (done.length > 0) await manager.delete(tables.hits, { id: In([...done]) })
      for (const { id, attempts, at, fault } of failed) {
        await manager.update(
          tables.hits,
          { id },
          { attempts, fault, nextAt: now - at > GIVEN_UP_MS ? null : now + pauseAfter(attempts) },
        )
      }
    })
  }

  // What fails one time, such as a full disk, is tried again at the next look.
  const timer = setInterval(() => {
    look().catch(() => undefined)
  }, LOOK_MS)
  timer.unref()
  return {
    tryNow(workspaceId, tagId) {
      away.delete(keyOf(workspaceId, tagId))
    },
    async stop() {
      clearInterval(timer)
      stopping.abort()
      await Promise.all(busy.values())
    },
  }
}
