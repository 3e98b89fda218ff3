import { Agent, request } from 'node:http'
import { parentPort, workerData } from 'node:worker_threads'
import { PHONE } from './phones.ts'

/** Told to go, it scans every so often; told to stop, it says how that went, once the last scan is answered. */
export interface Probed {
  /** Longest a scan took, in milliseconds, without what the machine kept from this very thread meanwhile. */
  readonly slowest: number
  readonly failed: readonly unknown[]
  readonly scans: number
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

parentPort?.on('message', (order: 'go' | 'stop') => {
  if (order === 'go') {
    ;[waits, failed, open] = [[], [], []]
    lastTick = performance.now()
    timer = setInterval(tick, PROBE_MS)
    return
  }
  if (timer) clearInterval(timer)
  void Promise.all(open).then(() => {
    const probed: Probed = { slowest: Math.max(0, ...waits), failed, scans: waits.length }
    parentPort?.postMessage(probed)
  })
})
