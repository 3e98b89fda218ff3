import { Agent, request } from 'node:http'
import { workerData } from 'node:worker_threads'
import { serveCalls, type Calls } from '../threads/index.ts'
import { PHONE } from './phones.ts'

/** How the scans of a while went. */
export interface Probed {
  /** Longest a scan took, in milliseconds, without what the machine kept from this very thread meanwhile. */
  readonly slowest: number
  readonly failed: readonly unknown[]
  readonly scans: number
}

/** It scans every so often from `go` on; `stop` says how that went, once the last scan is answered. */
export interface ProbeCalls extends Calls {
  go(): void
  stop(): Promise<Probed>
}

const PROBE_MS = 20
const { port, path } = workerData as { port: number; path: string }
/** Kept: what is measured is the door, not how many connections a second two cores can open. */
const agent = new Agent({ keepAlive: true })

let timer: NodeJS.Timeout | null = null
let [waits, failed, open]: [number[], unknown[], Promise<void>[]] = [[], [], []]
/** For how long this thread was not let run, in all. It has nothing else to do: that is the machine's noise, not the door's. */
let kept = 0
let lastTick = 0

function scan(): Promise<void> {
  return new Promise((resolve) => {
    const [began, keptBefore] = [performance.now(), kept]
    const settle = (outcome: unknown) => {
      waits.push(performance.now() - began - (kept - keptBefore))
      if (outcome !== 302) failed.push(outcome)
      resolve()
    }
    request({ host: '127.0.0.1', port, path, agent, headers: { 'user-agent': PHONE } }, (response) => {
      response.resume()
      response.on('end', () => {
        settle(response.statusCode)
      })
    })
      .on('error', (error) => {
        settle(error.message)
      })
      .end()
  })
}

function tick(): void {
  const now = performance.now()
  kept += Math.max(0, now - lastTick - 2 * PROBE_MS)
  lastTick = now
  open.push(scan())
}

const calls: ProbeCalls = {
  go() {
    ;[waits, failed, open] = [[], [], []]
    lastTick = performance.now()
    timer = setInterval(tick, PROBE_MS)
  },
  async stop() {
    if (timer) clearInterval(timer)
    await Promise.all(open)
    return { slowest: Math.max(0, ...waits), failed, scans: waits.length }
  },
}
serveCalls(calls)
