import { spawnSync } from 'node:child_process'
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { isActive, type Job } from '@flimbo/core/jobs'
import { NO_RULES, openLife } from '@flimbo/core/routing'
import { http, PHONE } from './running.ts'
import { setUpCampaign, exitCodeOf, spawnedFlimbo, START_MS } from './spawned.ts'

/** A Flimbo in processes of its own, with its processes by name. */
async function started(dataDir: string, log: number | 'ignore' = 'ignore') {
  const { child, ports } = await spawnedFlimbo(
    dataDir,
    { FLIMBO_LOG_LEVEL: 'info', FLIMBO_TRUST_PROXY: 'loopback' },
    log,
  )
  const { cookie, ask, code } = await setUpCampaign(ports)
  return {
    ports,
    cookie,
    ask,
    code: (slug: string) => code(slug, 'https://saltmarsh.example/one'),
    /** The process of a part, by its script. */
    pidOf(part: 'door' | 'office'): number {
      const { stdout } = spawnSync('pgrep', ['-P', String(child.pid ?? 0), '-f', `${part}-process`], {
        encoding: 'utf8',
      })
      return Number(stdout.trim().split('\n')[0])
    },
    async stop() {
      child.kill('SIGTERM')
      await exitCodeOf(child)
    },
  }
}
type Started = Awaited<ReturnType<typeof started>>

/** Lines of an import that takes a while. */
const LINES = 3000

let dataDir: string
let flimbo: Started
beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), 'flimbo-processes-'))
  flimbo = await started(dataDir)
}, START_MS)
afterAll(async () => {
  await flimbo.stop()
  rmSync(dataDir, { recursive: true, force: true })
})

const rows = <T>(sql: string, directory = dataDir): T[] => {
  const database = new Sqlite(join(directory, 'flimbo.sqlite'), { readonly: true })
  try {
    return database.prepare(sql).all() as T[]
  } finally {
    database.close()
  }
}

/** One scan on a connection of its own, or one that is kept; null where it broke off. */
function scan(
  port: number,
  path: string,
  mark = '',
  agent?: Agent,
): Promise<{ status: number; location: string; ms: number } | null> {
  const began = performance.now()
  return new Promise((resolve) => {
    const headers = { 'user-agent': PHONE, ...(mark === '' ? {} : { referer: `http://${mark}/` }) }
    request(
      { host: '127.0.0.1', port, path, agent: agent ?? false, headers, timeout: 20_000 },
      (response) => {
        response.resume()
        response.on('end', () => {
          resolve({
            status: response.statusCode ?? 0,
            location: response.headers.location ?? '',
            ms: performance.now() - began,
          })
        })
        response.on('error', () => {
          resolve(null)
        })
      },
    )
      .on('timeout', function destroy(this: { destroy(): void }) {
        this.destroy()
      })
      .on('error', () => {
        resolve(null)
      })
      .end()
  })
}
const pathOf = async (path: string) =>
  new URL((await scan(flimbo.ports.door, path))?.location ?? 'http://none/').pathname
const pause = (ms: number) =>
  new Promise((resolve) => {
    setTimeout(resolve, ms)
  })

/** Keeps scanning until it is told to stop. @returns what was answered, by mark */
function scanning(path: string, connections: number) {
  const agent = new Agent({ keepAlive: true, maxSockets: connections })
  const answered = new Map<string, { status: number; location: string }>()
  let going = true
  let next = 0
  const work = Promise.all(
    Array.from({ length: connections }, async () => {
      while (going) {
        const mark = `m${String(next++)}.saltmarsh.example`
        const answer = await scan(flimbo.ports.door, path, mark, agent)
        if (answer) answered.set(mark, answer)
        else await pause(5)
      }
    }),
  )
  return {
    answered,
    async stop() {
      going = false
      await work
      agent.destroy()
    },
  }
}

describe('a front door that is killed again and again', () => {
  it('comes back by itself with all that it answered on disk, its limit exact, and refuses no connection meanwhile', async () => {
    const { routeId } = await flimbo.code('pier')
    const { version, draftVersion } = await flimbo.ask<{ version: number; draftVersion: number }>(
      'GET',
      `/routes/${String(routeId)}`,
    )
    const rules = { ...NO_RULES, life: { ...openLife('Europe/Berlin'), limit: 2000 } }
    await flimbo.ask('PATCH', `/routes/${String(routeId)}/draft`, {
      draftVersion,
      destination: 'https://saltmarsh.example/one',
      rules,
    })
    await flimbo.ask('POST', `/routes/${String(routeId)}/publish`, {
      version,
      draftVersion: draftVersion + 1,
    })
    const load = scanning('/PIER', 20)
    for (let kill = 0; kill < 4; kill++) {
      const before = load.answered.size
      await vi.waitFor(
        () => {
          expect(load.answered.size).toBeGreaterThan(before + 200)
        },
        { timeout: 30_000, interval: 20 },
      )
      process.kill(flimbo.pidOf('door'), 'SIGKILL')
      // Whoever comes while there is none waits for the next one.
      const waited = await scan(flimbo.ports.door, '/PIER')
      expect(waited === null ? 'refused' : 'answered').toBe('answered')
    }
    await load.stop()
    const stored = new Set(
      rows<{ referrer: string }>('SELECT referrer FROM scans').map(({ referrer }) => referrer),
    )
    expect(
      [...load.answered]
        .filter(([mark, { status }]) => status < 500 && !stored.has(mark))
        .map(([mark]) => mark),
    ).toEqual([])
    const through = rows<{ n: number }>("SELECT count(*) AS n FROM scans WHERE exit = 'otherwise'")[0]?.n ?? 0
    expect(through).toBeLessThanOrEqual(2000)
    expect(rows<{ total: number }>('SELECT total FROM limits')).toEqual([{ total: through }])
  }, 120_000)
})

describe('an import', () => {
  it('that the office is killed in the middle of is done by the next one, each line once', async () => {
    const { ask } = flimbo
    const lines = Array.from(
      { length: LINES },
      (_, i) => `Killed ${String(i)},print,killed,https://saltmarsh.example`,
    )
    const sent = await http(
      'POST',
      flimbo.ports.office,
      '/api/imports?campaignId=1&name=killed.csv',
      { cookie: flimbo.cookie, 'content-type': 'application/octet-stream' },
      `Piece,Medium,Source,Destination\r\n${lines.join('\r\n')}\r\n`,
    )
    const { id } = sent.body as { id: number }
    await ask('POST', `/imports/${String(id)}/runs`, { lines: 'all' })
    await vi.waitFor(
      async () => {
        const { done } = await ask<{ done: number }>('GET', `/imports/${String(id)}`)
        expect(done).toBeGreaterThan(0)
      },
      { timeout: 20_000, interval: 5 },
    )
    process.kill(flimbo.pidOf('office'), 'SIGKILL')
    const job = await vi.waitFor(
      async () => {
        const found = await ask<Job>('GET', `/jobs/${String(id)}`)
        expect(isActive(found)).toBe(false)
        return found
      },
      { timeout: 60_000, interval: 50 },
    )
    expect(job).toMatchObject({
      state: 'done',
      attempts: 2,
      sentence: `${String(LINES)} created, 0 changed.`,
    })
    expect(rows<{ n: number }>("SELECT count(*) n FROM codes WHERE source = 'killed'")).toEqual([
      { n: LINES },
    ])
    // What it noted to take things back by is cleared after it is done.
    await vi.waitFor(
      () => {
        expect(rows('SELECT count(*) n FROM undo_log')).toEqual([{ n: 0 }])
      },
      { timeout: 20_000, interval: 50 },
    )
  }, 120_000)
})

describe('an office that is away', () => {
  it(
    'keeps no phone waiting, whether it hangs or is killed, and comes back',
    async () => {
      await flimbo.code('away')
      const pid = flimbo.pidOf('office')
      process.kill(pid, 'SIGSTOP')
      for (let i = 0; i < 20; i++) expect((await scan(flimbo.ports.door, '/AWAY'))?.status).toBe(302)
      process.kill(pid, 'SIGKILL')
      for (let i = 0; i < 20; i++) expect((await scan(flimbo.ports.door, '/AWAY'))?.status).toBe(302)
      await vi.waitFor(
        async () => {
          await flimbo.ask('GET', '/session')
        },
        { timeout: START_MS, interval: 100 },
      )
      expect(
        rows<{ n: number }>(
          "SELECT count(*) AS n FROM scans JOIN codes ON codes.id = codeId WHERE slug = 'AWAY'",
        ),
      ).toEqual([{ n: 40 }])
    },
    START_MS,
  )
})

describe('a front door that hangs', () => {
  it(
    'is replaced before a change is answered, and the next scan sees the change',
    async () => {
      const { routeId } = await flimbo.code('hung')
      expect(await pathOf('/HUNG')).toBe('/one')
      const hung = flimbo.pidOf('door')
      process.kill(hung, 'SIGSTOP')
      const { version } = await flimbo.ask<{ version: number }>('GET', `/routes/${String(routeId)}`)
      await flimbo.ask('PATCH', `/routes/${String(routeId)}`, {
        version,
        destination: 'https://saltmarsh.example/two',
      })
      expect(flimbo.pidOf('door')).not.toBe(hung)
      expect(await pathOf('/HUNG')).toBe('/two')
    },
    START_MS,
  )
})

describe('a write lock that somebody holds', () => {
  it('makes scans wait and loses none; the office goes on reading', async () => {
    await flimbo.code('stalled')
    expect(await pathOf('/STALLED')).toBe('/one')
    const other = new Sqlite(join(dataDir, 'flimbo.sqlite'))
    other.exec('BEGIN IMMEDIATE')
    const waiting = Promise.all(Array.from({ length: 50 }, () => scan(flimbo.ports.door, '/STALLED')))
    const saving = flimbo.ask<{ id: number }>('POST', '/campaigns', {
      name: 'B',
      zone: 'UTC',
      utmCampaign: 'b',
    })
    for (let i = 0; i < 5; i++) {
      expect(await flimbo.ask('GET', '/session')).toMatchObject({ state: 'signed-in' })
      await pause(100)
    }
    other.exec('COMMIT')
    other.close()
    expect((await waiting).map((answer) => answer?.status)).toEqual(Array.from({ length: 50 }, () => 302))
    expect((await saving).id).toBeGreaterThan(1)
  }, 30_000)
})

describe('a disk that is full, with the log on it', () => {
  const mounted = mkdtempSync(join(tmpdir(), 'flimbo-full-'))
  const isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=48m', 'tmpfs', mounted]).status === 0
  afterAll(() => {
    if (isMounted) spawnSync('umount', ['-l', mounted])
    rmSync(mounted, { recursive: true, force: true })
  })

  it.runIf(isMounted)(
    'is answered with 503, again and again, and everything goes on once there is room',
    async () => {
      const log = openSync(join(mounted, 'log'), 'a')
      const own = await started(mounted, log)
      const was = flimbo
      try {
        flimbo = own
        await own.code('full')
        expect(await pathOf('/FULL')).toBe('/one')
        // Everything that is left on the disk.
        const filler = join(mounted, 'filler')
        for (const size of [1 << 20, 1 << 14, 1 << 10, 64]) {
          try {
            for (;;) writeFileSync(filler, Buffer.alloc(size), { flag: 'a' })
          } catch {
            /* no room for so much */
          }
        }
        const statuses: number[] = []
        for (let i = 0; i < 300; i++) statuses.push((await scan(own.ports.door, '/FULL'))?.status ?? 0)
        expect(new Set(statuses.slice(-250))).toEqual(new Set([503]))
        expect(await own.ask('GET', '/session')).toMatchObject({ state: 'signed-in' })
        rmSync(filler)
        await vi.waitFor(
          async () => {
            expect((await scan(own.ports.door, '/FULL'))?.status).toBe(302)
          },
          { timeout: 15_000, interval: 100 },
        )
        // The same trouble is not told three hundred times.
        expect(
          readFileSync(join(mounted, 'log'), 'utf8')
            .split('\n')
            .filter((line) => line.includes('could not be answered')).length,
        ).toBeLessThan(10)
        const answered = statuses.filter((status) => status === 302).length + 2
        expect(rows<{ n: number }>('SELECT count(*) AS n FROM scans', mounted)[0]?.n).toBe(answered)
      } finally {
        flimbo = was
        await own.stop()
        closeSync(log)
      }
    },
    START_MS + 60_000,
  )
})
