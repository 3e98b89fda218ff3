import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
  shortLink: string
  slug: string
  version: number
}

// One route from a plain destination to three lanes and back, by keyboard.
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
let code: Made
beforeAll(async () => {
  server = await builtServer()
  browser = await watchedBrowser()
  await setUp(browser.page, server.office)
  const { id: campaignId } = await api<Made>(browser.page, 'POST', '/campaigns', {
    name: 'Summer timetable',
    zone: 'Europe/Berlin',
    utmCampaign: 'summer-26',
  })
  code = await api<Made>(browser.page, 'POST', '/codes', {
    campaignId,
    name: 'Pier poster',
    slug: 'pier',
    medium: 'print',
    source: 'pier-poster',
    destination: 'https://saltmarsh.example/timetable',
  })
})
afterAll(async () => {
  await browser.close()
  await server.close()
})

/** Adds a lane with one condition, by keyboard alone. */
async function addLane(
  kind: string,
  first: string,
  field: string,
  value: string,
  address: string,
): Promise<void> {
  const { page } = browser
  await page.keyboard.press('l')
  await page.getByRole('button', { name: 'Add condition' }).press('Enter')
  await page.getByRole('menuitem', { name: kind, exact: true }).press('Enter')
  await page.getByRole('combobox', { name: field }).focus()
  if (first !== '') {
    await page.keyboard.press('Backspace')
    await page.keyboard.press('Backspace')
  }
  await page.keyboard.type(value)
  await page.keyboard.press('Enter')
  await page.getByLabel('Address', { exact: true }).fill(address)
  await page.getByRole('button', { name: 'Close' }).press('Enter')
}

/** The phone stand-in, scanning the printed symbol somewhere so that it counts. */
async function scanIn(place: string, device: string): Promise<string> {
  const answer = await api<{ landed: { address: string } | null }>(browser.page, 'POST', '/phone/scans', {
    read: code.shortLink.toUpperCase(),
    place,
    device,
    language: 'en',
    count: true,
  })
  return new URL(answer.landed?.address ?? 'http://none/').pathname
}
const lanesShown = () =>
  browser.page.getByRole('list', { name: 'Lanes, in order' }).getByRole('listitem').allInnerTexts()

describe('a route with lanes', () => {
  it('is built by keyboard, and nothing of it is live yet', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/routes`)
    await page.getByText('Live for every scan.').waitFor()
    await addLane('Country', '', 'Countries', 'Netherl', 'https://saltmarsh.example/dienstregeling')
    await addLane('Country', '', 'Countries', 'Denm', 'https://saltmarsh.example/sejlplan')
    await addLane('Device', 'phone', 'Devices', 'computer', 'https://saltmarsh.example/large')
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('button', { name: /^3 Computers/ }).press('Alt+ArrowUp')
    await page.getByRole('button', { name: /^2 Computers/ }).waitFor()
    expect((await lanesShown()).map((text) => text.replace(/\s+/g, ' ').slice(0, 22))).toEqual(
      ['1 Scans in Netherlands', '2 Computers 0 – → salt', '3 Scans in Denmark 0 –'].map((text) =>
        text.slice(0, 22),
      ),
    )
    await page.getByText('Draft saved, not live yet.').waitFor()
    await expectAccessible(page)
    expect(await scanIn('de-bremen', 'ios-safari')).toBe('/timetable')
    expect(await scanIn('nl-groningen', 'ios-safari')).toBe('/timetable')
  })

  it('is rehearsed: the lane that is taken is named, with every reason and the final address', async () => {
    const { page } = browser
    await page.getByRole('combobox', { name: 'Scanned in' }).fill('Groning')
    await page
      .getByRole('option', { name: /^Groningen, / })
      .first()
      .waitFor({ timeout: 60_000 })
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    const outcome = page.getByRole('status', { name: 'Where the test scan leads' })
    await outcome
      .getByText(
        'https://saltmarsh.example/dienstregeling?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26',
      )
      .waitFor()
    await outcome.getByText('Lane 1 holds: Scans in Netherlands').waitFor()
    await outcome.getByText('in Netherlands – Netherlands').waitFor()
    await page.getByLabel('Save as an expectation named').fill('A phone in Groningen reads Dutch')
    await page.keyboard.press('Enter')
    await page
      .getByRole('list', { name: 'Expectations' })
      .getByText('leads to https://saltmarsh.example/dienstregeling')
      .waitFor()
    await page.getByRole('tab', { name: 'Test matrix' }).click()
    await page.getByRole('rowheader', { name: /^Groningen/ }).waitFor()
    await page.getByRole('row', { name: /^DK / }).getByText('lane 2').first().waitFor()
    await expectAccessible(page)
    await page.getByRole('tab', { name: 'Map' }).click()
    await page.getByRole('img', { name: /^Map/ }).waitFor()
    await page.getByRole('tab', { name: 'Review' }).click()
    await page.getByText('Nothing stands out').waitFor()
    await expectAccessible(page)
    await page.getByRole('tab', { name: 'Test scan' }).click()
  })

  it('is published with a summary of who would now go elsewhere, and live for the next scan', async () => {
    const { page } = browser
    await page.keyboard.press('p')
    const dialog = page.getByRole('dialog', { name: /^Publish/ })
    await dialog.getByText('Of the last 2 scans, 1 would now go elsewhere:').waitFor()
    await dialog
      .getByText(
        '1 to saltmarsh.example/dienstregeling instead of saltmarsh.example/timetable, most from Groningen (NL)',
      )
      .waitFor()
    await expectAccessible(page)
    await dialog.getByRole('button', { name: 'Publish for 1 code' }).press('Enter')
    await dialog.waitFor({ state: 'hidden' })
    await page.getByText('Live for every scan.').waitFor()
    expect([
      await scanIn('nl-groningen', 'android-chrome'),
      await scanIn('dk-copenhagen', 'ios-safari'),
      await scanIn('de-bremen', 'windows-edge'),
      await scanIn('de-bremen', 'ios-safari'),
    ]).toEqual(['/dienstregeling', '/sejlplan', '/large', '/timetable'])
  })

  it('shows its share of real scans on each lane', async () => {
    const { page } = browser
    await page.reload()
    await page.getByRole('button', { name: /Scans in Netherlands 1 16\.7%/ }).waitFor()
    await page.getByRole('button', { name: /Computers 1 16\.7%/ }).waitFor()
    await page.getByRole('button', { name: /Scans in Denmark 1 16\.7%/ }).waitFor()
    await page.getByRole('button', { name: /^Otherwise 3 50%/ }).waitFor()
  })

  it('warns of a broken expectation and of a covered lane, before they are live', async () => {
    const { page } = browser
    await page.getByRole('button', { name: /^1 Scans in Netherlands/ }).press('Alt+ArrowDown')
    await page.getByRole('button', { name: /^1 Computers/ }).click()
    await page.getByRole('button', { name: 'Remove the condition Device' }).click()
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('tab', { name: 'Review (2)' }).click()
    await page.getByText('The lane “Scans in Netherlands” is never reached').waitFor()
    await page.getByRole('button', { name: 'Publish…' }).click()
    await page.getByRole('dialog').getByText('1 expectation would not be met:').waitFor()
    await page.getByRole('button', { name: 'Publish for 1 code' }).click()
    await page.getByText('Live for every scan.').waitFor()
    expect(await scanIn('nl-groningen', 'ios-safari')).toBe('/large')
  })

  it('goes back to an older revision in one step', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'Settings and changes' }).click()
    await page.getByRole('list', { name: 'Changes' }).getByText('now takes: Every scan').waitFor()
    await page.getByRole('button', { name: 'Go back to 2' }).click()
    await page.getByRole('list', { name: 'Changes' }).getByText('4', { exact: true }).waitFor()
    expect(await scanIn('nl-groningen', 'ios-safari')).toBe('/dienstregeling')
    await expectAccessible(page)
  })

  it('takes a destination from E to the next scan, and an undo back', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'Signal plan' }).click()
    await page.getByText('Live for every scan.').waitFor()
    await page.keyboard.press('e')
    await page.keyboard.type('https://saltmarsh.example/winter')
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByText('Live for every scan.').waitFor()
    await page.getByLabel('Every other scan leads to').fill('https://saltmarsh.example/winter')
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('button', { name: 'Publish…' }).click()
    await page.getByRole('button', { name: 'Publish for 1 code' }).click()
    await page.getByText('Live for every scan.').waitFor()
    expect(await scanIn('de-bremen', 'ios-safari')).toBe('/winter')
  })
})

describe('what a phone is asked', () => {
  it('is readable at 360 px: a password, and where it is, with and without script', async () => {
    const { page } = browser
    const { version } = await api<Made>(page, 'GET', `/routes/${String(code.routeId)}`)
    await api(page, 'PATCH', `/routes/${String(code.routeId)}/password`, { version, password: 'low water' })
    const phone = await page.context().newPage()
    await phone.setViewportSize({ width: 360, height: 740 })
    await phone.goto(`${server.door}/pier`)
    await phone.getByLabel('Password').fill('wrong')
    await phone.keyboard.press('Enter')
    await phone.getByRole('alert').getByText('That was not the password').waitFor()
    await expectAccessible(phone)
    expect(await phone.evaluate(() => document.documentElement.scrollWidth <= 360)).toBe(true)

    const open = await api<Made>(page, 'GET', `/routes/${String(code.routeId)}`)
    await api(page, 'PATCH', `/routes/${String(code.routeId)}/password`, {
      version: open.version,
      password: '',
    })
    const {
      destination,
      draftVersion,
      version: now,
    } = await api<Made & { destination: string; draftVersion: number }>(
      page,
      'GET',
      `/routes/${String(code.routeId)}`,
    )
    await api(page, 'PATCH', `/routes/${String(code.routeId)}/draft`, {
      draftVersion,
      destination,
      rules: { lanes: [], language: '', life: null, askLocation: { why: 'To show you the nearest pier.' } },
    })
    await api(page, 'POST', `/routes/${String(code.routeId)}/publish`, {
      version: now,
      draftVersion: draftVersion + 1,
    })
    await phone.goto(`${server.door}/pier`)
    await phone.getByText('To show you the nearest pier.').waitFor()
    await phone.getByRole('button', { name: 'Tell where I am' }).waitFor()
    await expectAccessible(phone)
    expect(await phone.evaluate(() => document.documentElement.scrollWidth <= 360)).toBe(true)
    await phone.close()
  })

  it('nothing complained on the way', () => {
    expect(browser.complaints).toEqual([])
  })
})
