import { setTimeout } from 'node:timers/promises'
import type { EntityManager } from 'typeorm'
import { retryWhenLocked } from '../sqlite/index.ts'
import { queue } from '../threads/index.ts'
import {
  clearEntries,
  findUnfinished,
  markComplete,
  startNoting,
  stopNoting,
  undoEntries,
  type LeftOver,
} from './undo.ts'

/**
 * How long a large write holds the lock, how long it then leaves it to scans, which look for it every half a
 * millisecond, and how many entries of its log it handles in one turn.
 */
interface Pace {
  readonly turnMs: number
  readonly gapMs: number
  readonly entries: number
}
const BESIDE_SCANS: Pace = { turnMs: 1, gapMs: 4, entries: 50 }
/** Where nobody else has written for so long: most large writes have the night to themselves. */
const ALONE_MS = 200
const ALONE: Pace = { turnMs: 8, gapMs: 1, entries: 150 }

/**
 * The turns of a large write. Between two of them scans are stored; no other writing of the office comes between,
 * but what `writeAside` does.
 */
export interface Turns {
  /** Begins a turn, where none is under way: before the first change. */
  begin(): Promise<void>
  /** Ends a turn that has taken its time, and begins the next: called after each handful of rows. */
  pause(): Promise<void>
  /** Ends the turn, so that nobody waits while something is worked out. */
  rest(): Promise<void>
}

/** For what is small enough for one transaction. */
export const ONE_TURN: Turns = {
  begin: () => Promise.resolve(),
  pause: () => Promise.resolve(),
  rest: () => Promise.resolve(),
}

export interface Writing {
  /** Runs `work` in one transaction: all of it is stored, or nothing where it throws. Writings take turns. */
  write<T>(work: (manager: EntityManager) => Promise<T>): Promise<T>
  /** The same, after a look that takes its time: nobody else of the office writes in between, and no scan waits for it. */
  writeAfter<L, T>(look: () => Promise<L>, work: (manager: EntityManager, found: L) => Promise<T>): Promise<T>
  /**
   * The same for what may concern thousands of rows, in many short transactions: all of it is stored, or, where
   * `work` throws or the process ends before, all of it is taken back. No transaction is open when `work` begins.
   * What `last` writes, of tables that no large write changes, is stored with the moment from which on all of it is.
   */
  writeInTurns<T>(
    work: (manager: EntityManager, turns: Turns) => Promise<T>,
    last?: (manager: EntityManager, result: T) => Promise<unknown>,
  ): Promise<T>
  /** A transaction that may come between the turns of a large write: for tables that no large write changes. */
  writeAside<T>(work: (manager: EntityManager) => Promise<T>): Promise<T>
  /** Called after a large write was taken back: some of it may have been seen meanwhile. */
  onTakenBack(listener: () => void): void
}

/** Writing on one connection. What an earlier process left half done is taken back before anything else. */
export async function startWriting(manager: EntityManager): Promise<Writing & { finish(): Promise<void> }> {
  /** Who may change the office's tables, and who has the connection. */
  const office = queue()
  const connection = queue()
  const listeners: (() => void)[] = []
  /** What a large write has left in the log that could not be put in order yet. */
  let left: LeftOver = 'nothing'
  // Waiting is done by `whenFree`, off this thread.
  await manager.query('PRAGMA busy_timeout = 0')

  /** A part of a large write need not be durable by itself: what is lost of it is lost from its end. */
  async function begin(durable: boolean): Promise<void> {
    await manager.query(`PRAGMA synchronous = ${durable ? 'FULL' : 'NORMAL'}`)
    // TypeORM begins deferred transactions; those could fail half way for want of the write lock.
    await retryWhenLocked(() => manager.query('BEGIN IMMEDIATE'))
  }
  // A full disk rolls a transaction back by itself; there is then nothing left to roll back.
  const rollBack = () => manager.query('ROLLBACK').catch(() => undefined)

  const transaction = <T>(work: (manager: EntityManager) => Promise<T>, durable = true): Promise<T> =>
    connection.run(async () => {
      await begin(durable)
      try {
        const result = await work(manager)
        await manager.query('COMMIT')
        return result
      } catch (error) {
        await rollBack()
        throw error
      }
    })

  let [othersVersion, othersAt] = [0, 0]
  /** Between two turns: asks who else writes, and leaves the lock to them. @returns the pace to go on at */
  async function gap(): Promise<Pace> {
    // Changes with what other connections commit, not with what this one does.
    const [{ data_version: version } = { data_version: 0 }] =
      await manager.query<{ data_version: number }[]>('PRAGMA data_version')
    const now = performance.now()
    if (version !== othersVersion) [othersVersion, othersAt] = [version, now]
    const pace = now - othersAt < ALONE_MS ? BESIDE_SCANS : ALONE
    await setTimeout(pace.gapMs)
    return pace
  }

  /** Takes back, or clears, what a large write noted. */
  async function tidy(): Promise<void> {
    const state = await connection.run(() => findUnfinished(manager))
    left = state
    if (state === 'nothing') return
    const some = state === 'whole' ? clearEntries : undoEntries
    let pace = BESIDE_SCANS
    while (await transaction((writer) => some(writer, pace.entries), false)) pace = await gap()
    if (state === 'half') for (const listener of listeners) listener()
    left = 'nothing'
  }

  /** The turns of one large write, and what ends the one under way where the work failed. */
  function turnsOf(): Turns & { abandon(): Promise<void> } {
    let held: { end: () => void; since: number } | null = null
    let pace = BESIDE_SCANS
    const turns = {
      begin: () =>
        held
          ? Promise.resolve()
          : new Promise<void>((resolve, reject) => {
              // The connection is held until the turn ends.
              void connection.run(
                () =>
                  new Promise<void>((end) => {
                    begin(false).then(
                      () => {
                        held = { end, since: performance.now() }
                        resolve()
                      },
                      (error: unknown) => {
                        end()
                        reject(error instanceof Error ? error : new Error(String(error)))
                      },
                    )
                  }),
              )
            }),
      async pause() {
        if (!held || performance.now() - held.since < pace.turnMs) return
        await turns.rest()
        pace = await gap()
        await turns.begin()
      },
      async rest() {
        if (!held) return
        await manager.query('COMMIT')
        held.end()
        held = null
      },
      async abandon() {
        if (!held) return
        await rollBack()
        held.end()
        held = null
      },
    }
    return turns
  }

  async function large<T>(
    work: (manager: EntityManager, turns: Turns) => Promise<T>,
    last: (manager: EntityManager, result: T) => Promise<unknown>,
  ): Promise<T> {
    // What an earlier one noted must be gone: taking this one back would take that one back with it.
    if (left !== 'nothing') await tidy()
    await connection.run(() => startNoting(manager))
    const turns = turnsOf()
    try {
      const result = await work(manager, turns)
      await turns.rest()
      await transaction(async (writer) => {
        await last(writer, result)
        await markComplete(writer)
      })
      left = 'whole'
      return result
    } catch (error) {
      await turns.abandon()
      left = 'half'
      throw error
    } finally {
      await connection.run(() => stopNoting(manager))
      // What is whole is so whether or not there is room to clear its log; that is then done before the next one.
      if (left === 'whole') await tidy().catch(() => undefined)
      else await tidy()
    }
  }

  const inOffice = <T>(work: () => Promise<T>): Promise<T> =>
    office.run(async () => {
      // Where there was no room to take something back in, there may be now.
      if (left === 'half') await tidy()
      return work()
    })

  await tidy()
  return {
    write: (work) => inOffice(() => transaction(work)),
    writeAfter: (look, work) =>
      inOffice(async () => {
        const found = await look()
        return transaction((writer) => work(writer, found))
      }),
    writeAside: (work) => transaction(work),
    writeInTurns: (work, last = () => Promise.resolve()) => inOffice(() => large(work, last)),
    onTakenBack(listener) {
      listeners.push(listener)
    },
    async finish() {
      await office.empty()
      await connection.empty()
    },
  }
}
