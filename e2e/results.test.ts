import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { storeLead } from '../server/tests/leadSample.ts'
import { storeScans } from '../server/tests/scanSample.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

// A manager asks what came of two campaigns, from a question to the rows behind its answer.
const DAYS = 'from=2026-07-01&to=2026-07-03'
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
let poster: Code

async function campaign(
  name: string,
  pieces: readonly (readonly [name: string, medium: string])[],
): Promise<Code[]> {
  const { page } = browser
  const utmCampaign = name.toLowerCase()
  const { id: campaignId } = await api<{ id: number }>(page, 'POST', '/campaigns', {
    name,
    zone: 'Europe/Berlin',
    utmCampaign,
  })
  const made: Code[] = []
  for (const [piece, medium] of pieces)
    made.push(
      await api<Code>(page, 'POST', '/codes', {
        campaignId,
        name: piece,
        medium,
        source: 'pier',
        cost: 50,
        latitude: 53.4,
        longitude: 8,
        destination: 'https://saltmarsh.example/',
      }),
    )
  return made
}

beforeAll(async () => {
  server = await builtServer()
  browser = await watchedBrowser()
  await setUp(browser.page, server.office)
  const [ours, card] = await campaign('Summer', [
    ['Pier poster', 'poster'],
    ['Café card', 'card'],
  ])
  const [sign] = await campaign('Winter', [['Harbour sign', 'poster']])
  if (!ours || !card || !sign) throw new Error('The pieces were not made.')
  poster = ours
  const at = (code: Code, moment: string, city: string, language = 'de-DE') => ({
    at: moment,
    code,
    city,
    language,
  })
  storeScans(server.file, [
    ...Array.from({ length: 6 }, (_, i) => at(ours, `2026-07-01T0${String(i)}:10:00Z`, 'Husum')),
    ...Array.from({ length: 4 }, (_, i) => at(ours, `2026-07-02T1${String(i)}:10:00Z`, 'Norden', 'nl')),
    ...Array.from({ length: 2 }, (_, i) => at(card, `2026-07-02T1${String(i)}:20:00Z`, 'Husum')),
    ...Array.from({ length: 3 }, (_, i) => at(sign, `2026-07-03T1${String(i)}:20:00Z`, 'Norden')),
  ])
  storeLead(server.file, {
    at: Date.parse('2026-07-02T12:00:00Z'),
    codeId: ours.id,
    scanId: 1,
    region: 'Coast',
    city: 'Husum',
  })
}, 60_000)
afterAll(async () => {
  await browser.close()
  await server.close()
})

const figures = () => browser.page.locator('section').filter({ hasText: 'How many?' })
async function take(what: string): Promise<Buffer> {
  const { page } = browser
  await page
    .getByRole('button', { name: /^Download: / })
    .first()
    .click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: what }).click(),
  ])
  return readFileSync(await file.path())
}

describe('results of all campaigns', () => {
  it('are asked in the bar, by keyboard, and the address holds the whole question', async () => {
    const { page } = browser
    await page.goto(`${server.office}/results?${DAYS}`)
    await page.getByRole('img', { name: 'Scans by hour: 15 scans, 72 rows' }).waitFor()
    await page.getByRole('combobox', { name: 'By', exact: true }).press('Enter')
    await page.keyboard.type('medium')
    await page.keyboard.press('Enter')
    await page.getByRole('img', { name: 'Scans by medium: 15 scans, 2 rows' }).waitFor()
    expect(new URL(page.url()).searchParams.get('by')).toBe('medium')
    await page.goBack()
    await page.getByRole('img', { name: /^Scans by hour/ }).waitFor()
    await page.goForward()
    await page.reload()
    await page.getByRole('img', { name: /^Scans by medium/ }).waitFor()
  })

  it('are narrowed by a city, everything with them, down to the rows; two windows show the same', async () => {
    const { page } = browser
    const cities = page.getByRole('table', { name: 'City' })
    await cities.getByRole('button', { name: 'Husum, Germany' }).press('Enter')
    await page.getByText('City: Husum, Germany').waitFor()
    await figures().getByText('8', { exact: true }).first().waitFor()
    // Its own dimension stays whole, with what is chosen pressed.
    await cities.getByRole('button', { name: 'Norden, Germany', pressed: false }).waitFor()
    await cities.getByRole('button', { name: 'Husum, Germany', pressed: true }).waitFor()
    await page.getByRole('img', { name: 'Scans by medium: 8 scans, 2 rows' }).waitFor()
    await page.getByRole('button', { name: 'Show the rows' }).press('Enter')
    await page.getByText('1–8 of 8').waitFor()
    const other = await page.context().newPage()
    await other.goto(page.url())
    await other.getByRole('img', { name: 'Scans by medium: 8 scans, 2 rows' }).waitFor()
    await other.close()
    await expectAccessible(page)
  })

  it('are taken away as a picture, a drawing and numbers', async () => {
    expect((await take('Picture (PNG)')).subarray(1, 4).toString()).toBe('PNG')
    const svg = (await take('Drawing (SVG)')).toString()
    for (const text of ['<svg', '>poster<', '>card<']) expect(svg).toContain(text)
    const csv = (await take('Its numbers (CSV)')).toString().trim().split('\r\n')
    expect(csv).toEqual([
      'Medium,Scans,Unique scans,Leads,Arrivals,Goals,Value,Cost',
      'poster,6,6,1,0,0,0,',
      'card,2,2,0,0,0,0,',
    ])
  })

  it('show cities on a map with the list beside it, and cells of two things at once', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/results?${DAYS}&code=${String(poster.id)}&by=city`)
    await page.getByRole('button', { name: 'Map', exact: true }).press('Enter')
    await page
      .getByRole('img', { name: 'Scans by city: 10 scans, 2 rows' })
      .locator('canvas')
      .first()
      .waitFor()
    const list = page.getByRole('region', { name: 'On the map' })
    await list.getByRole('button', { name: 'Norden, Germany' }).waitFor()
    // The map itself is taken away: countries by their shapes, and the rings about the piece by their names.
    const svg = (await take('Drawing (SVG)')).toString()
    expect(svg.match(/<path/g)?.length).toBeGreaterThan(50)
    expect(svg).toContain('>20 km<')
    await expectAccessible(page)
    await page.goto(`${server.office}/results?${DAYS}&by=campaign,weekday`)
    await page.getByRole('img', { name: 'Scans by campaign and day of the week: 15 scans, 3 rows' }).waitFor()
    await page.getByRole('button', { name: 'Table', exact: true }).press('Enter')
    await page.getByRole('gridcell', { name: 'Winter' }).waitFor()
  })

  it('are kept as a question, and a note on a day stands beside them', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/results?${DAYS}&by=day&what=leadRate`)
    await page.getByRole('button', { name: 'Save this question' }).press('Enter')
    await page.getByLabel('Name for this question').fill('Leads in July')
    await page.keyboard.press('Enter')
    await page.getByRole('link', { name: 'Leads in July' }).waitFor()
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Add a note on a day' }).press('Enter')
    await page.getByLabel('Day', { exact: true }).fill('2 Jul 2026')
    await page.getByLabel('What happened').fill('Storm, no boats')
    await page.keyboard.press('Enter')
    await page
      .getByRole('list', { name: 'What may explain it' })
      .getByText('2 Jul 2026: Storm, no boats')
      .waitFor()
    await page.goto(`${server.office}/results`)
    await page.getByRole('button', { name: 'Saved questions (1)' }).press('Enter')
    await page.getByRole('link', { name: 'Leads in July' }).press('Enter')
    await page.getByRole('img', { name: /^Leads per scan by day: 12 scans/ }).waitFor()
    await page.getByText('Storm, no boats').waitFor()
  })

  it('survive an address that nobody meant', async () => {
    const { page } = browser
    await page.goto(
      `${server.office}/results?from=9999-01-01&to=x&by=shoe,city&what=nothing&in.country=%00&in.day=2026-13-45&in.language=x&in.piece=constructor&client=-1`,
    )
    await page.getByRole('heading', { name: 'Scans by city' }).waitFor()
    await page.getByText('Piece: constructor').waitFor()
    expect(browser.complaints).toEqual([])
  })
})
