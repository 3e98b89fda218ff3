// npm run bench -- pages: what a page weighs, how soon its first byte and that of a file come beside a redirect's, and what a
// throttled phone sees (largest contentful paint, layout shift), with a picture or without.
import { mkdtempSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { gzipSync } from 'node:zlib'
import sharp from 'sharp'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import { emptyContent, newPart, type Page, type PageContent, type Part } from '@flimbo/core/pages'
import { textFromPlain } from '@flimbo/core/fields'
import { openBrowser } from '../../e2e/browser.ts'
import { PHONE } from '../../server/tests/phones.ts'
import { ascending, at, median } from '../figures.ts'
import { startServer } from '../startServer.ts'

const dataDir = mkdtempSync(join(tmpdir(), 'flimbo-bench-'))
const [OFFICE, DOOR] = [4193, 4191]
const ROUNDS = 400
const MAIN = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url))
/** A phone with one bar: 1.6 Mbit/s, 150 ms there and back, and a quarter of this machine's pace. */
const SLOW = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 93_750 }
const CPU_TIMES_SLOWER = 4
const PHONE_ROUNDS = 5

const server = await startServer(MAIN, OFFICE, {
  ...process.env,
  NODE_ENV: 'production',
  FLIMBO_OFFICE_PORT: String(OFFICE),
  FLIMBO_DOOR_PORT: String(DOOR),
  FLIMBO_DATA_DIR: dataDir,
  FLIMBO_TRUST_PROXY: 'loopback',
  FLIMBO_LOG_LEVEL: 'error',
})

let cookie = ''
async function ask<T>(method: string, path: string, body: unknown, type = 'application/json'): Promise<T> {
  const sent = type === 'application/json' ? JSON.stringify(body) : (body as Uint8Array)
  const answer = await fetch(`http://localhost:${String(OFFICE)}/api${path}`, {
    method,
    headers: { 'Content-Type': type, cookie },
    body: sent as BodyInit,
  })
  cookie = answer.headers.get('set-cookie')?.split(';', 1)[0] ?? cookie
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
  return (await answer.json()) as T
}

const link = (id: string): Part => ({
  ...newPart('link', id),
  label: { en: 'Guided walks to Tern Sands' },
  note: { en: 'Every day, two hours before low water' },
  address: 'https://saltmarsh.example/walks?day=today',
})
const title: Part = { ...newPart('heading', 'h'), text: { en: 'Tides and boats today' } }
const text: Part = {
  ...newPart('text', 't'),
  text: { en: textFromPlain('Boats leave two hours before high water.') },
}
const links = (count: number) => Array.from({ length: count }, (_each, i) => link(`l${String(i)}`))

/** A code at whose short link a page is shown. */
async function codeTo(slug: string, parts: readonly Part[]): Promise<void> {
  const { id } = await ask<Page>('POST', '/pages', { campaignId: 1, name: slug })
  const content: PageContent = {
    ...emptyContent('en', 'Europe/Berlin'),
    title: { en: slug },
    parts: [...parts],
  }
  await ask('PATCH', `/pages/${String(id)}/draft`, { draftVersion: 1, content })
  await ask('POST', `/pages/${String(id)}/publish`, { draftVersion: 2 })
  const { routeId } = await code(slug)
  const lane = {
    id: 'page',
    name: '',
    condition: EVERY_SCAN,
    outcome: { kind: 'page', pageId: id },
    resting: false,
  }
  const route = (await (
    await fetch(`http://localhost:${String(OFFICE)}/api/routes/${String(routeId)}`, { headers: { cookie } })
  ).json()) as { destination: string; rules: object; version: number }
  await ask('PATCH', `/routes/${String(routeId)}/draft`, {
    draftVersion: 0,
    destination: route.destination,
    rules: { ...route.rules, lanes: [lane] },
  })
  await ask('POST', `/routes/${String(routeId)}/publish`, { version: route.version, draftVersion: 1 })
}
const code = (slug: string) =>
  ask<{ routeId: number }>('POST', '/codes', {
    campaignId: 1,
    name: slug,
    slug,
    medium: 'print',
    source: 'bench',
    destination: 'https://saltmarsh.example/',
  })

const agent = new Agent({ keepAlive: true })
/** Milliseconds until the first byte of an answer, and the answer. */
const firstByte = (path: string, headers = {}): Promise<{ ms: number; body: Buffer }> =>
  new Promise((resolve, reject) => {
    const began = performance.now()
    request({ agent, port: DOOR, path, headers: { 'user-agent': PHONE, ...headers } }, (response) => {
      const ms = performance.now() - began
      const pieces: Buffer[] = []
      response.on('data', (piece: Buffer) => pieces.push(piece))
      response.on('end', () => {
        resolve({ ms, body: Buffer.concat(pieces) })
      })
    })
      .on('error', reject)
      .end()
  })

try {
  await ask('POST', '/owner', {
    workspace: 'Bench',
    zone: 'Europe/Berlin',
    name: 'Bench',
    email: 'bench@saltmarsh.example',
    password: 'bench bench bench',
  })
  await ask('POST', '/campaigns', { name: 'Bench', zone: 'Europe/Berlin', utmCampaign: 'bench' })
  const noise = { type: 'gaussian', mean: 128, sigma: 30 } as const
  const bytes = await sharp({
    create: { width: 1600, height: 1000, channels: 3, background: '#3e8fb5', noise },
  })
    .blur(6)
    .jpeg()
    .toBuffer()
  const { key } = await ask<{ key: string }>('POST', '/files?name=sea.jpg', bytes, 'application/octet-stream')
  const picture: Part = { ...newPart('picture', 'p'), picture: { en: key }, alt: { en: 'The sea' } }
  await code('redirect')
  await codeTo('one', [title])
  await codeTo('ten', [title, text, ...links(8)])
  await codeTo('fifty', [title, text, ...links(48)])
  await codeTo('picture', [title, picture, text, ...links(3)])

  console.log('Bytes of a page, as it is and packed (gzip):')
  for (const slug of ['one', 'ten', 'fifty', 'picture']) {
    const { body } = await firstByte(`/${slug}`)
    console.log(
      `  ${slug.padEnd(8)} ${String(body.length).padStart(6)} ${String(gzipSync(body).length).padStart(6)}`,
    )
  }

  const paths = {
    redirect: '/redirect',
    'page of 10': '/ten',
    'page of 50': '/fifty',
    file: `/~f/${key}/sea.jpg`,
  }
  const times = new Map<string, number[]>(Object.keys(paths).map((name) => [name, []]))
  for (let i = 0; i < ROUNDS; i++)
    for (const [name, path] of Object.entries(paths)) {
      const { ms } = await firstByte(path, { 'accept-encoding': 'gzip' })
      // The first are answered by code that is not compiled yet.
      if (i > ROUNDS / 4) times.get(name)?.push(ms)
    }
  console.log(
    '\nFirst byte in ms, one after the other on one connection: median, 95 of 100, and times a redirect:',
  )
  const redirect = median(times.get('redirect') ?? [])
  for (const [name, all] of times)
    console.log(
      `  ${name.padEnd(11)} ${median(all).toFixed(2)} ${at(ascending(all), 0.95).toFixed(2)} ${(median(all) / redirect).toFixed(2)}`,
    )

  console.log(
    `\nA throttled phone (1.6 Mbit/s, 150 ms, ${String(CPU_TIMES_SLOWER)} times slower), median of ${String(PHONE_ROUNDS)}:`,
  )
  for (const slug of ['ten', 'picture', 'fifty']) {
    const paints: number[] = []
    const shifts: number[] = []
    for (let i = 0; i < PHONE_ROUNDS; i++) {
      const browser = await openBrowser({ width: 360, height: 740, userAgent: PHONE })
      const page = await browser.newPage()
      const session = await browser.newCDPSession(page)
      await session.send('Network.enable')
      await session.send('Network.emulateNetworkConditions', SLOW)
      await session.send('Emulation.setCPUThrottlingRate', { rate: CPU_TIMES_SLOWER })
      await page.goto(`http://localhost:${String(DOOR)}/${slug}`, { waitUntil: 'load' })
      const seen = await page.evaluate(
        () =>
          new Promise<{ paint: number; shift: number }>((resolve) => {
            let [paint, shift] = [0, 0]
            new PerformanceObserver((list) => {
              for (const entry of list.getEntries()) paint = entry.startTime
            }).observe({ type: 'largest-contentful-paint', buffered: true })
            new PerformanceObserver((list) => {
              for (const entry of list.getEntries()) shift += (entry as unknown as { value: number }).value
            }).observe({ type: 'layout-shift', buffered: true })
            setTimeout(() => {
              resolve({ paint, shift })
            }, 1500)
          }),
      )
      paints.push(seen.paint)
      shifts.push(seen.shift)
      await browser.close()
    }
    console.log(
      `  ${slug.padEnd(8)} largest paint ${median(paints).toFixed(0)} ms, layout shift ${Math.max(...shifts).toFixed(4)}`,
    )
  }
} finally {
  agent.destroy()
  server.kill('SIGTERM')
  rmSync(dataDir, { recursive: true, force: true })
}
