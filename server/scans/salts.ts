import { dayIn, daysBetween, shiftDay, startOfDay } from '@flimbo/core/time'
import { hash, randomBytes } from 'node:crypto'
import type Sqlite from 'better-sqlite3'
import { type ReadOnly } from '../database/index.ts'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import type { ScanWriter } from './writer.ts'

/** The salt of the current day of a workspace. */
export interface Today {
  readonly day: string
  readonly salt: string
  /** First moment of the next day in the workspace's zone. */
  readonly until: number
}

/** A day's salt, stored before the first scan that needs it. */
export interface SaltRow {
  readonly workspaceId: number
  readonly day: string
  readonly salt: string
}

/** Stores a day's salt unless there is one: whichever front door is first makes it for all. @returns the one that holds */
export function saltKeeper(database: Sqlite.Database): (salt: SaltRow) => SaltRow {
  const keep = database.prepare('INSERT OR IGNORE INTO salts (workspaceId, day, salt) VALUES (?, ?, ?)')
  const find = database.prepare('SELECT workspaceId, day, salt FROM salts WHERE workspaceId = ? AND day = ?')
  return ({ workspaceId, day, salt }) => {
    retryWhenLockedSync(() => keep.run(workspaceId, day, salt))
    return find.get(workspaceId, day) as SaltRow
  }
}

export interface DailySalts {
  /**
   * The day and salt of a workspace at a moment: at once, or, for the first scan of a day, once the salt is stored.
   * Days do not go backwards: where a clock is set back over midnight, the day that has begun goes on.
   */
  today(workspaceId: number, zone: string, at: number): Today | Promise<Today>
}

/** A clock that was further ahead than this was wrong; its day is not waited for. */
const AHEAD_DAYS = 1

/**
 * The salts of the current days. A new one is made when the day begins, and the old one is destroyed by the upkeep,
 * so that visitors cannot be told again from one day to the next. A restart within the day finds the salt.
 */
export function dailySalts(
  { prepared }: Pick<ReadOnly, 'prepared'>,
  writer: Pick<ScanWriter, 'keepSalt'>,
): DailySalts {
  const known = new Map<number, Today>()
  const beginning = new Map<number, Promise<Today>>()
  const newest = prepared
    .prepare('SELECT day FROM salts WHERE workspaceId = ? AND day >= ? ORDER BY day DESC LIMIT 1')
    .pluck()

  /** The day that is in use at a moment, which may be one that began before the clock was set back. */
  function dayOf(workspaceId: number, zone: string, at: number): string {
    const day = dayIn(zone, at)
    const stored = newest.get(workspaceId, day) as string | undefined
    return stored !== undefined && daysBetween(day, stored) - 1 <= AHEAD_DAYS ? stored : day
  }

  async function begin(workspaceId: number, zone: string, at: number): Promise<Today> {
    const day = dayOf(workspaceId, zone, at)
    const { salt } = await writer.keepSalt({ workspaceId, day, salt: randomBytes(32).toString('hex') })
    const today = { day, salt, until: startOfDay(zone, shiftDay(day, 1)) }
    known.set(workspaceId, today)
    return today
  }

  return {
    today(workspaceId, zone, at) {
      const today = known.get(workspaceId)
      if (today && at < today.until && at > today.until - (AHEAD_DAYS + 2) * 86_400_000) return today
      const under = beginning.get(workspaceId)
      if (under) return under
      const fresh = begin(workspaceId, zone, at).finally(() => {
        beginning.delete(workspaceId)
      })
      beginning.set(workspaceId, fresh)
      return fresh
    },
  }
}

/** A visitor of a day: 64 bits of a salted SHA-256 over network address and user agent, in hexadecimal. */
export function visitorHash(salt: string, address: string, userAgent: string): string {
  return hash('sha256', `${salt}\u0000${address}\u0000${userAgent}`).slice(0, 16)
}
