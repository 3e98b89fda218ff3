import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answers } from '@flimbo/core/results'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, seasonPass, setUp, watchedBrowser } from './running.ts'

// What is wanted on the site: said in the office, reached by phones on a site of another origin, seen in Results.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  await setUp(office.page, server.office)
  await seasonPass(office.page, server.standIn, '/pass#prices')
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

/** In every zone a day to come. */
const LAST_DAY = '2099-12-31'
const figures = async () => {
  const { answers } = await api<Answers>(office.page, 'POST', '/figures', {
    campaignId: 1,
    from: '2020-01-01',
    to: LAST_DAY,
    questions: [{}],
  })
  const { scans = 0, arrivals = 0, goals = 0, value = 0 } = answers[0]?.total ?? {}
  return { scans, arrivals, goals, value }
}

describe('goals on the site', () => {
  it('are said in the office, by keyboard', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/goals`)
    await page.getByRole('button', { name: 'Add the first goal' }).press('Enter')
    // What is missing is said at its field; Enter saves.
    await page.getByLabel('Name').fill('Page of thanks')
    await page.getByLabel('Name').press('Enter')
    await page.getByText('Give the address that is reached, such as /order/thanks.').waitFor()
    await page.getByLabel('Address of the page').fill('/*/pass/thanks')
    await page.getByLabel('Worth').fill('2,50')
    await page.getByLabel('Worth').press('Enter')
    await page.getByText('Nothing but the script of').waitFor()
    await page.getByText('Goals are counted only while sites know a scan.').waitFor()
    await page.getByRole('combobox', { name: 'Sites that scans lead to' }).press('Enter')
    await page.getByRole('option', { name: 'know a scan for a day' }).press('Enter')
    await page.getByText('Redirects carry a signed reference').waitFor()
    for (const goal of [
      { name: 'Order', kind: 'sent', key: 'season-pass', counts: 'each' },
      { name: 'Seats', kind: 'sent', key: 'seats', counts: 'scan' },
    ]) {
      const value = { pattern: '', selector: '', value: null, signedOnly: false, isOn: true, ...goal }
      await api(page, 'POST', '/goals', { campaignId: 1, value })
    }
    await expectAccessible(page)
  })

  it('are reached by a phone that scanned, and joined to its scan', async () => {
    const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE })
    try {
      const { page } = phone
      await page.goto(`${server.door}/pass`)
      await page.getByRole('heading', { name: 'Season pass' }).waitFor()
      // The reference is taken out of the address, so that nobody sends it on; the rest of it stays.
      await expect.poll(() => new URL(page.url()).searchParams.has('flimbo')).toBe(false)
      expect(new URL(page.url()).searchParams.get('utm_source')).toBe('pier-poster')
      expect(new URL(page.url()).hash).toBe('#prices')
      await expect.poll(figures).toEqual({ scans: 1, arrivals: 1, goals: 0, value: 0 })
      await page.getByRole('button', { name: 'See free seats' }).click()
      await page.getByRole('button', { name: 'See free seats' }).click()
      await page.getByRole('button', { name: 'Order for €39' }).click()
      await expect.poll(figures).toEqual({ scans: 1, arrivals: 1, goals: 3, value: 41.5 })
      // Another page of the same tab is of the same scan; no cookie says so.
      await page.goto(`${server.standIn}/at/saltmarsh.example/timetable`)
      const looked = () =>
        api<{ rows: { page: string }[] }>(office.page, 'GET', `/site-pages?from=2020-01-01&to=${LAST_DAY}`)
      await expect
        .poll(async () => (await looked()).rows.map((row) => row.page.replace(/^[^/]+/, '')))
        .toEqual(
          expect.arrayContaining(['/at/saltmarsh.example/timetable', '/at/saltmarsh.example/pass/thanks']),
        )
      expect(await page.context().cookies()).toEqual([])
      expect(phone.complaints).toEqual([])
    } finally {
      await phone.close()
    }
  })

  it('are not counted of who asks not to be tracked, nor of who was brought by no scan', async () => {
    const before = await figures()
    for (const [path, asks] of [
      [`${server.door}/pass`, true],
      [`${server.standIn}/at/saltmarsh.example/pass`, false],
    ] as const) {
      const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE })
      try {
        if (asks)
          await phone.page.addInitScript(() => {
            Object.defineProperty(navigator, 'globalPrivacyControl', { value: true })
          })
        const sent: string[] = []
        phone.page.on('request', (request) => {
          if (request.method() === 'POST') sent.push(request.url())
        })
        await phone.page.goto(path)
        await phone.page.getByRole('button', { name: 'Order for €39' }).click()
        await phone.page.getByText('Season pass').first().waitFor()
        expect([sent, phone.complaints]).toEqual([[], []])
      } finally {
        await phone.close()
      }
    }
    expect(await figures()).toEqual({ ...before, scans: before.scans + 1 })
  })

  it('are seen in Results, down to each order', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/results`)
    const steps = page.getByRole('table', { name: 'How far scans got' })
    await steps.getByRole('row', { name: /Arrived on the site/ }).waitFor()
    await steps
      .getByRole('row', { name: /Reached a goal/ })
      .getByRole('link')
      .press('Enter')
    await page.getByRole('heading', { name: 'Goals on the site' }).waitFor()
    await page.getByRole('grid', { name: 'What was reached' }).getByText('€39').waitFor()
    await page.goto(`${server.office}/settings/goals`)
    await page.getByText('Last report').waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Show the secret' }).press('Enter')
    await page.getByRole('button', { name: 'Replace the secret…' }).press('Enter')
    await page.getByRole('button', { name: 'Cancel' }).press('Enter')
  })
})
