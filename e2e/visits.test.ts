import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
}
interface Received {
  rows: { by: string; values: [string, string][] }[]
}

// Visit tags, from their definition to what arrives at the collector; phones are real browsers.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
let code: Made
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  await setUp(office.page, server.office)
  const { id: campaignId } = await api<Made>(office.page, 'POST', '/campaigns', {
    name: 'Summer timetable',
    zone: 'Europe/Berlin',
    utmCampaign: 'summer-26',
  })
  // A browser resolves no .example: the site and the collector are asked for where the stand-in listens.
  code = await api<Made>(office.page, 'POST', '/codes', {
    campaignId,
    name: 'Pier poster',
    slug: 'pier',
    medium: 'print',
    source: 'pier-poster',
    destination: `${server.standIn}/at/saltmarsh.example/timetable`,
  })
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

const collector = (path: string) => `${server.standIn}/at/collector.example/${path}`
const received = async () => (await api<Received>(office.page, 'GET', '/visit-tags/received')).rows
const row = (n: number) => office.page.getByRole('group', { name: `Tag ${String(n)}` })

async function choose(names: readonly string[]): Promise<void> {
  const { page } = office
  await page.goto(`${server.office}/campaigns/1/routes?route=${String(code.routeId)}`)
  await page.getByRole('button', { name: /^On the way/ }).press('Enter')
  const boxes = page.getByRole('group', { name: 'Visit tags' }).getByRole('checkbox')
  await boxes.nth(3).waitFor({ state: 'attached' })
  for (const box of await boxes.all()) {
    const label = await box.locator('xpath=ancestor::label').innerText()
    if ((await box.isChecked()) !== names.some((name) => label.startsWith(name))) await box.press('Space')
  }
  await page.getByText('Draft saved, not live yet.').waitFor()
  await page.getByRole('button', { name: 'Close' }).press('Enter')
  await page.getByRole('button', { name: 'Publish…' }).press('Enter')
  await page
    .getByRole('list', { name: 'What changes' })
    .getByText(/visit tag/)
    .first()
    .waitFor()
  await page.getByRole('button', { name: 'Publish for 1 code' }).press('Enter')
  await page.getByText('Live for every scan.').waitFor()
}

/** Scans the code with a phone that is a browser of its own; ends on the destination's page. */
async function scan(
  script: boolean,
  act?: (page: Awaited<ReturnType<typeof watchedBrowser>>['page']) => Promise<void>,
): Promise<string> {
  const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE, script })
  try {
    await phone.page.goto(`${server.door}/pier`, { waitUntil: 'commit' })
    await act?.(phone.page)
    await phone.page.getByRole('heading', { name: 'Summer timetable' }).waitFor()
    if (script) expect(phone.complaints).toEqual([])
    return new URL(phone.page.url()).search
  } finally {
    await phone.close()
  }
}

describe('visit tags', () => {
  it('are defined by keyboard, with a sentence for what is missing and an example of what is sent', async () => {
    const { page } = office
    await page.goto(`${server.office}/settings/visits`)
    await page.getByRole('button', { name: 'Add tag' }).press('Enter')
    await page.getByRole('button', { name: 'Save' }).press('Enter')
    await page.getByText('Give a name for the tag.').first().waitFor()
    await row(1).getByLabel('Name').fill('Crowd')
    await row(1).getByLabel('Its ID').fill('A-9')
    await row(1)
      .getByLabel('Address its hits go to')
      .fill(collector('px?id={id}&source={source}&medium={medium}&campaign={campaign}'))
    await row(1)
      .getByText(`GET ${collector('px?id=A-9&source=poster')}`)
      .waitFor()
    for (const [n, name, address] of [
      [2, 'Stuck', collector('slow')],
      [3, 'Box', collector('container.js')],
      [4, 'Server', 'https://collector.example/mp?source={source}'],
    ] as const) {
      await page.getByRole('button', { name: 'Add tag' }).press('Enter')
      await row(n).getByLabel('Name').fill(name)
      await row(n)
        .getByLabel('Its ID')
        .fill(`ID-${String(n)}`)
      await row(n)
        .getByLabel(/^Address/)
        .fill(address)
    }
    for (const [n, field, option] of [
      [3, 'Kind', 'Tag container'],
      [4, 'Fires', 'from the server, after the redirect'],
    ] as const) {
      await row(n).getByRole('combobox', { name: field }).press('Enter')
      await page.getByRole('option', { name: option }).press('Enter')
    }
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Save' }).press('Enter')
    await page.getByText('Everything is saved.').waitFor()
  })

  it('fire on the way to the page and let nobody wait: with script, with a collector that never answers, and without script', async () => {
    await choose(['Crowd', 'Stuck', 'Box'])
    const query = await scan(true)
    expect(query).toBe('?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26')
    await expect
      .poll(async () => (await received()).map(({ values }) => Object.fromEntries(values)))
      .toContainEqual(
        expect.objectContaining({
          from: 'container',
          campaign: 'summer-26',
          source: 'pier-poster',
          medium: 'print',
        }),
      )
    expect((await received()).map(({ values }) => Object.fromEntries(values))).toContainEqual({
      id: 'A-9',
      source: 'pier-poster',
      medium: 'print',
      campaign: 'summer-26',
    })
    await choose(['Crowd', 'Stuck'])
    const before = (await received()).length
    expect(await scan(false)).toBe(query)
    expect((await received()).length).toBe(before + 1)
  })

  it('are asked for first where the workspace says so, and both answers lead on', async () => {
    const { page } = office
    await page.goto(`${server.office}/settings/visits`)
    await row(1).getByRole('combobox', { name: 'Fires' }).press('Enter')
    await page.getByRole('option', { name: 'on that page, once the visitor agrees' }).press('Enter')
    await page.getByLabel('In your words').fill('May we count you?')
    await page.getByRole('button', { name: 'Save' }).press('Enter')
    await page.getByText('Everything is saved.').waitFor()
    const before = (await received()).length
    await scan(false, (phone) => phone.getByRole('button', { name: 'No, go on without' }).click())
    expect((await received()).length).toBe(before)
    await scan(true, async (phone) => {
      await phone.getByText('May we count you?').waitFor()
      await expectAccessible(phone)
      await phone.getByRole('button', { name: 'Yes, go on' }).press('Enter')
    })
    await expect.poll(async () => (await received()).length).toBe(before + 1)
  })

  it('are seen as they arrive, sent by the server after a plain redirect, before anything is printed', async () => {
    const { page } = office
    await choose(['Server'])
    await page.getByText('On the way: Measurement ID-4 is sent by the server after the redirect.').waitFor()
    await page.goto(`${server.office}/settings/visits`)
    await page.getByRole('table', { name: 'Received hits' }).waitFor()
    await api(page, 'POST', '/phone/scans', {
      read: `${server.door}/PIER`,
      device: 'ios-safari',
      place: 'de-bremen',
      language: 'de',
    })
    await page
      .getByRole('row', { name: /the server GET collector\.example\/mp source pier-poster/ })
      .waitFor()
    await expectAccessible(page)
  })
})
