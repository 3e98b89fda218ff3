import { readFileSync } from 'node:fs'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { zxing } from '../bench/decoders.ts'
import { OWNER } from '../server/tests/http.ts'
import { builtServer, expectAccessible, watchedBrowser } from './running.ts'

// One story from an empty installation to a second scan, as a campaign manager lives it.
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  browser = await watchedBrowser()
})
afterAll(async () => {
  await browser.close()
  await server.close()
})

/** What two decoders read in a picture file. */
async function carried(file: string): Promise<(string | null | undefined)[]> {
  const { data, info } = await sharp(file, { density: 300 })
    .flatten({ background: '#fff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const pixels = new Uint8ClampedArray(data)
  const { width, height } = info
  return [jsQR(pixels, width, height)?.data, await zxing({ width, height, data: pixels })]
}

async function download(name: string): Promise<string> {
  const [file] = await Promise.all([
    browser.page.waitForEvent('download'),
    browser.page
      .getByRole('link', { name, exact: true })
      .or(browser.page.getByRole('button', { name, exact: true }))
      .click(),
  ])
  return file.path()
}

let shortLink = ''

describe('from nothing to a second scan', () => {
  it('the first visit creates the owner', async () => {
    const { page } = browser
    await page.goto(server.office)
    await page.getByRole('heading', { name: 'Set up Flimbo' }).waitFor()
    await page.getByLabel('Your organisation').fill(OWNER.workspace)
    await page.getByLabel('Your name').fill(OWNER.name)
    await page.getByLabel('E-mail address').fill(OWNER.email)
    await page.getByLabel('Password').fill('short')
    await page.getByRole('button', { name: 'Create the workspace' }).click()
    await page.getByText('Choose a password of at least 12 characters').waitFor()
    expect(await page.getByLabel('Your organisation').inputValue()).toBe(OWNER.workspace)
    await page.getByLabel('Password').fill(OWNER.password)
    await page.getByRole('button', { name: 'Create the workspace' }).click()
    await page.getByText('No campaign yet').waitFor()
  })

  it('signs out and in again, and a wrong password gets a sentence', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'Menu of Anna Petersen' }).click()
    await page.getByRole('menuitem', { name: 'Sign out' }).click()
    await page.getByRole('heading', { name: 'Sign in' }).waitFor()
    await page.getByLabel('E-mail address').fill(OWNER.email)
    await page.getByLabel('Password').fill('high tide at noon')
    await page.keyboard.press('Enter')
    await page.getByText('E-mail address or password is wrong').waitFor()
    await page.getByLabel('Password').fill(OWNER.password)
    await page.keyboard.press('Enter')
    await page.getByText('No campaign yet').waitFor()
    // So long somebody looks at a screen before they press something.
    await page.waitForTimeout(1000)
  })

  it('begins the campaign “Summer timetable”', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'New campaign' }).first().click()
    // As somebody does who does not wait: what is typed at once is in the form, and Enter is enough.
    await page.keyboard.type('Summer timetable')
    await expect.poll(() => page.getByLabel('Campaign value').inputValue()).toBe('summer-timetable')
    await page.keyboard.press('Enter')
    await page.getByText('Nothing is planned yet').waitFor()
  })

  it('adds a printed piece, and keeps what was typed where something is wrong', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'Add the first piece' }).click()
    await page.getByLabel('Name of the piece').fill('Pier poster, east gate')
    await page.getByRole('combobox', { name: 'Medium' }).fill('print')
    await page.getByRole('combobox', { name: 'Source' }).fill('pier-poster')
    await page.keyboard.press('Escape')
    await page.getByLabel('Destination').fill(`${server.door}/ABC234`)
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page.getByText('would go in a circle').waitFor()
    expect(await page.getByRole('combobox', { name: 'Source' }).inputValue()).toBe('pier-poster')
    await page.getByLabel('Destination').fill('the summer timetable')
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page.getByText('This is not a whole web address').waitFor()
    await page.getByLabel('Destination').fill('saltmarsh.example/timetable?lang=de#today')
    await page.getByText('Taken as https://saltmarsh.example/timetable?lang=de#today').waitFor()
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page.getByRole('img', { name: 'Symbol of Pier poster, east gate' }).first().waitFor()
  })

  it('shows the short link, the final tagged address and the symbol at once', async () => {
    const { page } = browser
    const inspector = page.getByRole('complementary', { name: 'Pier poster, east gate' })
    await inspector
      .getByText('lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-timetable#today')
      .waitFor()
    const text = await inspector.innerText()
    shortLink = new RegExp(`${server.door}/[2-9A-Z]{6}`).exec(text)?.[0] ?? ''
    expect(shortLink).not.toBe('')
    expect(await inspector.getByTestId('scan-count').innerText()).toBe('0')
    await expectAccessible(page)
  })

  it('downloads the symbol as SVG and as PNG, and both carry the short link in upper case', async () => {
    expect(await carried(await download('SVG'))).toEqual([shortLink.toUpperCase(), shortLink.toUpperCase()])
    expect(await carried(await download('PNG'))).toEqual([shortLink.toUpperCase(), shortLink.toUpperCase()])
  })

  it('prints it at another size with its facts', async () => {
    const { page } = browser
    await page.getByRole('link', { name: 'Proof' }).click()
    await page.getByText(/^25 × 25 instead of \d+ × \d+ modules$/).waitFor()
    await page.getByText(/alphanumeric/).waitFor()
    await page.getByLabel('Size', { exact: true }).fill('45')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('region', { name: 'Unsaved changes' }).waitFor({ state: 'hidden' })
    await page.getByRole('tab', { name: 'Files' }).click()
    await page.getByRole('combobox', { name: 'Format' }).click()
    await page.getByRole('option', { name: 'PNG' }).click()
    const png = await download('Download')
    const { width = 0 } = await sharp(png).metadata()
    const bytes = readFileSync(png)
    expect((width / bytes.readUInt32BE(bytes.indexOf('pHYs') + 4)) * 1000).toBeCloseTo(45, 1)
    expect(await carried(png)).toEqual([shortLink.toUpperCase(), shortLink.toUpperCase()])
    await expectAccessible(page)
  })

  it('scans it: a second screen sees the count go to 1 without a reload, with place, device and language', async () => {
    const { page } = browser
    const plan = await page.context().newPage()
    await plan.goto(`${server.office}/campaigns/1/plan?code=1`)
    const inspector = plan.getByRole('complementary', { name: 'Pier poster, east gate' })
    await inspector.getByText('No scan yet').waitFor()

    await page.goto(`${server.office}/phone?code=1`)
    await page.getByAltText('Before the camera').waitFor()
    await page.getByLabel('Count it as a real scan').check()
    await page.getByRole('button', { name: 'Scan', exact: true }).click()
    await page.getByText('shows “Summer timetable”').waitFor()
    const landed = page.frameLocator('iframe')
    await landed.getByText('pier-poster', { exact: true }).waitFor()
    await landed.getByText('summer-timetable', { exact: true }).waitFor()
    await expectAccessible(page)

    await inspector.getByTestId('scan-count').filter({ hasText: /^1$/ }).waitFor()
    await inspector.getByText('Bremen, Germany').waitFor()
    await inspector.getByText('phone · iOS 18.5 · Safari · German (Germany)').waitFor()
    await plan.close()
  })

  it('a test scan, from a picture file, counts nowhere', async () => {
    const { page } = browser
    await page.goto(`${server.office}/phone`)
    const svg = await page.evaluate(async () => (await fetch('/api/codes/1/file?format=svg')).text())
    await page.setInputFiles('input[type=file]', {
      name: 'poster.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(svg),
    })
    await page.getByRole('button', { name: 'Scan', exact: true }).click()
    await page.getByText('shows “Summer timetable”').waitFor()
    await page.setInputFiles('input[type=file]', {
      name: 'no.png',
      mimeType: 'image/png',
      buffer: await sharp({ create: { width: 300, height: 300, channels: 3, background: '#888' } })
        .png()
        .toBuffer(),
    })
    await page.getByRole('button', { name: 'Scan', exact: true }).click()
    await page.getByText('No symbol was found in this picture').waitFor()
    await page.setInputFiles('input[type=file]', {
      name: 'no.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from('nothing'),
    })
    await page.getByRole('button', { name: 'Scan', exact: true }).click()
    await page.getByText('This file is no picture').waitFor()
    await page.goto(`${server.office}/campaigns/1/plan?code=1`)
    await page.getByTestId('scan-count').filter({ hasText: /^1$/ }).waitFor()
  })

  it('changes the destination by keyboard; the same symbol leads to the new page a second later', async () => {
    const { page } = browser
    await page.keyboard.press('e')
    await page.keyboard.type('https://saltmarsh.example/winter')
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('Everything is saved.').waitFor()
    const answer = await fetch(shortLink.toLowerCase(), {
      redirect: 'manual',
      headers: {
        'user-agent':
          'Mozilla/5.0 (Linux; Android 15; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/138.0.0.0 Mobile Safari/537.36',
        'x-forwarded-for': '31.132.200.77',
        'accept-language': 'nl',
      },
    })
    expect([answer.status, answer.headers.get('location')]).toEqual([
      302,
      'https://saltmarsh.example/winter?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-timetable',
    ])
    await page.getByTestId('scan-count').filter({ hasText: /^2$/ }).waitFor()
  })

  it('the results mark the moment, agree with the plan, and show the rows behind', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/results?days=today`)
    await page
      .getByRole('list', { name: 'What may explain it' })
      .getByText('https://saltmarsh.example/winter')
      .waitFor()
    await page.getByRole('img', { name: /^Scans by hour: 2 scans,/ }).waitFor()
    for (const cell of [
      'Netherlands',
      'Germany',
      'Bremen, Germany',
      'Groningen, Netherlands',
      'Android',
      'iOS',
      'Dutch',
      'German',
    ]) {
      await page.getByRole('rowheader', { name: cell, exact: true }).waitFor()
    }
    await page.getByText('Excluded: 1 test scan', { exact: true }).waitFor()
    await page.getByRole('combobox', { name: 'Against' }).click()
    await page.getByRole('option', { name: 'the days before' }).click()
    await page.getByText('none before').first().waitFor()
    await page.getByRole('button', { name: 'Table', exact: true }).click()
    await page.getByRole('grid', { name: 'The answer as a table' }).waitFor()
    // Everything else is narrowed to what is chosen, the rows behind it too.
    await page.getByRole('rowheader', { name: 'Netherlands', exact: true }).getByRole('button').press('Enter')
    await page.getByText('Country: Netherlands').waitFor()
    await page.getByRole('button', { name: 'Show the rows' }).click()
    await page.getByRole('gridcell', { name: 'Groningen, Netherlands' }).waitFor()
    const csv = readFileSync(await download('Download these rows as CSV'), 'utf8')
    expect(csv.trim().split('\r\n')).toHaveLength(2)
    await expectAccessible(page)
  })

  it('the results do not ask while a year is half typed', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/results?days=today`)
    await page.getByRole('img', { name: /^Scans by hour/ }).waitFor()
    const asked: string[] = []
    page.on('request', (request) => {
      if (request.url().endsWith('/api/figures'))
        asked.push((request.postDataJSON() as { from: string }).from)
    })
    await page.getByLabel('From', { exact: true }).selectText()
    await page.keyboard.type('1 July 2026', { delay: 40 })
    await expect.poll(() => asked).toContain('2026-07-01')
    expect(asked.filter((day) => day < '1970')).toEqual([])
  })

  it('nothing complained on the way: no script error, nothing the security policy had to stop', () => {
    expect(browser.complaints).toEqual([])
  })
})
