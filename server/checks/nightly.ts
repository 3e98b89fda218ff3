import { dayIn } from '@flimbo/core/time'
import { tables, type Database } from '../database/index.ts'
import type { DestinationChecker } from './checker.ts'

const LOOK_MS = 5 * 60_000

function hourIn(zone: string, at: number): number {
  return Number(
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' }).format(at),
  )
}

/** Which of some workspaces are due for their nightly check: the hour has come in their zone, and they had none that day. */
export function dueWorkspaces(
  workspaces: readonly { id: number; zone: string }[],
  hour: number,
  lastDays: ReadonlyMap<number, string>,
  now: number,
): number[] {
  return workspaces
    .filter(({ id, zone }) => hourIn(zone, now) === hour && lastDays.get(id) !== dayIn(zone, now))
    .map(({ id }) => id)
}

/** Checks every destination once a night. @returns a function that stops it */
export function checkNightly(
  database: Database,
  checker: DestinationChecker,
  hour: number | null,
): () => void {
  if (hour === null) return () => undefined
  const lastDays = new Map<number, string>()
  const look = async () => {
    const workspaces = await database.read.find(tables.workspaces)
    for (const id of dueWorkspaces(workspaces, hour, lastDays, Date.now())) {
      lastDays.set(id, dayIn(workspaces.find((each) => each.id === id)?.zone ?? 'UTC', Date.now()))
      await checker.begin(id, null, null)
      await checker.tidy()
    }
  }
  // What fails one time is tried again at the next look.
  const timer = setInterval(() => {
    look().catch(() => undefined)
  }, LOOK_MS)
  timer.unref()
  return () => {
    clearInterval(timer)
  }
}
