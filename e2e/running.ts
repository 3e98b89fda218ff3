import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Page } from 'playwright-core'
import { expect } from 'vitest'
import { OWNER } from '../server/tests/http.ts'
import { exitCodeOf, spawnedFlimbo } from '../server/tests/spawned.ts'
import { openBrowser, type Look } from './browser.ts'

const root = fileURLToPath(new URL('..', import.meta.url))

/** The built server on an empty database file of its own, with the stand-ins beside it. */
export async function builtServer(prepare?: (databaseFile: string) => Promise<void>) {
  const dataDir = mkdtempSync(join(tmpdir(), 'flimbo-e2e-'))
  await prepare?.(join(dataDir, 'flimbo.sqlite'))
  const { child, ports } = await spawnedFlimbo(
    dataDir,
    {
      FLIMBO_STANDINS: 'on',
      FLIMBO_TRUST_PROXY: 'loopback',
      FLIMBO_LOG_LEVEL: 'error',
    },
    'inherit',
    `${root}server/dist/main.js`,
  )
  const office = `http://localhost:${String(ports.office)}`
  return {
    office,
    door: `http://localhost:${String(ports.door)}`,
    standIn: `http://localhost:${String(ports.standIn)}`,
    file: join(dataDir, 'flimbo.sqlite'),
    async close() {
      child.kill('SIGTERM')
      await exitCodeOf(child)
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
}

/** A browser whose complaints are kept: pages must work under their own content security policy and without errors. */
export async function watchedBrowser(look?: Look) {
  const context = await openBrowser(look)
  const page = context.pages()[0] ?? (await context.newPage())
  const complaints: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
      complaints.push(message.text())
  })
  page.on('pageerror', (error) => complaints.push(String(error)))
  page.setDefaultTimeout(20_000)
  return { page, complaints, close: () => context.close() }
}

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

const WCAG_AA = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
/** What a colour scheme can break: all else is the same in the other one. */
const COLOURS = ['color-contrast', 'link-in-text-block']

/** Checks a page by axe against WCAG 2.2 AA: all of it, or what its colours have to meet. */
export async function expectAccessible(page: Page, what: 'all' | 'colours' = 'all'): Promise<void> {
  // A colour on its way from one state to the next is neither's; it sets out with the next frames.
  await page.evaluate(
    () =>
      new Promise((resolve) => {
        requestAnimationFrame(() => requestAnimationFrame(resolve))
      }),
  )
  await page.evaluate(() =>
    Promise.race([
      Promise.all(
        document
          .getAnimations()
          .filter((each) => each.effect?.getComputedTiming().iterations !== Infinity)
          .map((each) => each.finished.catch(() => null)),
      ),
      new Promise((resolve) => {
        setTimeout(resolve, 1000)
      }),
    ]).then(() => undefined),
  )
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe)
  const found = await page.evaluate(
    async (runOnly) => {
      const { axe: checker } = window as unknown as {
        axe: {
          run: (
            options: object,
          ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>
        }
      }
      const { violations } = await checker.run({
        runOnly,
        // Nothing is asked of what passes: that would be written down element by element.
        resultTypes: ['violations'],
      })
      return violations.map(
        ({ id, nodes }) =>
          `${id}: ${nodes
            .slice(0, 3)
            .map(({ html, failureSummary }) => `${html.slice(0, 220)} — ${failureSummary.slice(0, 200)}`)
            .join(' | ')}`,
      )
    },
    what === 'all' ? WCAG_AA : COLOURS,
  )
  expect(found).toEqual([])
}

/** Goes to another screen of the application that is open, as its links do: without loading it anew. */
export async function openScreen(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate'))
  }, path)
}

/** Calls the API from the page, as whoever is signed in there. */
export function api<T>(page: Page, method: string, path: string, body?: unknown): Promise<T> {
  return page.evaluate(
    async ([m, p, b]) => {
      const answer = await fetch(`/api${p}`, {
        method: m,
        ...(b === undefined
          ? {}
          : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(b) }),
      })
      if (!answer.ok) throw new Error(`${m} ${p}: ${await answer.text()}`)
      return (await answer.json()) as never
    },
    [method, path, body] as const,
  )
}

/** Sets the workspace up over the API, in the page's own session. */
export async function setUp(page: Page, office: string): Promise<void> {
  await page.goto(office)
  await api(page, 'POST', '/owner', OWNER)
  await page.goto(office)
  await page.getByRole('heading', { name: 'Desk' }).waitFor()
}

/** A campaign with one piece, whose scans lead to the stand-in site. @returns the campaign's number */
export async function seasonPass(page: Page, standIn: string, path: string): Promise<number> {
  const { id: campaignId } = await api<{ id: number }>(page, 'POST', '/campaigns', {
    name: 'Season pass',
    zone: 'Europe/Berlin',
    utmCampaign: 'pass-26',
  })
  await api(page, 'POST', '/codes', {
    campaignId,
    name: 'Pier poster',
    slug: 'pass',
    medium: 'print',
    source: 'pier-poster',
    destination: `${standIn}/at/saltmarsh.example${path}`,
  })
  return campaignId
}
