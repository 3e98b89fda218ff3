import type { Confirmation } from '../leads/confirmation.ts'
import type { SiteRecord } from '../goals/record.ts'
import type { LeadOutcome, LeadToStore } from '../leads/record.ts'
import { callThread, type Calls } from '../threads/index.ts'
import { DoorBusy, ScanNotStored } from './errors.ts'
import type { PageEventRow } from './eventRows.ts'
import type { Stored } from './insert.ts'
import { gather } from './gather.ts'
import { pack, type Packed, type ScanRecord } from './record.ts'
import type { SaltRow } from './salts.ts'
import type { LimitCount, NoneLeft } from './take.ts'

/** More scans than this waiting for the disk, and new ones are turned away rather than kept in memory. */
export const QUEUE_MAX = 20_000

/** The same of answers of forms, and of what sites report. */
const LEADS_MAX = 2000

/** What became of one scan: it is on disk, or its route had nothing left of its limit, or it could not be stored. */
export type Outcome =
  /** `scanId` is its number where it is shown a page or named to a site, and else 0. */
  | { readonly kind: 'stored'; readonly scanId: number }
  | { readonly kind: 'none-left'; readonly none: NoneLeft }
  | { readonly kind: 'failed'; readonly error: Error }

/** A scan on disk, and whether it was the first of its visitor at its code that day. */
export interface StoredScan {
  readonly scan: ScanRecord
  readonly isUnique: boolean
}

type Settle = (outcome: Outcome) => void

/** What the thread is called for. */
export interface WriterCalls extends Calls {
  /** Stores a group of scans in one commit. */
  store(packed: Packed[]): Stored
  /** Stores what happened on pages in one commit; what is there already is not stored twice. */
  note(events: PageEventRow[]): void
  /** Stores answers of forms in one commit. @returns what became of each */
  keepLeads(leads: LeadToStore[]): LeadOutcome[]
  /** Stores what sites report in one commit. @returns of each how many goals were stored */
  keepSites(records: SiteRecord[]): number[]
  /** Stores that somebody confirmed their mail address. */
  confirm(confirmation: Confirmation): void
  keepSalt(salt: SaltRow): SaltRow
}

const notStored = (error: unknown) =>
  new ScanNotStored(error instanceof Error ? error.message : String(error), { cause: error })

const STORED: Outcome = { kind: 'stored', scanId: 0 }

/**
 * Stores scans durably, off the main thread. While one group is being committed the next one gathers;
 * each scan's `done` is called once, after the commit it was part of has reached the disk.
 */
export interface ScanWriter {
  /** @throws DoorBusy where too many are waiting already */
  store(scan: ScanRecord, done: Settle): void
  /** Stores what happened on a page. Resolves once it is on disk. @throws DoorBusy where too much is waiting already */
  note(events: readonly PageEventRow[]): Promise<void>
  /** Stores an answer of a form. Resolves once it is on disk, or refused. @throws DoorBusy where too many are waiting already */
  keepLead(lead: LeadToStore): Promise<LeadOutcome>
  /** Stores what a site reports. Resolves once it is on disk, with how many goals were new. @throws DoorBusy where too many are waiting already */
  keepSite(record: SiteRecord): Promise<number>
  /** Stores that somebody confirmed their mail address. Resolves once it is on disk. */
  confirm(confirmation: Confirmation): Promise<void>
  /** Stores a salt unless its day has one. @returns the salt of the day */
  keepSalt(salt: SaltRow): Promise<SaltRow>
  /** Called after each commit, with the scans in it. */
  onStored(listener: (scans: readonly StoredScan[]) => void): void
  /** Called after each commit that concerned limited routes, before their scans are settled. */
  onCounted(listener: (routeId: number, count: LimitCount) => void): void
  /** Writes what is waiting and stops. */
  close(): Promise<void>
}

/** Starts the thread that stores scans; many are committed together. */
export function startScanWriter(file: string): ScanWriter {
  const thread = callThread<WriterCalls>('writer-thread', import.meta.url, { file })
  const onStored: ((scans: readonly StoredScan[]) => void)[] = []
  const onCounted: ((routeId: number, count: LimitCount) => void)[] = []
  let waiting: { scan: ScanRecord; done: Settle }[] = []
  let scheduled = false
  let writing = false
  let broken: Error | null = null
  function fail(group: typeof waiting, error: Error): void {
    const failed: Outcome = { kind: 'failed', error }
    for (const { done } of group) done(failed)
  }

  function settle(group: typeof waiting, { refused, uniques, named, counts }: Stored): void {
    for (const [routeId, count] of counts) for (const listener of onCounted) listener(routeId, count)
    const without = new Map(refused)
    const first = new Set(uniques)
    const scanIds = new Map(named)
    const there = group.flatMap(({ scan }, place) =>
      without.has(place) ? [] : [{ scan, isUnique: first.has(place) }],
    )
    for (const listener of onStored) listener(there)
    for (const [place, { done }] of group.entries()) {
      const none = without.get(place)
      const scanId = scanIds.get(place)
      const stored = scanId === undefined ? STORED : ({ kind: 'stored', scanId } as const)
      done(none ? { kind: 'none-left', none } : stored)
    }
  }

  function flush(): void {
    scheduled = false
    if (writing || waiting.length === 0) return
    const group = waiting
    waiting = []
    writing = true
    const packed: Packed[] = []
    for (const { scan } of group) pack(scan, packed)
    thread.call('store', packed).then(
      (stored) => {
        writing = false
        settle(group, stored)
        if (waiting.length > 0) schedule()
      },
      (error: unknown) => {
        writing = false
        fail(group, notStored(error))
        if (waiting.length > 0) schedule()
      },
    )
  }

  const schedule = () => {
    if (scheduled || writing) return
    scheduled = true
    setImmediate(flush)
  }

  thread.onEnd((cause) => {
    broken = new ScanNotStored('the writing thread stopped', { cause })
    fail(waiting.splice(0), broken)
  })

  const drained = () =>
    new Promise<void>((resolve) => {
      const look = () => {
        if (broken || (waiting.length === 0 && !writing)) {
          resolve()
          return
        }
        schedule()
        setTimeout(look, 2)
      }
      look()
    })

  const notes = gather(async (events: PageEventRow[]) => {
    await thread.call('note', events)
    return []
  }, QUEUE_MAX)
  const leads = gather((group: LeadToStore[]) => thread.call('keepLeads', group), LEADS_MAX)
  const sites = gather((group: SiteRecord[]) => thread.call('keepSites', group), LEADS_MAX)
  const unlessBusy = (error: unknown): never => {
    throw error instanceof DoorBusy ? error : notStored(error)
  }

  return {
    note(events) {
      if (broken) return Promise.reject(broken)
      return notes.add(events).then(() => undefined, unlessBusy)
    },
    async keepLead(lead) {
      if (broken) throw broken
      const [outcome] = await leads.add([lead]).catch(unlessBusy)
      if (!outcome) throw notStored('nothing became of it')
      return outcome
    },
    async keepSite(record) {
      if (broken) throw broken
      const [stored = 0] = await sites.add([record]).catch(unlessBusy)
      return stored
    },
    store(scan, done) {
      if (broken) throw broken
      if (waiting.length >= QUEUE_MAX) throw new DoorBusy()
      waiting.push({ scan, done })
      schedule()
    },
    confirm: (confirmation) => thread.call('confirm', confirmation).catch(unlessBusy),
    keepSalt: (salt) =>
      thread.call('keepSalt', salt).catch((error: unknown) => {
        throw notStored(error)
      }),
    onStored(listener) {
      onStored.push(listener)
    },
    onCounted(listener) {
      onCounted.push(listener)
    },
    async close() {
      await drained()
      await notes.empty()
      await leads.empty()
      await sites.empty()
      if (!broken) {
        broken = new ScanNotStored('the writer is closed')
        await thread.close()
      }
    },
  }
}
