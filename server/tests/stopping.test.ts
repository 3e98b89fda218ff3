import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { http, PHONE } from './running.ts'
import { setUpCampaign, exitCodeOf, spawnedFlimbo, spawnMain, START_MS, type Ports } from './spawned.ts'

let dataDir: string
let child: ChildProcess
let ports: Ports

beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), 'flimbo-stop-'))
  ;({ child, ports } = await spawnedFlimbo(dataDir, { FLIMBO_LOG_LEVEL: 'error' }))
  await (await setUpCampaign(ports)).code('pier')
}, START_MS)
afterAll(() => {
  child.kill('SIGKILL')
  rmSync(dataDir, { recursive: true, force: true })
})

/** Scans as fast as it can until the door is gone. Each scan is marked by its referrer host, which is stored. @returns the marks that were answered */
async function scanUntilGone(kind: string, afterAnswers: number, then: () => void): Promise<string[]> {
  const agent = new Agent({ keepAlive: true, maxSockets: 32 })
  const answered: string[] = []
  let next = 0
  let told = false
  const one = (mark: string) =>
    new Promise<boolean>((resolve) => {
      request(
        {
          host: '127.0.0.1',
          port: ports.door,
          path: '/PIER',
          agent,
          headers: { 'user-agent': PHONE, referer: `http://${mark}.saltmarsh.example/` },
        },
        (response) => {
          if (response.statusCode === 302) answered.push(`${mark}.saltmarsh.example`)
          response.resume()
          response.on('end', () => {
            resolve(true)
          })
          response.on('error', () => {
            resolve(false)
          })
        },
      )
        .on('error', () => {
          resolve(false)
        })
        .end()
    })
  await Promise.all(
    Array.from({ length: 32 }, async () => {
      while (await one(`${kind}${String(next++)}`)) {
        if (answered.length >= afterAnswers && !told) {
          told = true
          then()
        }
      }
    }),
  )
  agent.destroy()
  return answered
}

function storedMarks(): { marks: Set<string>; sound: unknown } {
  const database = new Sqlite(join(dataDir, 'flimbo.sqlite'))
  const marks = (database.prepare('SELECT referrer FROM scans').all() as { referrer: string }[]).map(
    ({ referrer }) => referrer,
  )
  const sound = database.pragma('integrity_check', { simple: true })
  database.close()
  return { marks: new Set(marks), sound }
}

describe('a server that is killed under load', () => {
  it('has every answered redirect’s scan in the database, and starts again', async () => {
    const end = exitCodeOf(child)
    const answered = await scanUntilGone('killed', 800, () => child.kill('SIGKILL'))
    await end
    const { marks, sound } = storedMarks()
    expect(answered.length).toBeGreaterThanOrEqual(800)
    expect(answered.filter((mark) => !marks.has(mark))).toEqual([])
    expect(sound).toBe('ok')
    ;({ child, ports } = await spawnedFlimbo(dataDir, { FLIMBO_LOG_LEVEL: 'error' }))
    expect((await http('GET', ports.door, '/pier', { 'user-agent': PHONE })).status).toBe(302)
  })
})

describe('a server that is asked to stop under load', () => {
  it('finishes open requests, writes queued scans, and ends well', async () => {
    const end = exitCodeOf(child)
    const answered = await scanUntilGone('stopped', 300, () => child.kill('SIGTERM'))
    expect(await end).toBe(0)
    const stored = [...storedMarks().marks].filter((mark) => mark.startsWith('stopped'))
    expect(stored.sort()).toEqual(answered.sort())
  })
})

describe('a wrong setting', () => {
  it('stops the start with one clear line', async () => {
    const wrong = spawnMain({ FLIMBO_DOOR_PORT: 'many' }, ['ignore', 'pipe', 'pipe'])
    let said = ''
    wrong.stderr?.on('data', (part: Buffer) => {
      said += part.toString()
    })
    expect(await new Promise((resolve) => wrong.once('exit', resolve))).toBe(78)
    expect(said).toBe('FLIMBO_DOOR_PORT=many: must be a port number\n')
  })
})
