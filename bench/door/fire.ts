import { connect, type Socket } from 'node:net'
import { addressIn, STANDIN_DEVICES, STANDIN_LANGUAGES, STANDIN_PLACES } from '@flimbo/server/standins'

/** What one round of shots found. */
export interface Shots {
  /** Answers a second. */
  readonly rate: number
  /** Milliseconds from request to answer, one for each. */
  readonly latencies: Float64Array
  /** Answers that were no 302. */
  readonly others: number
}

const VARIETY = 40_000

/** Requests as bytes, made beforehand: varied short links, addresses, user agents and languages, and as little work as possible while firing. */
function ammunition(slugs: readonly string[]): Buffer[] {
  return Array.from({ length: VARIETY }, (_, i) => {
    const place = STANDIN_PLACES[(i * 7) % STANDIN_PLACES.length]
    const device = STANDIN_DEVICES[(i * 3) % 10]
    const language = STANDIN_LANGUAGES[i % STANDIN_LANGUAGES.length]
    // Spread over all codes by a step that has no common factor with their number.
    const slug = slugs[(i * 7919 + 13) % slugs.length] ?? ''
    return Buffer.from(
      `GET /${i % 2 ? slug : slug.toLowerCase()} HTTP/1.1\r\nHost: go.saltmarsh.example\r\nUser-Agent: ${device?.userAgent ?? ''}\r\nAccept-Language: ${language?.header ?? ''}\r\nAccept: text/html\r\nX-Forwarded-For: ${place ? addressIn(place, i, i * 31) : ''}\r\n\r\n`,
    )
  })
}

const prepared = new Map<readonly string[], Buffer[]>()

/** Fires at a port over kept-alive connections, each sending its next request when it has its answer. */
export async function fire(
  port: number,
  slugs: readonly string[],
  connections: number,
  seconds: number,
): Promise<Shots> {
  const shots = prepared.get(slugs) ?? ammunition(slugs)
  prepared.set(slugs, shots)
  const latencies: number[] = []
  let others = 0
  let next = Math.floor(Math.random() * shots.length)
  let stop = false
  const one = () =>
    new Promise<void>((resolve, reject) => {
      const socket: Socket = connect(port, '127.0.0.1')
      socket.setNoDelay(true)
      let sent = 0
      let got = ''
      const send = () => {
        if (stop) {
          socket.destroy()
          resolve()
          return
        }
        sent = performance.now()
        socket.write(shots[next++ % shots.length] ?? '')
      }
      socket.on('connect', send)
      socket.on('error', reject)
      socket.on('data', (part) => {
        got += part.toString('latin1')
        const head = got.indexOf('\r\n\r\n')
        if (head < 0) return
        const length = Number(/content-length: (\d+)/i.exec(got)?.[1] ?? 0)
        if (got.length < head + 4 + length) return
        latencies.push(performance.now() - sent)
        if (!got.startsWith('HTTP/1.1 302')) others++
        got = ''
        send()
      })
    })
  const began = performance.now()
  setTimeout(() => {
    stop = true
  }, seconds * 1000)
  await Promise.all(Array.from({ length: connections }, one))
  return {
    rate: latencies.length / ((performance.now() - began) / 1000),
    latencies: Float64Array.from(latencies),
    others,
  }
}
