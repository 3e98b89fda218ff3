import { Agent, get } from 'node:http'
import { STANDIN_DEVICES } from '@flimbo/server/standins'
import type { Pace, Paced } from './paced.ts'

const agent = new Agent({ keepAlive: true, maxSockets: 256 })
const tell = (what: Paced | 'ready') => {
  process.send?.(what)
}

let pace: Pace = { port: 0, slugs: [], perSecond: 1 }
let isOver = false

async function scans(): Promise<Paced> {
  const latencies: number[] = []
  const open: Promise<void>[] = []
  let others = 0
  const scan = (n: number, due: number) =>
    new Promise<void>((resolve) => {
      const settle = (status?: number) => {
        latencies.push(performance.now() - due)
        if (status !== 302) others++
        resolve()
      }
      const path = `/${pace.slugs[(n * 7919 + 13) % pace.slugs.length] ?? ''}`
      get(
        {
          host: '127.0.0.1',
          port: pace.port,
          agent,
          path,
          headers: { 'user-agent': STANDIN_DEVICES[n % 10]?.userAgent ?? '' },
        },
        (response) => {
          response.resume()
          response.on('end', () => {
            settle(response.statusCode)
          })
        },
      ).on('error', () => {
        settle()
      })
    })
  const began = performance.now()
  for (let n = 0; !isOver; n++) {
    const due = began + (n * 1000) / pace.perSecond
    const early = due - performance.now()
    if (early > 0.5) await new Promise((resolve) => setTimeout(resolve, early))
    // Timers are late by themselves: what is late before it is sent is this process's doing, not the door's.
    open.push(scan(n, Math.max(due, performance.now())))
  }
  await Promise.all(open)
  return { latencies, others }
}

process.on('message', (order: Pace | 'go' | 'stop') => {
  if (order === 'stop') isOver = true
  else if (order === 'go') {
    isOver = false
    void scans().then(tell)
  } else {
    pace = order
    tell('ready')
  }
})
