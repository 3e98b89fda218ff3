import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { z } from 'zod'
import type { Endpoint } from '@flimbo/core/api'
import { DIMENSION_NAMES } from '@flimbo/core/dimensions'
import { everyEndpoint } from '@flimbo/core/contracts'
import { callThread, type CalledThread } from '../threads/index.ts'
import type { ProbeCalls, Probed } from './probe-thread.ts'
import { OWNER } from './http.ts'
import { setUpCampaign, exitCodeOf, spawnedFlimbo, START_MS, type Ports } from './spawned.ts'

/*
 * Every endpoint of the contract, every field of each, with what nobody should send, by several at once; and beside it a probe that scans at
 * the front door every 20 ms. New endpoints are in it as soon as they are in the contract.
 */

/** So long may a phone wait while the office is being misused. */
const PHONE_WAITS_MS = 250
const MEMORY_MAX_MB = 1500
/** So many misuse it at once. */
const PEOPLE = 4
const MEGABYTE = 'x'.repeat(1 << 20)
const NESTED = 100_000

let dataDir: string
let child: ChildProcess
let ports: Ports
let cookie = ''
let probe: CalledThread<ProbeCalls>

beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), 'flimbo-misuse-'))
  ;({ child, ports } = await spawnedFlimbo(dataDir, { FLIMBO_LOG_LEVEL: 'silent' }))
  const { cookie: owners, ask, code } = await setUpCampaign(ports)
  cookie = owners
  await code('probe')
  probe = callThread<ProbeCalls>('probe-thread', import.meta.url, { port: ports.door, path: '/PROBE' })
  await ask('POST', '/pages', { campaignId: 1, name: 'P' })
  await ask('POST', '/lane-sets', { name: 'S', lanes: [] })
}, START_MS)
afterAll(async () => {
  await probe.end()
  child.kill('SIGTERM')
  await exitCodeOf(child)
  rmSync(dataDir, { recursive: true, force: true })
})

/** Sends something; the status it is answered with, or why it was not. */
function send(
  method: string,
  path: string,
  body?: string | Uint8Array,
  headers: Record<string, string> = {},
): Promise<number | string> {
  return new Promise((resolve) => {
    const asking = request(
      {
        host: '127.0.0.1',
        port: ports.office,
        method,
        path,
        headers: {
          cookie,
          'content-type': 'application/json',
          ...(body === undefined ? {} : { 'content-length': String(Buffer.byteLength(body)) }),
          ...headers,
        },
        timeout: 30_000,
      },
      (response) => {
        // A stream of events has no end: its beginning is enough.
        if (response.headers['content-type']?.startsWith('text/event-stream')) {
          resolve(response.statusCode ?? 0)
          response.destroy()
          return
        }
        response.resume()
        response.on('end', () => {
          resolve(response.statusCode ?? 0)
        })
        response.on('error', () => {
          resolve('broken off')
        })
      },
    )
    asking.on('timeout', () => {
      asking.destroy()
      resolve('no answer')
    })
    asking.on('error', (error) => {
      resolve((error as { code?: string }).code ?? 'error')
    })
    asking.end(body)
  })
}

/** Scans every 20 ms, in a thread of its own, while something is done. */
async function probed(work: () => Promise<void>): Promise<Probed> {
  await probe.call('go')
  let probed: Probed
  try {
    await work()
  } finally {
    probed = await probe.call('stop')
  }
  return probed
}

type Json = Record<string, unknown>
const jsonSchemaOf = (schema: z.ZodType): Json =>
  z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' })

/** Some value that a schema takes, as far as its JSON Schema tells. */
function sample(schema: Json): unknown {
  const [first] = (schema.anyOf ?? schema.oneOf ?? schema.enum ?? []) as unknown[]
  if (schema.const !== undefined) return schema.const
  if (Array.isArray(schema.enum)) return first
  if (schema.anyOf || schema.oneOf) return sample(first as Json)
  if (schema.default !== undefined) return schema.default
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        ((schema.required ?? []) as string[]).map((name) => [
          name,
          sample(((schema.properties ?? {}) as Record<string, Json>)[name] ?? {}),
        ]),
      )
    case 'array':
      return []
    case 'integer':
    case 'number':
      return 1
    case 'boolean':
      return true
    case 'null':
      return null
    default:
      return schema.format === 'date' ? '2026-07-01' : 'a'
  }
}

const fieldsOf = (schema: z.ZodType | undefined): string[] => {
  if (!schema) return []
  const json = jsonSchemaOf(schema)
  const all = [json, ...((json.anyOf ?? []) as Json[])]
  return [...new Set(all.flatMap(({ properties = {} }) => Object.keys(properties as Json)))]
}
const sampleOf = (schema: z.ZodType | undefined): Json =>
  schema ? (sample(jsonSchemaOf(schema)) as Json) : {}

/** What no field is meant for. Numbers for counts among them, so that the largest of each is asked for. */
const QUERY_VALUES = [
  '',
  '0',
  '-1',
  '1e309',
  '9007199254740993',
  '9999-12-31',
  '0002-01-01',
  '2200-12-31',
  '1970-01-01',
  'x'.repeat(10_000),
  '%00',
  '\u202e',
  '[[[[',
  'null',
  '{"$gt":""}',
  "' OR 1=1 --",
]
const entries = Array.from({ length: 10_000 }, (_, i) => i)
let nested: unknown = 1
for (let i = 0; i < 60; i++) nested = [nested]
const BODY_VALUES: readonly unknown[] = [
  null,
  true,
  -1,
  1e308,
  '',
  '9999-12-31',
  '0002-01-01T00:00',
  '\u0000',
  ' \u200b\u3164 ',
  '\u202egnp.exe',
  MEGABYTE.slice(0, 900_000),
  entries,
  nested,
  {},
  { $gt: '' },
  entries.map(String),
]

const filled = (path: string, value = '1') => `/api${path.replace(/:\w+/g, encodeURIComponent(value))}`
const KNOWN_REFUSALS = new Set([200, 201, 202, 204, 400, 401, 403, 404, 409, 413, 422, 429, 503])
/** What ends the misuse itself: without a session there is nothing more to misuse. */
const endsSession = ({ method, path }: Endpoint) => method === 'DELETE' && path === '/session'

/** Everything sent to one endpoint, as path and body. */
function* attacks(
  each: Endpoint,
): Generator<{ what: string; path: string; body?: string; type?: string }, void, undefined> {
  const path = filled(each.path)
  const query = Object.entries(sampleOf(each.query)).map(([name, value]) => [name, String(value)] as const)
  const withQuery = (more: readonly (readonly [string, string])[]) =>
    `${path}?${new URLSearchParams([...query.filter(([name]) => !more.some(([other]) => other === name)), ...more].map(([name, value]) => [name, value])).toString()}`
  const plain = withQuery([])
  const good = sampleOf(each.body)
  const ok = each.body ? { body: JSON.stringify(good) } : {}
  for (const value of ['0', '-1', '9'.repeat(400), 'NaN', '%2e%2e', '__proto__'])
    if (each.path.includes(':')) yield { what: `path ${value.slice(0, 9)}`, path: filled(each.path, value) }
  for (const name of fieldsOf(each.query))
    for (const value of QUERY_VALUES)
      yield { what: `query ${name}=${value.slice(0, 14)}`, path: withQuery([[name, value]]), ...ok }
  yield { what: 'query twice', path: `${plain}&${query.map(([name]) => `${name}=2`).join('&')}`, ...ok }
  if (each.takes) {
    yield { what: 'bytes of nothing', path: plain, body: '', type: each.takes }
    yield { what: 'a megabyte of one cell', path: plain, body: MEGABYTE, type: each.takes }
    yield { what: 'a million columns', path: plain, body: ','.repeat(1_000_000), type: each.takes }
    yield { what: 'a broken ZIP', path: plain, body: `PK\u0003\u0004${'x'.repeat(1000)}`, type: each.takes }
    yield { what: '40 MB', path: plain, body: MEGABYTE.repeat(40), type: each.takes }
  }
  if (!each.body) return
  for (const body of [
    '',
    '[]',
    'null',
    '{',
    '"',
    '\ufeff{}',
    MEGABYTE,
    '['.repeat(NESTED),
    '{"a":'.repeat(NESTED),
    `{"a":"${'\\u0000'.repeat(1000)}"}`,
  ])
    yield { what: `body ${body.slice(0, 8)}`, path: plain, body }
  yield { what: '17 MB nested', path: plain, body: '['.repeat(17 << 20) }
  for (const name of fieldsOf(each.body))
    for (const value of BODY_VALUES)
      yield {
        what: `body ${name}: ${JSON.stringify(value).slice(0, 14)}`,
        path: plain,
        body: JSON.stringify({ ...good, [name]: value }),
      }
  yield {
    what: 'unknown fields',
    path: plain,
    body: JSON.stringify({ ...good, ...Object.fromEntries(entries.map((n) => [`f${String(n)}`, n])) }),
  }
  yield {
    what: 'the prototype',
    path: plain,
    body: '{"__proto__":{"role":"admin"},"constructor":{"prototype":{}}}',
  }
}

/** Everything sent to a room, made when it is its turn. */
function* attacksOn(room: string) {
  for (const each of everyEndpoint)
    if (each.room === room && !endsSession(each))
      for (const attack of attacks(each)) yield { each, ...attack }
}

const memoryMb = (): number => {
  const own = (pid: string) =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
  const children = readFileSync(`/proc/${String(child.pid)}/task/${String(child.pid)}/children`, 'utf8')
    .trim()
    .split(' ')
  return Math.max(...children.map(own))
}

const rooms = [...new Set(everyEndpoint.map(({ room }) => room))]

describe('misuse of the office', () => {
  it('without signing in is refused before a body is looked at', async () => {
    const signedOut = { cookie: '' }
    const bomb = '['.repeat(16 << 20)
    const statuses = new Set<number | string>()
    const { slowest, failed } = await probed(async () => {
      for (const each of everyEndpoint) {
        if (each.access === 'anybody' || each.method === 'GET') continue
        statuses.add(await send(each.method, filled(each.path), bomb, signedOut))
      }
      for (let i = 0; i < 5; i++)
        statuses.add(
          await send(
            'POST',
            '/api/owner',
            JSON.stringify({ ...OWNER, email: 'x@saltmarsh.example' }),
            signedOut,
          ),
        )
      statuses.add(await send('POST', '/api/session', bomb, signedOut))
    })
    expect([...statuses].sort()).toEqual([401, 403, 413])
    expect([failed, slowest < PHONE_WAITS_MS]).toEqual([[], true])
  }, 120_000)

  it.each(rooms)(
    'in the room %s is refused in a sentence, and no phone feels it',
    async (room) => {
      const unexpected: string[] = []
      let sent = 0
      const { slowest, failed, scans } = await probed(async () => {
        const coming = attacksOn(room)
        await Promise.all(
          Array.from({ length: PEOPLE }, async () => {
            // Each takes the next one as soon as theirs is answered.
            for (const { each, what, path, body, type } of coming) {
              sent++
              const status = await send(
                each.method,
                path,
                body,
                type === undefined ? {} : { 'content-type': type },
              )
              if (!KNOWN_REFUSALS.has(Number(status)))
                unexpected.push(`${each.method} ${each.path}, ${what}: ${String(status)}`)
            }
          }),
        )
      })
      expect(unexpected).toEqual([])
      expect(failed).toEqual([])
      expect(sent).toBeGreaterThan(0)
      expect(scans).toBeGreaterThan(0)
      expect(slowest).toBeLessThan(PHONE_WAITS_MS)
      expect(memoryMb()).toBeLessThan(MEMORY_MAX_MB)
    },
    240_000,
  )

  it('by many at once leaves the probe alone, and the office answers afterwards', async () => {
    const heavy = [
      '/api/results?from=1970-01-01&to=2200-12-31',
      '/api/scans?campaignId=1&page=1000000&pageSize=500',
      '/api/scans.csv?campaignId=1',
      '/api/codes?campaignId=1&pageSize=500',
      '/api/campaigns?pageSize=500',
      '/api/pulse',
    ]
    // All that can be asked at once, of all there is; no two are equal.
    const questions = DIMENSION_NAMES.filter((each) => each !== 'weekday')
      .slice(-23)
      .map((each) => ({ by: [each, 'weekday'] }))
    const figures = (i: number) =>
      JSON.stringify({
        from: '1970-01-01',
        to: `2200-12-${String(10 + (i % 20))}`,
        against: 'before',
        questions,
      })
    const statuses = new Set<number | string>()
    const { slowest, failed } = await probed(async () => {
      await Promise.all(
        Array.from({ length: 200 }, async (_, i) => {
          statuses.add(await send('GET', heavy[i % heavy.length] ?? '/api/pulse'))
          if (i % 8 === 0) statuses.add(await send('POST', '/api/figures', figures(i)))
        }),
      )
    })
    expect([...statuses].filter((status) => status !== 200 && status !== 503)).toEqual([])
    expect([failed, slowest < PHONE_WAITS_MS]).toEqual([[], true])
    expect(await send('GET', '/api/session')).toBe(200)
  }, 60_000)
})
