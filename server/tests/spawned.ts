import { spawn, type ChildProcess, type StdioOptions } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { vi } from 'vitest'
import type { Ports } from '../line/index.ts'
import { http, OWNER } from './http.ts'

/** As it is run for real; the tests' own set-up has just bundled it. */
const MAIN = fileURLToPath(new URL('./dist/main.js', import.meta.url))
export const START_MS = 90_000

/** Starts what may not come up at all. */
export const spawnMain = (settings: Record<string, string>, stdio: StdioOptions, main = MAIN): ChildProcess =>
  spawn(process.execPath, [main], {
    env: { ...process.env, FLIMBO_CHECK_HOUR: 'off', ...settings },
    stdio,
  })

export type { Ports } from '../line/index.ts'

/** A Flimbo in processes of its own, on the data of a directory and on ports that the system chooses. @returns once both answer */
export async function spawnedFlimbo(
  dataDir: string,
  settings: Record<string, string> = {},
  log: number | 'ignore' | 'inherit' = 'ignore',
  main = MAIN,
): Promise<{ child: ChildProcess; ports: Ports }> {
  const chosen = {
    FLIMBO_DATA_DIR: dataDir,
    FLIMBO_OFFICE_PORT: '0',
    FLIMBO_DOOR_PORT: '0',
    FLIMBO_STANDIN_PORT: '0',
    FLIMBO_DNS_STANDIN_PORT: '0',
    FLIMBO_SMTP_STANDIN_PORT: '0',
  }
  const child = spawnMain({ ...chosen, ...settings }, ['ignore', log, 'inherit', 'ipc'], main)
  const ports = await new Promise<Ports>((resolve, reject) => {
    child.once('message', (message) => {
      // The one thing it says to whoever started it.
      resolve((message as { ports: Ports }).ports)
    })
    child.once('exit', (code) => {
      reject(new Error(`Flimbo ended with ${String(code)} before it was ready`))
    })
  })
  await vi.waitFor(
    async () => {
      await http('GET', ports.office, '/api/session')
      await http('GET', ports.door, '/')
    },
    { timeout: START_MS, interval: 50 },
  )
  return { child, ports }
}

export const exitCodeOf = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) => {
    if (child.exitCode === null && child.signalCode === null) child.once('exit', resolve)
    else resolve(child.exitCode)
  })

/** Sets it up and begins a campaign. @returns the owner's cookie and their way of asking */
export async function setUpCampaign({ office }: Pick<Ports, 'office'>) {
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
