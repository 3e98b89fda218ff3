import { setTimeout as pause } from 'node:timers/promises'
import type { Jobs, JobWork } from '../jobs/index.ts'
import { callThread, type Calls } from '../threads/index.ts'

/** How far it is. */
export interface PackingState {
  /** Scans that are in segments, and how many there are, by their numbers. */
  readonly done: number
  readonly total: number
  /** Scans of before that still are to be moved where they take less room. */
  readonly toMove: number
  /** Whether it would have more to do at once. */
  readonly hasMore: boolean
}

/** What the thread is called for. */
export interface PackingCalls extends Calls {
  /**
   * Packs a segment's worth of scans, where there is one; where there is none, moves some of before, or folds some that
   * are not kept any more.
   */
  step(): PackingState
}

/** So often it is looked whether there is something to pack; while there is, so long is rested in between. */
const LOOK_MS = 2000
const REST_MS = 10
/** Packing of fewer scans is over before anybody would look at a job. */
const WORTH_A_JOB = 300_000

export interface Packing {
  /** How far it is; null before the first look. */
  progress(): PackingState | null
  /** Once it is known how many scans wait. */
  readonly begun: Promise<PackingState>
  close(): Promise<void>
}

/**
 * Packs the scans of a database for the figures, on a thread of its own, behind whoever writes them.
 *
 * @param onError told what went wrong, once for as long as it stays the same; each look tries again
 */
export function startPacking(file: string, onError: (message: string) => void): Packing {
  const thread = callThread<PackingCalls>('packer-thread', import.meta.url, { file })
  const stopper = new AbortController()
  let sayBegun: (state: PackingState) => void = () => undefined
  const begun = new Promise<PackingState>((resolve) => {
    sayBegun = resolve
  })
  let state: PackingState | null = null
  /** What went wrong last time: a full disk is told of once, not at every look. */
  let wrong = ''

  async function look(): Promise<number> {
    try {
      state = await thread.call('step')
      sayBegun(state)
      wrong = ''
      return state.hasMore ? REST_MS : LOOK_MS
    } catch (error) {
      if (!stopper.signal.aborted && String(error) !== wrong) onError(String(error))
      wrong = String(error)
      return LOOK_MS
    }
  }
  async function follow(): Promise<void> {
    while (!stopper.signal.aborted)
      await pause(await look(), undefined, { signal: stopper.signal }).catch(() => undefined)
  }
  const following = follow()
  return {
    progress: () => state,
    begun,
    async close() {
      stopper.abort()
      await following
      await thread.close()
    },
  }
}

const LOOK_AT_PROGRESS_MS = 500

/** Shows how far the packing is. It goes on whatever becomes of the job. */
export function packingJob({ progress }: Pick<Packing, 'progress'>): JobWork {
  return {
    kind: 'packing',
    atOnce: Infinity,
    // It is no work of its own: however often the server is stopped, it goes on telling.
    tries: Infinity,
    async run(_job, { progress: say, signal }) {
      let most = 0
      for (;;) {
        const now = progress()
        if (now && !now.hasMore) return { sentence: 'Figures are as quick as they get.' }
        if (now) {
          most = Math.max(most, now.toMove)
          say(now.done + most - now.toMove, now.total + most)
        }
        await pause(LOOK_AT_PROGRESS_MS, undefined, { signal })
      }
    },
  }
}

/** Has each workspace see how far the packing is, where there is much to pack. */
export async function showPacking(
  { begun }: Pick<Packing, 'begun'>,
  jobs: Pick<Jobs, 'active' | 'add'>,
  workspaceIds: () => Promise<readonly number[]>,
): Promise<void> {
  const { done, total, toMove } = await begun
  if (total - done + toMove < WORTH_A_JOB) return
  for (const workspaceId of await workspaceIds())
    if ((await jobs.active(workspaceId, 'packing')).length === 0)
      await jobs.add({
        kind: 'packing',
        workspaceId,
        personId: null,
        campaignId: null,
        title: 'Pack scans, so that figures come at once; until then they are right, and slower',
        payload: {},
      })
}
