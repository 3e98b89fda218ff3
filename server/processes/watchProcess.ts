import type { ChildProcess, SendHandle } from 'node:child_process'
import type { Logger } from 'pino'
import type { OpenPort } from './listening.ts'
import type { Down, Part, Up } from './messages.ts'

/** A process that is started again whenever it ends, until it is stopped. */
export interface Watched {
  readonly part: Part
  /** Settles with the first start: rejects with a sentence where it could not. */
  readonly started: Promise<void>
  isReady(): boolean
  /** Whether it has begun: one that has not knows nothing yet. */
  isBegun(): boolean
  /** Hands a message on; nothing where the process is not there. What may be lost is dropped while it does not keep up. */
  tell(message: Down, mayBeLost?: boolean): void
  /** Ends a process that does not answer; another one takes its place. */
  replace(why: string): void
  /** Asks it to stop, and cuts it off where it does not. */
  stop(): Promise<void>
}

interface Parts {
  readonly part: Part
  readonly spawn: () => ChildProcess
  /** What has to be there before it begins; it is loaded meanwhile. */
  readonly prepared: Promise<unknown>
  readonly begin: () => Extract<Down, { kind: 'begin' }>
  /** The port it is to listen on, where that is open already. */
  readonly port: () => OpenPort | null
  readonly hear: (message: Up, from: Watched, port: OpenPort | null) => void
  /** Called when a process of this part ends, before the next one begins. */
  readonly ended: (from: Watched) => void
  readonly log: Pick<Logger, 'warn' | 'error'>
}

const PING_MS = 1000
/** So many pings in a row may stay unanswered: a door is missed sooner than an office that thinks hard. */
const PINGS_MISSED_MAX: Readonly<Record<Part, number>> = { door: 8, office: 60, standIns: 20 }
/** So long a start may take, a large database with migrations done before. */
const START_MS = 60_000
const STOP_MS = 12_000
/** A process that lived for so long was well; one that ends sooner is started again after ever longer pauses. */
const WELL_MS = 10_000
const LONGEST_PAUSE_MS = 10_000
const FIRST_PAUSE_MS = 250
/** So many messages that may be lost wait for a process that does not take them. */
const WAITING_MAX = 50

export function watchProcess({
  part,
  spawn,
  prepared,
  begin,
  port: portNow,
  hear,
  ended,
  log,
}: Parts): Watched {
  let child: ChildProcess | null = null
  let ready = false
  let begun = false
  let stopping = false
  let quick = 0
  let waiting = 0
  let missed = 0
  let pings: ReturnType<typeof setInterval> | null = null
  let late: ReturnType<typeof setTimeout> | null = null
  let first: { resolve: () => void; reject: (error: Error) => void } | null = null
  const started = new Promise<void>((resolve, reject) => {
    first = { resolve, reject }
  })
  // Whoever waits for it hears of it; where nobody does, it is no reason to end.
  started.catch(() => undefined)

  function send(message: Down, port: OpenPort | null = null): void {
    if (!child?.connected || !begun) return
    waiting++
    // What is sent along is a handle of the system's, of which the types know only what holds one.
    child.send(message, (port ?? undefined) as SendHandle | undefined, {}, () => {
      waiting--
    })
  }

  const self: Watched = {
    part,
    started,
    isReady: () => ready,
    isBegun: () => begun,
    tell(message, mayBeLost = false) {
      if (!mayBeLost || waiting < WAITING_MAX) send(message)
    },
    replace(why) {
      log.error(`${part}: ${why}; it is replaced`)
      child?.kill('SIGKILL')
    },
    stop: () =>
      new Promise((resolve) => {
        stopping = true
        if (!child) {
          resolve()
          return
        }
        const cut = setTimeout(() => child?.kill('SIGKILL'), STOP_MS)
        child.once('exit', () => {
          clearTimeout(cut)
          resolve()
        })
        if (begun) send({ kind: 'stop' })
        else child.kill('SIGKILL')
      }),
  }

  function take(message: Up, port: OpenPort | null, from: ChildProcess): void {
    if (message.kind === 'pong') {
      missed = 0
      return
    }
    if (message.kind === 'hello') {
      prepared.then(
        () => {
          if (child !== from) return
          begun = true
          send(begin(), portNow())
        },
        // Whoever prepares it says what went wrong.
        () => undefined,
      )
      return
    }
    if (message.kind === 'ready') {
      ready = true
      if (late) clearTimeout(late)
      first?.resolve()
      first = null
    }
    if (message.kind === 'failed') {
      if (first) first.reject(new Error(message.sentence))
      else log.error(`${part}: could not start: ${message.sentence}`)
      first = null
      child?.kill('SIGKILL')
      return
    }
    hear(message, self, port)
  }

  function look(): void {
    if (!ready) return
    missed++
    if (missed > PINGS_MISSED_MAX[part]) self.replace('it does not answer')
    else send({ kind: 'ping', n: missed })
  }

  function run(): void {
    const began = performance.now()
    const own = spawn()
    child = own
    ready = false
    begun = false
    missed = 0
    waiting = 0
    // Nothing but an open port is ever sent along.
    own.on('message', (message: Up, handle: unknown) => {
      take(message, (handle as OpenPort | undefined) ?? null, own)
    })
    own.on('error', (error) => {
      log.error({ error }, `${part}: could not be started`)
    })
    own.once('exit', (code, signal) => {
      child = null
      ready = false
      begun = false
      if (pings) clearInterval(pings)
      if (late) clearTimeout(late)
      ended(self)
      if (first) {
        first.reject(new Error(`${part} ended with ${signal ?? String(code)} before it was ready`))
        first = null
      }
      if (stopping) return
      quick = performance.now() - began > WELL_MS ? 0 : quick + 1
      const pause = quick <= 1 ? 0 : Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (quick - 2))
      log.warn(`${part}: ended with ${signal ?? String(code)}; it is started again`)
      setTimeout(() => {
        if (!stopping) run()
      }, pause)
    })
    late = setTimeout(() => {
      self.replace('it does not get ready')
    }, START_MS)
    pings = setInterval(look, PING_MS)
  }

  run()
  return self
}
