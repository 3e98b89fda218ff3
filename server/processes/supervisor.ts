import { fork } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import type { Logger } from 'pino'
import type { Config } from '../config/index.ts'
import type { Ports } from '../line/index.ts'
import { createForgetting } from './forgetting.ts'
import type { OpenPort } from './listening.ts'
import type { Up } from './messages.ts'
import { watchProcess, type Watched } from './watchProcess.ts'

/** A running Flimbo. */
export interface Running {
  /** Ports as they were really opened: others than configured where those were 0. */
  readonly ports: Ports
  /** Stops all processes: open requests finish, queued scans are written. */
  stop(): Promise<void>
}

/** The script of a process: built, beside the bundle; from source, beside this file. */
function scriptOf(name: string): string {
  const ending = import.meta.url.endsWith('.ts') ? 'ts' : 'js'
  return fileURLToPath(new URL(`./${name}.${ending}`, import.meta.url))
}

/**
 * Starts the front doors, the office and, where they are configured, the stand-ins, each in a process of its own, and
 * starts each again when it ends. It carries what they tell one another, and does nothing else: nothing can stop it.
 *
 * @param prepared what they need before they begin, such as the database's tables; they are loaded meanwhile
 * @throws Error with a sentence where something cannot start
 */
export async function startFlimbo(config: Config, log: Logger, prepared: Promise<unknown>): Promise<Running> {
  const secret = randomBytes(32).toString('hex')
  let ports: Ports = { office: 0, door: 0, standIn: 0, dns: 0, smtp: 0 }
  const doors: Watched[] = []
  let office: Watched | null = null
  let standIns: Watched | null = null
  /** The front doors' port. It is held here, so that phones wait while a door is replaced, instead of being refused. */
  let doorPort: OpenPort | null = null
  const all = () => [...doors, ...(office ? [office] : []), ...(standIns ? [standIns] : [])]
  const { order, acknowledged, ended } = createForgetting(
    () => doors,
    (id) => {
      office?.tell({ kind: 'forgotten', id })
    },
  )

  function hear(message: Up, from: Watched, port: OpenPort | null): void {
    switch (message.kind) {
      case 'ready':
        ports = { ...ports, ...message.ports }
        doorPort ??= port
        for (const each of all()) each.tell({ kind: 'ports', ports })
        return
      case 'forget':
        order(message.id, message.what)
        return
      case 'forgot':
        acknowledged(from, message.id)
        return
      case 'news':
        office?.tell(message, true)
        return
      case 'question':
        if (standIns?.isReady()) standIns.tell(message)
        else office?.tell({ kind: 'no-answer', id: message.id })
        return
      case 'answer':
        office?.tell(message)
        return
      case 'hello':
      case 'pong':
      case 'failed':
    }
  }

  const keep = (part: Watched['part'], script: string) =>
    watchProcess({
      part,
      hear,
      log,
      prepared,
      begin: () => ({ kind: 'begin', secret, ports }),
      port: () => (part === 'door' ? doorPort : null),
      // With what Node.js itself was given here, such as a loader for TypeScript.
      spawn: () => fork(scriptOf(script)),
      ended: (from) => {
        if (from.part === 'door') ended(from)
      },
    })
  async function stop(): Promise<void> {
    // Nobody is to wait for a door that does not come any more.
    doorPort?.close()
    doorPort = null
    await Promise.all(all().map((each) => each.stop()))
  }

  try {
    if (config.standIns) standIns = keep('standIns', 'standins-process')
    office = keep('office', 'office-process')
    // The first door opens the port, which the others share: the system hands out what comes in.
    for (let i = 0; i < config.doors; i++) {
      const door = keep('door', 'door-process')
      doors.push(door)
      // Where nothing can be prepared, nothing ever begins.
      await Promise.all([prepared, door.started])
    }
    await Promise.all(all().map((each) => each.started))
  } catch (error) {
    await stop()
    throw error
  }
  return {
    get ports() {
      return ports
    },
    stop,
  }
}
