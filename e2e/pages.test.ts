import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
}

/** A tone of two seconds (RIFF, PCM of 8 bits at 8 kHz). */
function tone(): Buffer {
  const samples = Buffer.from(
    Array.from({ length: 16_000 }, (_each, i) => 128 + Math.round(60 * Math.sin(i / 4))),
  )
  const head = Buffer.alloc(44)
  head.write('RIFF', 0)
  head.writeUInt32LE(36 + samples.length, 4)
  head.write('WAVEfmt ', 8)
  head.writeUInt32LE(16, 16)
  head.writeUInt16LE(1, 20)
  head.writeUInt16LE(1, 22)
  head.writeUInt32LE(8000, 24)
  head.writeUInt32LE(8000, 28)
  head.writeUInt16LE(1, 32)
  head.writeUInt16LE(8, 34)
  head.write('data', 36)
  head.writeUInt32LE(samples.length, 40)
  return Buffer.concat([head, samples])
}

// An audio stop in two languages, from its first word to who listened to its end.
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
    name: 'Railing, stop 1',
    slug: 'stop1',
    medium: 'print',
    source: 'railing',
    destination: 'https://saltmarsh.example/stops',
  })
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

const events = () => {
  const database = new Sqlite(server.file, { readonly: true })
  try {
    return database
      .prepare('SELECT kind, item FROM event_rows r JOIN event_ways w ON w.id = r.wayId ORDER BY r.id')
      .all() as { kind: string; item: string }[]
  } finally {
    database.close()
  }
}

describe('an audio stop', () => {
  it('begins with what such a page has, and says what it lacks before it is published', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages`)
    await page.getByText('No page yet').waitFor()
    await page.keyboard.press('n')
    await page.getByLabel('Name').fill('Stop 1')
    await page.getByRole('combobox', { name: 'Language' }).fill('German')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Make page' }).press('Enter')
    await page.getByText('Draft saved, never published.').waitFor()
    await page.getByRole('button', { name: 'Publish', exact: true }).press('Enter')
    await page.getByText('Not published: 4 things are missing.').waitFor()
    await page.getByText('Choose a picture.').waitFor()
    await expectAccessible(page)
    for (const part of [/^Picture/, /^Link All stops/]) {
      await page.getByRole('button', { name: part }).press('Enter')
      await page.getByRole('button', { name: 'Remove', exact: true }).press('Enter')
    }
    await page.getByText('Draft saved, never published.').waitFor()
  })

  it('is written in two languages, with a recording, and seen as a phone shows it while it is typed', async () => {
    const { page } = office
    const phone = page.frameLocator('iframe[title="The page as a phone shows it"]')
    await page.getByRole('button', { name: /^Heading/ }).press('Enter')
    await page.getByRole('textbox', { name: 'Heading' }).fill('Halt 1: der Leuchtturm')
    await phone.getByRole('heading', { name: 'Halt 1: der Leuchtturm' }).waitFor()
    await page.getByRole('button', { name: /^Recording/ }).press('Enter')
    await page.getByLabel('Recording: file to upload').setInputFiles({
      name: 'stop1.wav',
      mimeType: 'audio/wav',
      buffer: tone(),
    })
    await page.getByText('stop1.wav').waitFor()
    await page.getByRole('button', { name: /^Text/ }).press('Enter')
    const editor = page.getByRole('textbox', { name: 'Text' })
    await editor.press('Control+a')
    await page.keyboard.type('Seit 1891 brennt hier ein ')
    await page.keyboard.press('Control+b')
    await page.keyboard.type('Licht')
    await page.keyboard.press('Control+b')
    await page.keyboard.type('.')
    await phone.locator('strong', { hasText: 'Licht' }).waitFor()
    await page.getByRole('button', { name: /^Page/ }).press('Enter')
    await page.getByRole('combobox', { name: 'Add language' }).fill('English')
    await page.getByRole('option', { name: 'English (en)' }).click()
    await page.getByRole('list', { name: 'Missing texts' }).getByText('Text, text: not in English').waitFor()
    await page.getByRole('button', { name: 'English', exact: true }).press('Enter')
    await page.getByLabel('Title', { exact: true }).fill('Stop 1')
    await page.getByRole('button', { name: /^Heading/ }).press('Enter')
    await page.getByRole('textbox', { name: 'Heading' }).fill('Stop 1: the lighthouse')
    await phone.getByRole('heading', { name: 'Stop 1: the lighthouse' }).waitFor()
    await expectAccessible(page)
  })

  it('has its parts moved by the keyboard, duplicated, hidden, and taken back', async () => {
    const { page } = office
    const kinds = () => page.getByRole('list', { name: 'Parts' }).getByRole('listitem').allInnerTexts()
    const handle = page.getByRole('button', { name: /^Move recording/ })
    await handle.focus()
    await page.keyboard.press('Space')
    await page.keyboard.press('ArrowDown')
    await page.waitForTimeout(300)
    await page.keyboard.press('Space')
    await expect
      .poll(async () => (await kinds()).map((text) => text.split('\n')[0]))
      .toEqual(['Heading', 'Text', 'Recording', 'Divider'])
    await page.getByRole('button', { name: 'Divider', exact: true }).press('Enter')
    await page.getByRole('button', { name: 'Duplicate', exact: true }).press('Enter')
    await page.getByRole('button', { name: 'Hide', exact: true }).press('Enter')
    await page.getByText('Hidden: nobody is shown it.').waitFor()
    expect(await kinds()).toHaveLength(5)
    await page.getByRole('button', { name: 'Remove', exact: true }).press('Enter')
    expect(await kinds()).toHaveLength(4)
    await page.getByText('Draft saved, never published.').waitFor()
    await page.getByRole('button', { name: 'Publish', exact: true }).press('Enter')
    await page.getByText('Live.', { exact: true }).waitFor()
  })

  it('is chosen on a lane, published, and heard to its end on a phone', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/routes`)
    await page.getByText('Live for every scan.').waitFor()
    await page.keyboard.press('l')
    await page.getByRole('combobox', { name: 'Leads to' }).press('Enter')
    await page.getByRole('option', { name: 'a page or file' }).press('Enter')
    await page.getByRole('link', { name: 'Edit this page' }).waitFor()
    await page
      .getByRole('status', { name: 'Where the test scan leads' })
      .getByText('The page “Stop 1”')
      .waitFor()
    await page.getByText('Draft saved, not live yet.').waitFor()
    await page.getByRole('button', { name: 'Close' }).press('Enter')
    await page.getByRole('button', { name: 'Publish…' }).press('Enter')
    await page
      .getByRole('list', { name: 'What changes' })
      .getByText('Every scan → the page “Stop 1”')
      .waitFor()
    await page.getByRole('button', { name: 'Publish for 1 code' }).press('Enter')
    await page.getByText('Live for every scan.').waitFor()

    const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE, locale: 'de-AT' })
    await phone.page.goto(`${server.door}/STOP1`)
    await phone.page.getByRole('heading', { name: 'Halt 1: der Leuchtturm' }).waitFor()
    await expectAccessible(phone.page)
    expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
    expect(await phone.page.evaluate(() => document.cookie + String(localStorage.length))).toBe('0')
    await phone.page.locator('audio').focus()
    await phone.page.keyboard.press('Space')
    await expect
      .poll(
        () =>
          events()
            .filter(({ kind }) => kind === 'played')
            .map(({ item }) => item),
        { timeout: 15_000 },
      )
      .toEqual(['0', '25', '50', '75', '100'])
    expect(phone.complaints).toEqual([])
    await phone.close()
  })

  it('is read without script, and in the other language, which is no scan', async () => {
    const phone = await watchedBrowser({
      width: 360,
      height: 740,
      userAgent: PHONE,
      locale: 'de-AT',
      script: false,
    })
    await phone.page.goto(`${server.door}/stop1`)
    await phone.page.getByRole('link', { name: 'English' }).click()
    await phone.page.getByRole('heading', { name: 'Stop 1: the lighthouse' }).waitFor()
    // What it lacks is said in its own language.
    await phone.page.getByText('Seit 1891 brennt hier ein').waitFor()
    expect(phone.complaints).toEqual([])
    await phone.close()
    expect(events().filter(({ kind }) => kind === 'opened')).toHaveLength(2)
  })

  it('is counted: on the page’s own results, and as columns of the campaign’s', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages?page=1`)
    await page.getByRole('button', { name: 'Results', exact: true }).press('Enter')
    await page.getByRole('strong').getByText('2 scans').waitFor()
    const table = page.getByRole('table', { name: 'What was done on the page' })
    const played = table.getByRole('row', { name: /Played to 100 %/ })
    expect(await played.getByRole('cell').allInnerTexts()).toEqual([
      expect.stringMatching(/^Recording/),
      'Played to 100 %',
      '1',
      '50%',
    ])
    await played.getByRole('button').press('Enter')
    const rows = page.getByRole('region', { name: 'The rows behind it' })
    await rows.getByText(/^Only: Recording.*Played to 100 %$/).waitFor()
    await rows.getByRole('gridcell', { name: 'Railing, stop 1' }).waitFor()
    await expectAccessible(page)
    await page.goto(`${server.office}/campaigns/1/results`)
    const pieces = page.getByRole('table', { name: 'On pages, by piece' })
    const piece = pieces.getByRole('row', { name: /^Railing, stop 1/ })
    await piece.waitFor()
    expect(await piece.getByRole('cell').allInnerTexts()).toEqual([
      'Railing, stop 1',
      '2',
      '0',
      '0',
      '1',
      '1',
    ])
  })
})

describe('a page that somebody else prepares meanwhile', () => {
  it('is not overwritten unasked, and nothing that was typed is lost', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages?page=1`)
    await page.getByText('Live.', { exact: true }).waitFor()
    const stored = await api<{ draftVersion: number; live: { parts: unknown[] } }>(page, 'GET', '/pages/1')
    const theirs = { ...stored.live, parts: stored.live.parts.slice(0, 2) }
    await page.getByRole('textbox', { name: 'Heading' }).fill('Halt 1: der alte Leuchtturm')
    await api(page, 'PATCH', '/pages/1/draft', { draftVersion: stored.draftVersion, content: theirs })
    await page.getByText('Someone saved this page after you opened it.').waitFor()
    expect(await page.getByRole('textbox', { name: 'Heading' }).inputValue()).toBe(
      'Halt 1: der alte Leuchtturm',
    )
    await page.getByRole('button', { name: 'Overwrite with mine' }).press('Enter')
    await page.getByText('Draft saved, not live yet.').waitFor()
    const { draft } = await api<{ draft: { parts: unknown[] } }>(page, 'GET', '/pages/1')
    expect(draft.parts).toHaveLength(stored.live.parts.length)
  })

  it('is not deleted while a lane leads there', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/pages?page=1`)
    await page.getByRole('button', { name: 'More for this page' }).press('Enter')
    await page.getByRole('menuitem', { name: 'Delete page' }).press('Enter')
    await page.getByText('“Railing, stop 1” leads to “Stop 1”. Lead it elsewhere first.').waitFor()
  })
})
