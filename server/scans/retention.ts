import { setTimeout as pause } from 'node:timers/promises'
import { day, quantity } from '@flimbo/core/formats'
import { KEEP_FOR_EVER, retention, scansApi, type Retention } from '@flimbo/core/scans'
import { dayIn } from '@flimbo/core/time'
import { mount, type Mounts } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'
import type { Jobs, JobWork } from '../jobs/index.ts'
import type { Reader } from '../reader/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'
import { RETENTION } from './folding.ts'
import type { LiveHub } from './live.ts'
import type { Packing } from './packing.ts'

const KEPT: Section<Retention> = { name: RETENTION, schema: retention, fallback: KEEP_FOR_EVER }

/** Screens read anew what they show. */
const CHANGE = { type: 'change', of: 'campaign', id: 0 } as const

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly live: LiveHub
  readonly jobs: Pick<Jobs, 'active' | 'add'>
}

/** How long single scans are kept, as `core`’s contract describes it. */
export function retentionEndpoints(mounts: Mounts, { database, reader, live, jobs }: Parts): void {
  mount(mounts, scansApi.retention, ({ who }) => readSetting(database.read, who.workspace.id, KEPT))

  mount(mounts, scansApi.changeRetention, async ({ body, who }) => {
    const { id, zone } = who.workspace
    const stored = await writeSetting(database, id, KEPT, body)
    const { months } = stored.value
    if (months !== null && (await jobs.active(id, 'folding')).length === 0) {
      const { before, scans } = await reader.ask('rowsToFold', id, zone, months, minute())
      if (scans > 0)
        await jobs.add({
          kind: 'folding',
          workspaceId: id,
          personId: who.person.id,
          campaignId: null,
          title: `Fold scans before ${day(dayIn(zone, before))} into sums`,
          payload: { before },
        })
    }
    live.tell(id, CHANGE)
    return stored
  })

  mount(mounts, scansApi.folded, async ({ query: { months }, who }) => {
    const { id, zone } = who.workspace
    const folded = await reader.ask('foldedScans', id)
    if (months === undefined) return { folded, next: null }
    return { folded, next: await reader.ask('rowsToFold', id, zone, months, minute()) }
  })
}

/** Asked twice within a minute, it is one question. */
const minute = () => Math.floor(Date.now() / 60_000) * 60_000

const LOOK_MS = 500
/** After so long without anything to do, there is nothing to be folded. */
const IDLE_MS = 10_000

interface FoldRow {
  readonly before: number
  readonly facts: number
  readonly lastId: number
  readonly clearedTo: number
}

/** Shows how far the folding of a workspace is. It goes on whatever becomes of the job. */
export function foldingJob(
  database: Database,
  live: Pick<LiveHub, 'tell'>,
  { progress }: Pick<Packing, 'progress'>,
): JobWork {
  async function foldUpTo(workspaceId: number, before: number): Promise<FoldRow | null> {
    const [found] = await database.read.query<FoldRow[]>(
      `SELECT before, facts, lastId, clearedTo FROM folds
      WHERE fact = 'scans' AND workspaceId = ? AND before >= ? ORDER BY id DESC LIMIT 1`,
      [workspaceId, before],
    )
    return found ?? null
  }
  return {
    kind: 'folding',
    atOnce: Infinity,
    // It is no work of its own: however often the server is stopped, it goes on telling.
    tries: Infinity,
    async run({ workspaceId, payload }, { progress: say, signal }) {
      const { before } = payload as { before: number }
      const { zone } = await database.read.findOneByOrFail(tables.workspaces, { id: workspaceId })
      for (let idle = 0; idle < IDLE_MS; idle = progress()?.hasMore ? 0 : idle + LOOK_MS) {
        const fold = await foldUpTo(workspaceId, before)
        if (fold && fold.clearedTo >= fold.lastId) {
          live.tell(workspaceId, CHANGE)
          return {
            sentence: `${quantity(fold.facts, 'scan')} before ${day(dayIn(zone, fold.before))} are sums now; their rows are gone.`,
          }
        }
        say(fold?.clearedTo ?? 0, fold?.lastId ?? 0)
        await pause(LOOK_MS, undefined, { signal })
      }
      return { sentence: 'Nothing was folded: single scans are kept longer now, or there are none so old.' }
    },
  }
}
