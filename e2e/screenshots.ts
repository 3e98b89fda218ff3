// npm run shots: takes a picture of each main view from the running demo, into docs/screenshots.
// --out DIR puts them elsewhere, --dark takes the dark scheme, --only NAME takes one.
import { mkdirSync } from 'node:fs'
import { parseArgs } from 'node:util'
import type { Page } from 'playwright-core'
import { PHONE } from '../server/tests/phones.ts'
import { openBrowser } from './browser.ts'

const { values } = parseArgs({
  options: {
    out: { type: 'string', default: 'docs/screenshots' },
    dark: { type: 'boolean', default: false },
    only: { type: 'string' },
  },
})
const office = `http://localhost:${process.env.FLIMBO_OFFICE_PORT ?? '4000'}`
const door = `http://localhost:${process.env.FLIMBO_DOOR_PORT ?? '4001'}`
mkdirSync(values.out, { recursive: true })

/** The number of the campaign and the code of a short link, as the office finds them. */
async function find(page: Page, slug: string): Promise<{ campaign: string; code: string }> {
  const hit = await page.evaluate(async (asked) => {
    const { hits } = (await (await fetch(`/api/find?q=${asked}`)).json()) as {
      hits: { kind: string; id: number; campaignId: number }[]
    }
    return hits.find(({ kind }) => kind === 'code')
  }, slug)
  if (!hit) throw new Error(`The demo has no code ${slug}: run npm run demo first`)
  return { campaign: `/campaigns/${String(hit.campaignId)}`, code: String(hit.id) }
}

const browser = await openBrowser({ scheme: values.dark ? 'dark' : 'light' })
const page = await browser.newPage()
page.on('console', (message) => {
  if (message.type() === 'error') console.error(message.text())
})
const shoot = async (name: string, path: string, ready: string, act?: () => Promise<unknown>) => {
  if (values.only !== undefined && values.only !== name) return
  await page.goto(path.startsWith('http') ? path : office + path)
  await page.locator(ready).first().waitFor()
  await act?.()
  await page.waitForTimeout(700)
  await page.screenshot({ path: `${values.out}/${name}.png` })
}

await page.goto(office)
await page.getByLabel('E-mail address').waitFor()
await page.getByLabel('E-mail address').fill('anna@saltmarsh.example')
await page.getByLabel('Password').fill('low tide at noon')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Desk' }).waitFor()
const { campaign, code } = await find(page, 'PIERHALL')
const seals = await find(page, 'SEALS')
const routeOf = (codeId: string) =>
  page.evaluate(
    async (id) => String(((await (await fetch(`/api/codes/${id}`)).json()) as { routeId: number }).routeId),
    codeId,
  )
const timetable = await routeOf(code)
const pass = await find(page, 'HOLDERS')
const winter = await find(page, 'W26-TICKET')
// The desk and the plan show what the last check of all destinations found.
await page.evaluate(async () => {
  await fetch('/api/check-runs', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: '{}',
  })
  for (let active = 1; active > 0;)
    active = ((await (await fetch('/api/jobs?shown=active')).json()) as { total: number }).total
})

await shoot('desk', '/', 'h2')
await shoot('plan', `${winter.campaign}/plan`, '.plan-text')
await shoot('plan-piece', `${winter.campaign}/plan?code=${winter.code}`, 'aside [role=group]')
await shoot('import', `${campaign}/import`, 'h1', async () => {
  const file =
    'Item;Placement;utm_medium;utm_source;Landing page;Printed size;Run;Start date\nK-1;Pier poster, new gate;print;pierposter;https://saltmarsh.example/timetable;6 cm;2;1.3.2027\nK-2;Bus back, line 9;print;bus-back;https://saltmarsh.example/timetable;240;4;\nK-3;Beach flag;;flag;https://saltmarsh.example/beach;80;;\n'
  await page.setInputFiles('input[type=file]', {
    name: 'summer-plan.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(file),
  })
  await page.getByRole('tab', { name: /^All lines/ }).click()
})
await shoot('goals', `${campaign}/goals`, 'div[aria-label="What was reached"] [role="row"]')
await shoot(
  'routes',
  `${campaign}/routes?route=${timetable}`,
  'ol[aria-label="Lanes, in order"] li',
  async () => {
    await page.getByRole('combobox', { name: 'Scanned in' }).fill('Groningen')
    await page
      .getByRole('option', { name: /^Groningen, / })
      .first()
      .waitFor({ timeout: 60_000 })
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await page.getByRole('combobox', { name: 'Languages, preferred first' }).fill('Dutch')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
  },
)
await shoot(
  'routes-lane',
  `${campaign}/routes?route=${timetable}`,
  'ol[aria-label="Lanes, in order"] li',
  () => page.getByRole('button', { name: /Evenings near the pier/ }).click(),
)
await shoot('pages', `${campaign}/pages?page=2`, 'iframe', () =>
  page.getByRole('button', { name: /^Text/ }).click(),
)
await shoot('form', `${pass.campaign}/pages`, 'iframe', async () => {
  await page.getByRole('button', { name: /^Form/ }).click()
  await page.getByRole('button', { name: /^Children/ }).click()
  await page.getByRole('group', { name: 'When it is asked' }).scrollIntoViewIfNeeded()
})
await shoot('leads', `${pass.campaign}/leads`, '[role=row][data-id]', async () => {
  await page.keyboard.press('j')
  await page.getByRole('list', { name: 'How they came' }).waitFor()
})
for (const slug of ['PIERHALL', 'SEALS', 'PASS']) {
  await page.evaluate(
    (read) =>
      fetch('/api/phone/scans', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ read, device: 'ios-safari', place: 'de-bremen', language: 'de' }),
      }),
    `${door}/${slug}`,
  )
}
await shoot('visit-tags', '/settings/visits', 'table', () =>
  page
    .getByText('What the collector stand-in received')
    .scrollIntoViewIfNeeded()
    .then(() => page.mouse.wheel(0, 420)),
)
const wallet = await find(page, 'WALLET')
await shoot('print', `${campaign}/print?code=${wallet.code}`, 'dl', () =>
  page.getByText('The logo costs').waitFor(),
)
await shoot('print-sheets', `${campaign}/print?code=${code}`, 'dl', async () => {
  await page.getByRole('tab', { name: 'Sheets' }).click()
  await page.getByLabel('Caption 1').fill('{name}')
})
await shoot('static-codes', `${campaign}/print?static=1`, 'dl', () =>
  page.getByText('Reads from').first().waitFor(),
)
await shoot('results', `${pass.campaign}/results?days=90&against=before`, 'canvas')
await shoot('results-more', `${seals.campaign}/results?days=365`, 'canvas', () => page.mouse.wheel(0, 640))
await shoot('report', `${campaign}/reports/1`, 'iframe', async () => {
  await page.frameLocator('iframe').getByRole('heading', { name: 'Where?' }).waitFor()
  await page.getByRole('button', { name: 'Where?', exact: true }).click()
})
await shoot('phone', `/phone?code=${code}`, 'img[alt^="Before"]', async () => {
  await page.getByRole('button', { name: 'Scan' }).click()
  await page.locator('iframe').waitFor()
})
await page.setViewportSize({ width: 360, height: 740 })
await page.goto(office)
// Whoever says they are a program is asked nothing.
await (await browser.newCDPSession(page)).send('Network.setUserAgentOverride', { userAgent: PHONE })
await shoot('door-consent', `${door}/SEALS`, 'form')
await browser.close()
