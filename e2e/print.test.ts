import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import type { Download } from 'playwright-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { zxing } from '../bench/decoders.ts'
import { frameOf, rendered } from '../bench/ghostscript.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

// From a look that fails to paper: styled, seen to fail, mended by one key, saved, released, downloaded, reprinted.
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  browser = await watchedBrowser()
  const { page } = browser
  await setUp(page, server.office)
  await api(page, 'POST', '/campaigns', { name: 'Summer', zone: 'Europe/Berlin', utmCampaign: 'summer-26' })
  for (const [name, slug] of [
    ['Pier poster', 'PIER'],
    ['Café coaster', 'COASTER'],
    ['Ticket', 'TICKET'],
  ])
    await api(page, 'POST', '/codes', {
      campaignId: 1,
      name,
      slug,
      medium: 'print',
      source: 'pier',
      destination: 'https://saltmarsh.example/timetable',
      sizeMm: 40,
      viewingM: 0.3,
    })
})
afterAll(async () => {
  await browser.close()
  await server.close()
})

const sha = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const bytesOf = async (download: Download) => readFileSync(await download.path())
const preflight = () => browser.page.getByRole('main').getByText('Preflight').locator('../..')
const openPrint = async (code: number) => {
  const { page } = browser
  await page.goto(`${server.office}/campaigns/1/print?code=${String(code)}`)
  await page.getByRole('complementary', { name: 'Job sheet' }).waitFor()
}

describe('a piece on its way to print', () => {
  it('is styled, seen to fail, mended by one key, and saved as a house style', async () => {
    const { page, complaints } = browser
    await openPrint(1)
    await preflight().getByText('✓ Ready').waitFor()
    await page.getByRole('textbox', { name: 'Colour of the ink' }).fill('#e8dca0')
    await preflight().getByText('▲ Will fail').waitFor()
    await preflight()
      .getByText(/^Darken the ink to #/)
      .waitFor()
    await preflight().getByText('ready then').first().waitFor()
    await expectAccessible(page)
    // Keys of fixes are for those who do not type.
    await page.getByRole('listbox', { name: 'Pieces' }).focus()
    await page.keyboard.press('1')
    await preflight().getByText('✓ Ready').waitFor()
    const mended = await page.getByRole('textbox', { name: 'Colour of the ink' }).inputValue()
    expect(mended).not.toBe('#e8dca0')
    await page.keyboard.press('Control+z')
    await preflight().getByText('▲ Will fail').waitFor()
    await page.keyboard.press('Control+Shift+Z')
    await preflight().getByText('✓ Ready').waitFor()
    await page.getByRole('button', { name: 'Save as a new house style' }).click()
    await page.getByLabel('Name of the house style').fill('Saltmarsh ochre')
    await page.keyboard.press('Enter')
    await page.getByRole('region', { name: 'Unsaved changes' }).waitFor({ state: 'hidden' })
    const { styleName } = await api<{ styleName: string }>(page, 'GET', '/codes/1')
    expect(styleName).toBe('Saltmarsh ochre')
    expect(complaints).toEqual([])
  })

  it('is released, downloaded and reprinted to the byte, while its look goes on', async () => {
    const { page } = browser
    await page.getByRole('tab', { name: 'Release' }).click()
    await page.getByLabel('Printer').fill('Dune Press')
    await page.getByRole('button', { name: 'Release this piece for print' }).click()
    const link = page.getByRole('link', { name: 'pier-poster-PIER.pdf' })
    const [first] = await Promise.all([page.waitForEvent('download'), link.click()])
    const released = await bytesOf(first)
    await page.getByRole('option', { name: /Pier poster Released/ }).waitFor()
    await expectAccessible(page)

    // The look of the house changes, and this piece's with it; what left the house does not.
    await page.getByRole('tab', { name: 'Look' }).click()
    await page.getByRole('textbox', { name: 'Colour of the ink' }).fill('#202020')
    await page.getByText('It was released: what is printed stays as it was').waitFor()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('option', { name: /Pier poster Changed since/ }).waitFor()
    await page.getByRole('tab', { name: 'Release' }).click()
    await page.getByText('Since release 1 the look changed.').waitFor()
    const [again] = await Promise.all([page.waitForEvent('download'), link.click()])
    expect(sha(await bytesOf(again))).toBe(sha(released))
    const side = Math.round((40 / 25.4) * 300)
    const pixels = rendered(released, 'bitrgb', 300)
    expect(pixels.length % (side * 3)).toBe(0)
    const text = await zxing(frameOf(pixels, side, pixels.length / side / 3))
    expect(text).toMatch(/\/PIER$/)
  })

  it('is checked with all the others, and those that will fail are found', async () => {
    const { page } = browser
    await api(page, 'PATCH', '/codes/3', { version: 1, viewingM: 40 })
    await openPrint(2)
    await page.getByRole('button', { name: 'Check all 3 pieces' }).click()
    await page.getByText('2 ready, 0 to be looked at again, 1 will fail.').waitFor()
    await page.getByRole('button', { name: 'Will fail 1' }).click()
    await page.getByRole('option', { name: /Ticket Will fail/ }).click()
    await preflight()
      .getByText(/people will stand 40 m away/)
      .waitFor()
    await page.getByRole('button', { name: /^All 3/ }).click()
    await page.getByRole('option', { name: /coaster/ }).waitFor()
  })

  it('comes out on sheets, and stands alone on a page that prints at its size', async () => {
    const { page } = browser
    await openPrint(2)
    await page.getByRole('tab', { name: 'Sheets' }).click()
    await page.getByLabel('Columns', { exact: true }).fill('4')
    await page.getByText('4 columns reach 255 mm from the left').waitFor()
    await page.getByLabel('Columns', { exact: true }).fill('3')
    await page.getByLabel('Caption 1').fill('{name}')
    const [sheets] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'PDF of 1 sheet' }).click(),
    ])
    expect(sheets.suggestedFilename()).toBe('Summer sheets.pdf')
    expect((await bytesOf(sheets)).subarray(0, 5).toString()).toBe('%PDF-')
    await page.goto(`${server.office}/print-here/code/2`)
    const symbol = page.getByRole('img', { name: 'Symbol of Café coaster' })
    await symbol.waitFor()
    // A CSS millimetre is 96 / 25.4 pixels (CSS Values, section 6.2).
    expect((await symbol.boundingBox())?.width).toBeCloseTo((40 * 96) / 25.4, 0)
  })

  it('takes a logo that is uploaded, and lists it with what uses it', async () => {
    const { page } = browser
    await openPrint(2)
    await page.setInputFiles('input[aria-label="Logo: file to upload"]', {
      name: 'gull.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><script>alert(1)</script><circle cx="20" cy="20" r="20" fill="#0c5a66"/></svg>',
      ),
    })
    await page.getByRole('button', { name: 'Remove logo' }).waitFor()
    await page.getByLabel('Size of the logo').fill('40')
    await preflight()
      .getByText(/^Shrink the logo to/)
      .waitFor()
    await preflight()
      .getByRole('listitem')
      .filter({ hasText: 'ready then' })
      .first()
      .getByRole('button')
      .click()
    await preflight().getByText('✓ Ready').waitFor()
    await page.getByRole('button', { name: 'Save as a new house style' }).click()
    await page.getByLabel('Name of the house style').fill('With the gull')
    await page.keyboard.press('Enter')
    await page.getByRole('region', { name: 'Unsaved changes' }).waitFor({ state: 'hidden' })
    await page.goto(`${server.office}/settings/files`)
    await page.getByRole('cell', { name: 'With the gull' }).waitFor()
    expect(await page.getByRole('button', { name: 'Delete gull.svg' }).isDisabled()).toBe(true)
  })

  it('lies on a poster, moved by keys and by mouse, measured and printed where it lies', async () => {
    const { page } = browser
    await openPrint(3)
    const poster = await sharp({ create: { width: 600, height: 800, channels: 3, background: '#f2e6c8' } })
      .jpeg()
      .toBuffer()
    await page.setInputFiles('input[aria-label="Poster or label: file to upload"]', {
      name: 'poster.jpg',
      mimeType: 'image/jpeg',
      buffer: poster,
    })
    const mover = page.getByRole('button', { name: /^Symbol on the picture/ })
    await mover.focus()
    await page.keyboard.press('Shift+ArrowRight')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Alt+ArrowRight')
    await expect.poll(() => page.getByLabel('From the left').inputValue()).toBe('115')
    await expect.poll(() => page.getByLabel('From the top').inputValue()).toBe('149')
    await expect.poll(() => page.getByLabel('Turned by').inputValue()).toBe('5')
    const box = await mover.boundingBox()
    if (!box) throw new Error('Nothing to drag')
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x, y + 40, { steps: 4 })
    await page.mouse.up()
    expect(Number(await page.getByLabel('From the top').inputValue())).toBeGreaterThan(160)
    await page.getByLabel('Viewed from').fill('0.3')
    await preflight().getByText('✓ Ready').waitFor()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('region', { name: 'Unsaved changes' }).waitFor({ state: 'hidden' })
    await expectAccessible(page)
    await page.getByRole('tab', { name: 'Files' }).click()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download', exact: true }).click(),
    ])
    const dpi = 100
    const drawn = rendered(await bytesOf(file), 'bitrgb', dpi)
    const side = Math.round((210 / 25.4) * dpi)
    expect(await zxing(frameOf(drawn, side, Math.floor(drawn.length / side / 3)))).toMatch(/\/TICKET$/)
  })
})

describe('a static code', () => {
  it('is filled in, told what is wrong and what each field takes, saved, measured and downloaded', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/plan`)
    await page.getByRole('button', { name: 'Files and more' }).click()
    await page.getByRole('menuitem', { name: /^New static code/ }).click()
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Guests')
    await page.getByRole('combobox', { name: 'Kind' }).click()
    await page.getByRole('option', { name: 'Wi-Fi network' }).click()
    await page.getByRole('textbox', { name: 'Network' }).fill('Gull; guests')
    await page.getByLabel('Password').fill('short')
    await page.getByText('Passwords of networks have 8 to 63 signs').first().waitFor()
    expect(await page.getByRole('button', { name: 'Save', exact: true }).isDisabled()).toBe(true)
    await page.getByLabel('Password').fill('low tide 9')
    await page.getByText(/^Carries \d+ bytes in 29 × 29 modules/).waitFor()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('option', { name: /Guests Ready/ }).waitFor()
    await expectAccessible(page)
    await page.getByRole('tab', { name: 'Files' }).click()
    await page.getByRole('combobox', { name: 'Format' }).click()
    await page.getByRole('option', { name: 'PNG' }).click()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download', exact: true }).click(),
    ])
    const { data, info } = await sharp(await bytesOf(file))
      .ensureAlpha()
      .toColourspace('srgb')
      .raw()
      .toBuffer({ resolveWithObject: true })
    const read = await zxing({ width: info.width, height: info.height, data: new Uint8ClampedArray(data) })
    expect(read).toBe('WIFI:T:WPA;S:Gull\\; guests;P:low tide 9;;')
    await page.getByRole('tab', { name: 'Release' }).click()
    await page.getByRole('button', { name: 'Release this piece for print' }).click()
    await page.getByRole('option', { name: /Guests Released/ }).waitFor()
    await page.getByRole('link', { name: 'guests-STATIC.png' }).waitFor()
    await page.goto(`${server.office}/campaigns/1/plan`)
    await page.getByRole('row', { name: /Guests.*Wi-Fi network/ }).waitFor()
    await expectAccessible(page)
    await page.getByRole('link', { name: 'Guests' }).press('Enter')
    await page.getByRole('textbox', { name: 'Network' }).waitFor()
    expect(await page.getByRole('button', { name: 'Delete' }).count()).toBe(0)
  })
})
