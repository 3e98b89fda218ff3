import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { judge, type Check } from '@flimbo/core/checks'
import type { Job } from '@flimbo/core/jobs'
import type { Code } from '@flimbo/core/codes'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { isPublicAddress } from '../reach/index.ts'
import { dueWorkspaces, follow, type Following } from './index.ts'

/** A site where everything goes wrong that can. */
function site(request: IncomingMessage, response: ServerResponse): void {
  const { pathname, search } = new URL(request.url ?? '/', 'http://x')
  const to = (location: string, status = 302, headers = {}) => {
    response.writeHead(status, { Location: location, ...headers }).end()
  }
  const [, kind = '', n = '0'] = pathname.split('/')
  switch (kind) {
    case 'keep':
      to(`/page${search}`, 301)
      return
    case 'drop':
      to('/page')
      return
    case 'circle':
      to(`/back${search}`)
      return
    case 'back':
      to(`/circle${search}`)
      return
    case 'far':
      to(`/far/${String(Number(n) + 1)}${search}`)
      return
    case 'mail':
      to('mailto:anna@saltmarsh.example')
      return
    case 'inside':
      to('http://10.0.0.1/admin')
      return
    case 'mapped':
      to('http://[::ffff:127.0.0.1]/admin')
      return
    case 'named':
      to(`http://inside.test:${String(port)}/page`)
      return
    case 'cookie':
      if (request.headers.cookie === 'seen=1') response.end('here')
      else to(`/cookie${search}`, 302, { 'Set-Cookie': 'seen=1; Path=/' })
      return
    case 'stall':
      return
    case 'drip': {
      const timer = setInterval(() => response.write('.'), 10)
      response.on('close', () => {
        clearInterval(timer)
      })
      return
    }
    case 'endless': {
      const pour = () => {
        while (response.write('x'.repeat(65_536)) && !response.destroyed);
      }
      response.on('drain', pour)
      pour()
      return
    }
    case 'gone':
      response.writeHead(404).end()
      return
    case 'error':
      response.writeHead(500).end()
      return
    default:
      response.end('here')
  }
}

const server = createServer(site)
let port = 0
beforeAll(
  () =>
    new Promise<void>((resolve) => {
      server.listen(0, '127.0.0.1', () => {
        port = (server.address() as AddressInfo).port
        resolve()
      })
    }),
)
afterAll(() => {
  server.closeAllConnections()
  server.close()
})

/** Only the site's own name is found on this machine; everything else is looked up as it stands. */
const reach = (more: Partial<Following> = {}): Following => ({
  privateToo: false,
  standIn: ({ hostname }) => (hostname === 'shop.test' ? { host: '127.0.0.1', port } : null),
  lookup: (name) =>
    Promise.resolve([{ address: name === 'inside.test' ? '127.0.0.1' : '192.0.2.1', family: 4 }]),
  limits: { hops: 10, bytes: 262_144, ms: 700 },
  ...more,
})
const WANTED = [['utm_source', 'poster']] as const
async function verdict(path: string, more?: Partial<Following>) {
  const { hops, ending } = await follow(`http://shop.test${path}?utm_source=poster`, reach(more))
  return { ...judge(hops, ending, WANTED), hops: hops.length }
}

describe('following a destination', () => {
  it.each([
    ['/page', 'fine', 1],
    ['/keep', 'fine', 2],
    ['/cookie', 'fine', 2],
    ['/drop', 'tags-lost', 2],
    ['/circle', 'loop', 2],
    ['/far', 'too-many-hops', 11],
    ['/mail', 'odd-redirect', 1],
    ['/gone', 'not-found', 1],
    ['/error', 'broken', 1],
    ['/stall', 'too-slow', 1],
    ['/drip', 'too-slow', 1],
    ['/endless', 'fine', 1],
    ['/inside', 'forbidden-address', 2],
    ['/mapped', 'forbidden-address', 2],
    ['/named', 'forbidden-address', 2],
  ])('%s ends as %s after %i requests', async (path, wanted, hops) => {
    expect(await verdict(path)).toMatchObject({ verdict: wanted, hops })
  })

  it('reads no more of an endless body than it may, and at once', async () => {
    const { ms } = await follow('http://shop.test/endless', reach())
    expect(ms).toBeLessThan(700)
  })

  it('connects to the address it checked, however the name answers the next time', async () => {
    let asked = 0
    const rebinding = () =>
      Promise.resolve([{ address: ++asked === 1 ? '192.0.2.1' : '127.0.0.1', family: 4 }])
    const { ending } = await follow(`http://evil.test:${String(port)}/page`, reach({ lookup: rebinding }))
    // 192.0.2.0/24 is kept for documentation (RFC 5737), so it is no public address either.
    expect([ending.kind, asked]).toEqual(['forbidden-address', 1])
  })

  it('reaches private addresses where the configuration says so', async () => {
    expect(await verdict('/named', { privateToo: true })).toMatchObject({ verdict: 'tags-lost', hops: 2 })
  })

  it('says so where nobody is there', async () => {
    const nobody = () => Promise.reject(Object.assign(new Error('no'), { code: 'ENOTFOUND' }))
    expect((await follow('https://nobody.test/', reach({ lookup: nobody }))).ending.kind).toBe('unreachable')
  })

  // Blocks of the IANA special-purpose address registries, and what stands beside them.
  it.each([
    ['8.8.8.8', true],
    ['2606:4700::1111', true],
    ['172.15.0.1', true],
    ['172.32.0.1', true],
    ['10.1.2.3', false],
    ['172.16.0.1', false],
    ['192.168.0.1', false],
    ['127.0.0.1', false],
    ['0.0.0.0', false],
    ['169.254.169.254', false],
    ['100.64.0.1', false],
    ['224.0.0.1', false],
    ['255.255.255.255', false],
    ['::1', false],
    ['::', false],
    ['fc00::1', false],
    ['fe80::1', false],
    ['::ffff:10.0.0.1', false],
    ['64:ff9b::a00:1', false],
    ['x', false],
  ])('%s is public: %s', (address, is) => {
    expect(isPublicAddress(address)).toBe(is)
  })
})

describe('the checks of a workspace', () => {
  let flimbo: Running
  beforeAll(async () => {
    flimbo = await runningFlimbo()
    await flimbo.setUp()
  })
  afterAll(() => flimbo.close())

  it('stand on the piece, and on the desk since when they fail', async () => {
    const campaign = await flimbo.campaign()
    const good = await flimbo.code(campaign.id)
    const bad = await flimbo.code(campaign.id, { destination: 'https://saltmarsh.example/gone' })
    const dropping = await flimbo.code(campaign.id, { destination: 'https://saltmarsh.example/old/page' })
    expect((await flimbo.ask<Check>('POST', `/api/codes/${String(good.id)}/checks`)).body).toMatchObject({
      verdict: 'fine',
      status: 200,
      failingSince: null,
    })
    const { body: first } = await flimbo.ask<Check>('POST', `/api/routes/${String(bad.routeId)}/checks`)
    expect(first).toMatchObject({ verdict: 'not-found', status: 404, failingSince: first.at, codeId: bad.id })
    const { body: begun } = await flimbo.ask<Job>('POST', '/api/check-runs', {})
    expect(begun).toMatchObject({ kind: 'destination-check', campaignId: null, own: true })
    expect((await flimbo.ask<Job>('POST', '/api/check-runs', {})).body.id).toBe(begun.id)
    expect(await flimbo.ended(begun.id)).toMatchObject({
      state: 'done',
      done: 3,
      total: 3,
      sentence: '3 of 3 destinations checked; 2 not as they should be.',
    })
    const { body } = await flimbo.ask<{ rows: Check[] }>('GET', '/api/failing')
    expect(body.rows.map(({ verdict: v, failingSince, lost }) => [v, failingSince, lost])).toEqual([
      ['not-found', first.failingSince, []],
      ['tags-lost', null, ['utm_source', 'utm_medium', 'utm_campaign']],
    ])
    expect((await flimbo.ask<Code>('GET', `/api/codes/${String(dropping.id)}`)).body.check).toMatchObject({
      verdict: 'tags-lost',
      sentence: expect.stringContaining('gone from the final address') as string,
    })
    await flimbo.ask('PATCH', `/api/routes/${String(bad.routeId)}`, {
      version: 1,
      destination: 'https://saltmarsh.example/here',
    })
    expect((await flimbo.ask<{ rows: Check[] }>('GET', '/api/failing')).body.rows).toHaveLength(1)
    expect((await flimbo.ask<Check>('POST', `/api/routes/${String(bad.routeId)}/checks`)).body).toMatchObject(
      { verdict: 'fine', failingSince: null },
    )
  })

  it('end with their run, although one cannot be done at all', async () => {
    const campaign = await flimbo.campaign('Broken', 'broken')
    const { routeId } = await flimbo.code(campaign.id)
    await flimbo.code(campaign.id)
    const file = new Sqlite(flimbo.file)
    file.prepare("UPDATE routes SET destination = 'no address' WHERE id = ?").run(routeId)
    file.close()
    for (let time = 0; time < 2; time++) {
      const { body: run } = await flimbo.ask<Job>('POST', '/api/check-runs', { campaignId: campaign.id })
      expect(await flimbo.ended(run.id)).toMatchObject({
        state: 'done',
        done: 2,
        sentence: '2 of 2 destinations checked; all are fine.',
      })
    }
  })

  it('are due once a day, at the hour of each workspace’s own zone', () => {
    const workspaces = [
      { id: 1, zone: 'Europe/Berlin' },
      { id: 2, zone: 'Asia/Kathmandu' },
    ]
    const threeInBerlin = Date.UTC(2026, 6, 1, 1, 10)
    expect(dueWorkspaces(workspaces, 3, new Map(), threeInBerlin)).toEqual([1])
    expect(dueWorkspaces(workspaces, 3, new Map([[1, '2026-07-01']]), threeInBerlin)).toEqual([])
    expect(dueWorkspaces(workspaces, 3, new Map([[1, '2026-07-01']]), Date.UTC(2026, 5, 30, 21, 20))).toEqual(
      [2],
    )
  })
})
