import { Agent, get } from 'node:http'
import { STANDIN_DEVICES } from '@flimbo/server/standins'

/** Milliseconds from when each scan was due to when it was answered, and answers that were no redirect. */
export interface Paced { readonly latencies: readonly number[]; readonly others: number }

/** Scans at a steady pace, whether or not the ones before are answered: who waits is counted from when they were due. */
export async function paced(port: number, slugs: readonly string[], perSecond: number, while_: Promise<unknown>): Promise<Paced> {
  const agent = new Agent({ keepAlive: true, maxSockets: 256 })
  const latencies: number[] = []
  const open: Promise<void>[] = []
  let [others, isOver] = [0, false]
  void while_.finally(() => { isOver = true }).catch(() => undefined)
  const scan = (n: number, due: number) => new Promise<void>((resolve) => {
    const settle = (status?: number) => {
      latencies.push(performance.now() - due)
      if (status !== 302) others++
      resolve()
    }
    get({ host: '127.0.0.1', port, agent, path: `/${slugs[(n * 7919 + 13) % slugs.length] ?? ''}`, headers: { 'user-agent': STANDIN_DEVICES[n % 10]?.userAgent ?? '' } }, (response) => {
      response.resume()
      response.on('end', () => { settle(response.statusCode) })
    }).on('error', () => { settle() })
  })
  const began = performance.now()
  for (let n = 0; !isOver; n++) {
    const due = began + (n * 1000) / perSecond
    const early = due - performance.now()
    if (early > 0.5) await new Promise((resolve) => setTimeout(resolve, early))
    // Timers are late by themselves: what is late before it is sent is this process's doing, not the door's.
    open.push(scan(n, Math.max(due, performance.now())))
  }
  await Promise.all(open)
  agent.destroy()
  return { latencies, others }
}
