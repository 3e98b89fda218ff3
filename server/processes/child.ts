import type { SendHandle } from 'node:child_process'
import type { Logger } from 'pino'
import { readConfig, type Config } from '../config/index.ts'
import type { Ports } from '../line/index.ts'
import { openLog } from '../log/index.ts'
import type { OpenPort } from './listening.ts'
import type { Down, Part, Up } from './messages.ts'

/** One process beside the supervisor, once it is begun. */
export interface Child {
  readonly config: Config
  readonly log: Logger
  readonly secret: string
  /** The port it is to listen on, where that is open already. */
  readonly port: OpenPort | null
  readonly ports: () => Ports
  readonly tell: (message: Up) => void
}

/** What a process does, as far as the supervisor is concerned. */
export interface Work {
  readonly ports: Partial<Ports>
  /** A port it opened itself, to be kept open whatever becomes of the process. */
  readonly keep?: OpenPort | undefined
  /** Takes what is told it beyond what every process understands. */
  hear?(message: Down): void
  close(): Promise<void>
}

const VARIABLES: Readonly<Record<Part, string>> = {
  door: 'FLIMBO_DOOR_PORT',
  office: 'FLIMBO_OFFICE_PORT',
  standIns: 'FLIMBO_STANDIN_PORT',
}

function sentenceOf(error: unknown, part: Part): string {
  const { code, port } = error as { code?: string; port?: number }
  if (code === 'EADDRINUSE')
    return `Port ${String(port)} is in use. Stop what uses it, or set ${VARIABLES[part]}.`
  return error instanceof Error ? (error.stack ?? error.message) : String(error)
}

/**
 * Runs a process beside the supervisor: begins when it is told to, answers that it is alive, stops when it is told to,
 * when it is sent SIGTERM, and at once when the supervisor is gone.
 */
export function runChild(part: Part, open: (child: Child) => Promise<Work>): void {
  let work: Work | null = null
  let ports: Ports = { office: 0, door: 0, standIn: 0, dns: 0, smtp: 0 }
  let stopping = false
  const tell = (message: Up, port?: OpenPort) => {
    if (process.connected) process.send?.(message, port as SendHandle | undefined, {}, () => undefined)
  }

  async function begin(secret: string, port: OpenPort | null): Promise<void> {
    try {
      const config = readConfig(process.env)
      work = await open({
        config,
        log: openLog(config.logLevel, part),
        secret,
        port,
        ports: () => ports,
        tell,
      })
      tell({ kind: 'ready', ports: work.ports }, work.keep)
    } catch (error) {
      tell({ kind: 'failed', sentence: sentenceOf(error, part) })
    }
  }

  function stop(): void {
    if (stopping) return
    stopping = true
    Promise.resolve(work?.close()).then(
      () => {
        process.exit(0)
      },
      (error: unknown) => {
        process.stderr.write(`${part}: stopping failed: ${String(error)}\n`)
        process.exit(1)
      },
    )
  }

  process.on('message', (message: Down, port: unknown) => {
    switch (message.kind) {
      case 'begin':
        ports = message.ports
        // Nothing but an open port is ever sent along.
        void begin(message.secret, (port as OpenPort | undefined) ?? null)
        return
      case 'ping':
        tell({ kind: 'pong', n: message.n })
        return
      case 'ports':
        ports = message.ports
        return
      case 'stop':
        stop()
        return
      case 'forget':
        // Before it listens it knows nothing that it could forget.
        if (work?.hear) work.hear(message)
        else tell({ kind: 'forgot', id: message.id })
        return
      case 'news':
      case 'forgotten':
      case 'answer':
      case 'no-answer':
      case 'question':
        work?.hear?.(message)
    }
  })
  tell({ kind: 'hello' })
  // A terminal sends both to the whole group; the supervisor then tells when to stop.
  process.on('SIGINT', () => undefined)
  process.on('SIGTERM', stop)
  // Without its supervisor a process could never be told to forget anything: what it answered is on disk.
  process.on('disconnect', () => {
    process.exit(0)
  })
}
