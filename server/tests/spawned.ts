import { spawn, type ChildProcess, type StdioOptions } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { vi } from 'vitest'
import { freePort, http, OWNER } from './running.ts'

/** As it is run for real; the tests' own set-up has just bundled it. */
const MAIN = fileURLToPath(new URL('./dist/main.js', import.meta.url))
export const START_MS = 90_000

/** Starts what may not come up at all. */
export const spawnMain = (settings: Record<string, string>, stdio: StdioOptions, main = MAIN): ChildProcess =>
  spawn(process.execPath, ['--enable-source-maps', main], {
    env: { ...process.env, FLIMBO_CHECK_HOUR: 'off', ...settings },
    stdio,
  })

export interface Ports {
  readonly office: number
  readonly door: number
}
export const freePorts = async (): Promise<Ports> => ({ office: await freePort(), door: await freePort() })

/** A Flimbo in processes of its own, on the data of a directory. @returns once both answer */
export async function spawnedFlimbo(
  dataDir: string,
  ports: Ports,
  settings: Record<string, string> = {},
  log: number | 'ignore' | 'inherit' = 'ignore',
  main = MAIN,
): Promise<ChildProcess> {
  const at = {
    FLIMBO_DATA_DIR: dataDir,
    FLIMBO_OFFICE_PORT: String(ports.office),
    FLIMBO_DOOR_PORT: String(ports.door),
  }
  const child = spawnMain({ ...at, ...settings }, ['ignore', log, 'inherit'], main)
  await vi.waitFor(
    async () => {
      await http('GET', ports.office, '/api/session')
      await http('GET', ports.door, '/')
    },
    { timeout: START_MS, interval: 50 },
  )
  return child
}

export const ended = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) => {
    if (child.exitCode === null && child.signalCode === null) child.once('exit', resolve)
    else resolve(child.exitCode)
  })

/** Sets it up and begins a campaign. @returns the owner's cookie and their way of asking */
export async function begun({ office }: Ports) {
  const owner = await http('POST', office, '/api/owner', {}, JSON.stringify(OWNER))
  const cookie = owner.headers['set-cookie']?.[0]?.split(';', 1)[0] ?? ''
  const ask = async <T>(method: string, path: string, body?: unknown) =>
    (
      await http(
        method,
        office,
        `/api${path}`,
        { cookie },
        body === undefined ? undefined : JSON.stringify(body),
      )
    ).body as T
  await ask('POST', '/campaigns', { name: 'A', zone: 'Europe/Berlin', utmCampaign: 'a' })
  const code = (slug: string, destination = 'https://saltmarsh.example') =>
    ask<{ id: number; routeId: number }>('POST', '/codes', {
      campaignId: 1,
      name: slug,
      medium: 'print',
      source: 'a',
      slug,
      destination,
    })
  return { cookie, ask, code }
}
