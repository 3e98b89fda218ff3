import { hash, randomBytes } from 'node:crypto'
import { dayIn, startOfDay, shiftDay } from '@flimbo/core/results'
import type { Database } from '../database/index.ts'
import type { ScanWriter } from './writer.ts'

interface Today {
  readonly day: string
  readonly salt: string
  /** First moment of the next day in the workspace's zone. */
  readonly until: number
}

/**
 * The salt of the current day of each workspace. A new one is made when the day begins and the old one
 * is destroyed, so that visitors cannot be told again from one day to the next. A restart within the
 * day finds the salt in the database.
 */
export function dailySalts(database: Database, writer: ScanWriter, onError: (error: unknown) => void) {
  const known = new Map<number, Today>()
  const find = database.prepared.prepare('SELECT salt FROM salts WHERE workspaceId = ? AND day = ?')

  function begin(workspaceId: number, zone: string, at: number): Today {
    const day = dayIn(zone, at)
    const stored = find.get(workspaceId, day) as { salt: string } | undefined
    const today: Today = { day, salt: stored?.salt ?? randomBytes(32).toString('hex'), until: startOfDay(zone, shiftDay(day, 1)) }
    if (!stored) writer.keepSalt({ workspaceId, day, salt: today.salt })
    writer.destroyDaysBefore(workspaceId, day).catch(onError)
    known.set(workspaceId, today)
    return today
  }

  return {
    /** The day and salt of a workspace at a moment. Moments do not go backwards. */
    today(workspaceId: number, zone: string, at: number): Today {
      const today = known.get(workspaceId)
      return today && at < today.until ? today : begin(workspaceId, zone, at)
    },
  }
}

/** A visitor of a day: 64 bits of a salted SHA-256 over network address and user agent, in hexadecimal. */
export function visitorHash(salt: string, address: string, userAgent: string): string {
  return hash('sha256', `${salt}\u0000${address}\u0000${userAgent}`).slice(0, 16)
}
