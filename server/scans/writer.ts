import { startThread } from '../database/index.ts'
import { DoorBusy, ScanNotStored } from './errors.ts'
import type { SaltRow } from './insert.ts'
import { pack, type Packed, type ScanRecord } from './record.ts'
import type { WriterAnswer, WriterOrder } from './writer-thread.ts'

/** More scans than this waiting for the disk, and new ones are turned away rather than kept in memory. */
export const QUEUE_MAX = 20_000

type Settle = (error: Error | null) => void

/**
 * Stores scans durably, off the main thread. While one group is being committed the next one gathers;
 * each scan's `done` is called once, after the commit it was part of has reached the disk.
 */
export interface ScanWriter {
  /** @throws DoorBusy where too many are waiting already */
  store(scan: ScanRecord, done: Settle): void
  /** Stores a salt together with the next group, ahead of it. */
  keepSalt(salt: SaltRow): void
  destroyDaysBefore(workspaceId: number, day: string): Promise<void>
  /** Resolves once every scan that is waiting now is on disk, or was refused. */
  settled(): Promise<void>
  /** Called after each commit, with the scans in it. */
  onStored(listener: (scans: readonly ScanRecord[]) => void): void
  /** Writes what is waiting and stops. */
  close(): Promise<void>
}

export function startScanWriter(file: string): ScanWriter {
  const thread = startThread('writer-thread', import.meta.url, { file })
  const listeners: ((scans: readonly ScanRecord[]) => void)[] = []
  let waiting: { scan: ScanRecord; done: Settle }[] = []
  let salts: SaltRow[] = []
  let scheduled = false
  let broken: Error | null = null
  /** Orders given and not yet answered, the oldest first; the thread answers in turn. */
  const open: Settle[] = []

  const give = (order: WriterOrder, settle: Settle) => {
    if (broken) { settle(broken); return }
    open.push(settle)
    thread.postMessage(order)
  }

  const settleGroup = (group: typeof waiting, error: Error | null) => {
    if (!error) for (const listener of listeners) listener(group.map(({ scan }) => scan))
    for (const { done } of group) done(error)
  }

  function flush(): void {
    scheduled = false
    if (open.length > 0 || (waiting.length === 0 && salts.length === 0)) return
    const group = waiting
    const newSalts = salts
    waiting = []
    salts = []
    const packed: Packed[] = []
    for (const { scan } of group) pack(scan, packed)
    give({ order: 'write', packed, salts: newSalts }, (error) => {
      // A salt that was not stored goes with the next group: its day's scans depend on it.
      if (error) salts = [...newSalts, ...salts]
      settleGroup(group, error)
    })
  }

  const schedule = () => {
    if (scheduled || open.length > 0) return
    scheduled = true
    setImmediate(flush)
  }

  thread.on('message', (answer: WriterAnswer) => {
    open.shift()?.(answer.ok ? null : new ScanNotStored(answer.message))
    if (waiting.length > 0 || salts.length > 0) schedule()
  })
  const giveUp = (cause: unknown) => {
    broken = new ScanNotStored('the writing thread stopped', { cause })
    for (const settle of open.splice(0)) settle(broken)
    const group = waiting
    waiting = []
    settleGroup(group, broken)
  }
  thread.on('error', giveUp)
  thread.on('exit', () => { if (!broken) giveUp(undefined) })

  const drained = () => new Promise<void>((resolve) => {
    const look = () => { if (broken || (waiting.length === 0 && salts.length === 0 && open.length === 0)) resolve(); else { schedule(); setTimeout(look, 2) } }
    look()
  })

  return {
    store(scan, done) {
      if (broken) throw broken
      if (waiting.length >= QUEUE_MAX) throw new DoorBusy()
      waiting.push({ scan, done })
      schedule()
    },
    keepSalt(salt) {
      salts.push(salt)
      schedule()
    },
    destroyDaysBefore: (workspaceId, before) => new Promise((resolve, reject) => {
      give({ order: 'destroy', workspaceId, before }, (error) => { if (error) reject(error); else resolve() })
    }),
    settled: () => new Promise((resolve) => {
      const [last, order] = [waiting.at(-1), open.at(-1)]
      // Groups are written in turn: the newest scan, or else the newest order, is the last to be there.
      if (last) waiting[waiting.length - 1] = { ...last, done: (error) => { last.done(error); resolve() } }
      else if (order) open[open.length - 1] = (error) => { order(error); resolve() }
      else resolve()
    }),
    onStored(listener) { listeners.push(listener) },
    async close() {
      await drained()
      await new Promise<void>((resolve) => {
        thread.once('exit', () => { resolve() })
        if (broken) resolve()
        else give({ order: 'close' }, () => { broken ??= new ScanNotStored('the writer is closed') })
      })
    },
  }
}
