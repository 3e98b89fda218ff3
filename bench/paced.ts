import { fork, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'

/** Milliseconds from when each scan was due to when it was answered, and answers that were no redirect. */
export interface Paced {
  readonly latencies: readonly number[]
  readonly others: number
}

export interface Pace {
  readonly port: number
  readonly slugs: readonly string[]
  readonly perSecond: number
}

/**
 * Phones at a steady pace, in a process of their own: what the bench does for the office does not make them late.
 * Whether or not the scans before are answered, the next is sent when it is due.
 */
export async function startPhones(pace: Pace) {
  const child: ChildProcess = fork(fileURLToPath(new URL('paced-process.ts', import.meta.url)), {
    execArgv: ['--import', 'tsx'],
    serialization: 'advanced',
  })
  child.send(pace)
  await once(child, 'message')
  return {
    async while(working: Promise<unknown>): Promise<Paced> {
      child.send('go')
      await working
      child.send('stop')
      const [paced] = (await once(child, 'message')) as [Paced]
      return paced
    },
    close() {
      child.kill()
    },
  }
}
