import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
}

// A page from its first word to the phone of somebody who scans.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  await setUp(office.page, server.office)
  const { id: campaignId } = await api<Made>(office.page, 'POST', '/campaigns', {
    name: 'Summer timetable',
    zone: 'Europe/Berlin',
    utmCampaign: 'summer-26',
  })
  await api<Made>(office.page, 'POST', '/codes', {
    campaignId,
    name: 'Pier poster',
    slug: 'pier',
    medium: 'print',
    source: 'pier-poster',
    destination: 'https://saltmarsh.example/tides',
  })
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

describe('a page', () => {
  it('is made by keyboard, with sentences for what is missing, and seen as a phone shows it while it is typed', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages`)
    await page.getByText('No page yet').waitFor()
    await page.keyboard.press('n')
    await page.getByLabel('Name').fill('Tides')
    await page.getByRole('button', { name: 'Add link' }).press('Enter')
    await page.getByRole('group', { name: 'Link 1' }).getByLabel('Label').fill('Tide table')
    await page.getByRole('group', { name: 'Link 1' }).getByLabel('Address').fill('saltmarsh')
    await page.getByRole('button', { name: 'Add page' }).press('Enter')
    await page.getByText('Give a heading.').waitFor()
    await page.getByText('This is not a whole web address.').waitFor()
    await page.getByLabel('Heading').fill('Tides today')
    await page.getByLabel('Text').fill('Mind the mud.\n\nBoats leave at noon.')
    await page
      .getByRole('group', { name: 'Link 1' })
      .getByLabel('Address')
      .fill('https://saltmarsh.example/tides')
    const phone = page.frameLocator('iframe[title="The page as a phone shows it"]')
    await phone.getByRole('heading', { name: 'Tides today' }).waitFor()
    expect(await phone.getByRole('paragraph').allInnerTexts()).toEqual([
      'Mind the mud.',
      'Boats leave at noon.',
    ])
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Add page' }).press('Enter')
    await page.getByText('Everything is saved.').waitFor()
    await page.getByText('No route leads here yet.').waitFor()
  })

  it('is chosen on a lane, rehearsed with its tagged links, published, and shown to who scans', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/routes`)
    await page.getByText('Live for every scan.').waitFor()
    await page.keyboard.press('l')
    await page.getByRole('combobox', { name: 'Leads to' }).press('Enter')
    await page.getByRole('option', { name: 'a page' }).press('Enter')
    await page.getByRole('link', { name: 'Edit this page' }).waitFor()
    const outcome = page.getByRole('status', { name: 'Where the test scan leads' })
    await outcome.getByText('The page “Tides”').waitFor()
    await outcome
      .getByText(
        'https://saltmarsh.example/tides?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26',
      )
      .waitFor()
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('button', { name: 'Close' }).press('Enter')
    await page.getByRole('button', { name: 'Publish…' }).press('Enter')
    await page
      .getByRole('list', { name: 'What changes' })
      .getByText('a new lane: Every scan → the page “Tides”')
      .waitFor()
    await page.getByRole('button', { name: 'Publish for 1 code' }).press('Enter')
    await page.getByText('Live for every scan.').waitFor()
    const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE, script: false })
    await phone.page.goto(`${server.door}/pier`)
    await phone.page.getByRole('heading', { name: 'Tides today' }).waitFor()
    expect(await phone.page.getByRole('link', { name: 'Tide table' }).getAttribute('href')).toContain(
      'utm_source=pier-poster',
    )
    expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
    await phone.close()
  })

  it('is changed while somebody else does, and nothing is lost; the next scan shows it, and the route’s history says so', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages?page=1`)
    await page.getByLabel('Heading').fill('Low water at noon')
    await api(page, 'PATCH', '/pages/1', { version: 1, text: 'Theirs.' })
    await page.getByRole('button', { name: 'Save for 1 route' }).press('Enter')
    await page.getByText('Someone saved this page after you opened it.').waitFor()
    expect(await page.getByLabel('Heading').inputValue()).toBe('Low water at noon')
    await page.getByRole('button', { name: 'Overwrite with mine' }).press('Enter')
    await page.getByText('Everything is saved.').waitFor()
    const answer = await api<{ page: string }>(page, 'POST', '/phone/scans', {
      read: `${server.door}/PIER`,
      device: 'ios-safari',
      place: 'de-bremen',
      language: 'de',
    })
    expect(answer.page).toContain('<h1>Low water at noon</h1>')
    await page.getByRole('list', { name: 'Routes that lead here' }).getByRole('link').press('Enter')
    await page.getByRole('button', { name: 'Settings and changes' }).press('Enter')
    await page
      .getByRole('list', { name: 'Changes' })
      .getByText('changed what the page “Tides” shows')
      .first()
      .waitFor()
    await expectAccessible(page)
  })

  it('is not taken away while a lane leads there', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages?page=1`)
    await page.getByRole('button', { name: 'Delete page' }).press('Enter')
    await page.getByText('“Pier poster” leads to “Tides”. Lead it elsewhere first.').waitFor()
  })
})
