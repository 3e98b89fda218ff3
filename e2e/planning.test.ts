import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { unzipSync } from 'fflate'
import { readFileSync } from 'node:fs'
import { api, builtServer, expectAccessible, openScreen, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
  slug: string
  version: number
}
interface Piece extends Made {
  name: string
  medium: string
  source: string
  content: string
  place: string
  shortLink: string
  findings: { kind: string }[]
  archivedAt: number | null
}

// A manager’s day with a plan: what is wrong is found and fixed, arranged, put away, carried into the next year.
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  browser = await watchedBrowser()
  const { page } = browser
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await setUp(page, server.office)
  await api(page, 'POST', '/campaigns', {
    name: 'Summer 2026',
    zone: 'Europe/Berlin',
    utmCampaign: 'summer-26',
  })
  const piece = (more: object) =>
    api<Made>(page, 'POST', '/codes', {
      campaignId: 1,
      medium: 'print',
      source: 'bus-back',
      destination: 'https://saltmarsh.example/timetable',
      ...more,
    })
  await piece({ name: 'Bus one', content: 'one' })
  await piece({ name: 'Bus two', content: 'two' })
  await piece({ name: 'Bus three', source: 'Bus Back', content: 'three' })
  await piece({
    name: 'Hall screen',
    medium: 'screen',
    source: 'hall',
    destination: 'https://saltmarsh.example/old/hall',
  })
  await piece({
    name: 'Dead end',
    source: 'notice',
    content: 'dead',
    destination: 'https://saltmarsh.example/gone',
  })
})
afterAll(async () => {
  await browser.close()
  await server.close()
})

const plan = async (query = '') =>
  (await api<{ rows: Piece[] }>(browser.page, 'GET', `/codes?campaignId=1&pageSize=100&sort=name${query}`))
    .rows
const cell = (text: string) => browser.page.getByRole('gridcell', { name: text, exact: true })
const said = (text: string | RegExp) => browser.page.getByText(text).first().waitFor()
const openPlan = async () => {
  await browser.page.goto(`${server.office}/campaigns/1/plan`)
  await cell('Bus one').waitFor()
}
/** Puts the cursor on a piece’s name. */
const choose = async (name: string) => {
  await cell(name).click()
}

describe('finding and fixing', () => {
  it('shows what to look over, narrows to it, and fixes a whole column at a stroke', async () => {
    const { page } = browser
    await openPlan()
    await page.getByRole('button', { name: /source: look-alikes/ }).click()
    await cell('Bus one').waitFor({ state: 'hidden' })
    await cell('Bus three').waitFor()
    await page.getByRole('button', { name: 'Fix source of 1 piece' }).click()
    await said('1 piece changed.')
    expect((await plan()).find(({ name }) => name === 'Bus three')?.source).toBe('bus-back')
    await page.getByRole('button', { name: 'Undo' }).click()
    await said('1 piece changed back.')
    expect((await plan()).find(({ name }) => name === 'Bus three')?.source).toBe('Bus Back')
  })

  it('fixes the row one is in by one key', async () => {
    await openPlan()
    await choose('Bus three')
    await browser.page.keyboard.press('f')
    await said('1 piece changed.')
    expect((await plan()).find(({ name }) => name === 'Bus three')).toMatchObject({
      source: 'bus-back',
      findings: [],
    })
    await browser.page.keyboard.press('f')
    await said('The linter finds nothing here.')
  })

  it('copies the final address of the row by one key', async () => {
    await choose('Bus one')
    await browser.page.keyboard.press('c')
    await said('The final address of “Bus one” is copied.')
    expect(await browser.page.evaluate(() => navigator.clipboard.readText())).toBe(
      'https://saltmarsh.example/timetable?utm_source=bus-back&utm_medium=print&utm_campaign=summer-26&utm_content=one',
    )
  })

  it('fixes a finding in the inspector, and says how dense the symbol is', async () => {
    const { page } = browser
    await api(page, 'POST', '/codes/changes', { changes: [{ id: 1, set: { content: 'One Line' } }] })
    await openScreen(page, '/campaigns/1/plan?code=1')
    const inspector = page.getByRole('complementary', { name: 'Bus one' })
    await inspector
      .getByRole('group', { name: 'Warnings' })
      .getByRole('button', { name: 'Fix' })
      .first()
      .click()
    await inspector.getByRole('group', { name: 'Warnings' }).waitFor({ state: 'hidden' })
    expect((await plan()).find(({ name }) => name === 'Bus one')?.content).toBe('one-line')
    const dense = await inspector.getByRole('table', { name: 'Symbol density' }).innerText()
    expect(dense).toMatch(/The short link in capitals \(printed\)\s+25\s+0\.91 mm/)
  })
})

describe('destinations', () => {
  it('are checked all at once, and stand on the desk, the plan and the route', async () => {
    const { page } = browser
    await openPlan()
    await page.getByRole('button', { name: 'Files and more' }).click()
    await page.getByRole('menuitem', { name: /Check all destinations/ }).click()
    await openScreen(page, '/')
    const desk = page.getByRole('region', { name: 'Failing destinations' })
    await desk.getByText(/Dead end.* fails since/).waitFor()
    await desk.getByText(/Hall screen.* loses its tags/).waitFor()
    await expectAccessible(page)
    await desk.getByRole('link', { name: /Dead end/ }).click()
    await page.getByText('saltmarsh.example has no such page (404)').first().waitFor()
    await page.getByRole('list', { name: 'Requests on the way' }).getByText('404').waitFor()
  })

  it('that were corrected need nobody any more', async () => {
    const { page } = browser
    await page.keyboard.press('e')
    await page.getByLabel('Every other scan leads to').fill('https://saltmarsh.example/tides')
    await page.getByRole('button', { name: 'Publish…' }).click()
    await page.getByRole('button', { name: 'Publish for 1 code' }).click()
    await page.getByText('Live for every scan.').waitFor()
    await page.getByRole('button', { name: 'Check now' }).click()
    await page
      .getByText(/Answers in \d+ ms, with every tag/)
      .first()
      .waitFor()
    await openScreen(page, '/')
    await page.getByText(/Hall screen.* loses its tags/).waitFor()
    await page.getByText(/Dead end/).waitFor({ state: 'hidden' })
  })
})

describe('arranging', () => {
  it('groups by medium, closes a group, and keeps that as a view', async () => {
    const { page } = browser
    await openPlan()
    await page.getByRole('button', { name: 'Columns and order' }).click()
    await page.getByLabel('Grouped by').click()
    await page.getByRole('option', { name: 'medium' }).click()
    await page.getByRole('checkbox', { name: 'Channel' }).check()
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await page.getByText('4 pieces · 0 scans').waitFor()
    await cell('Offline screen').waitFor()
    const group = page.getByRole('row').filter({ hasText: '4 pieces' })
    await group.click()
    await cell('Bus one').waitFor({ state: 'hidden' })
    await group.click()
    await cell('Bus one').waitFor()
    await page.getByRole('button', { name: 'Views' }).click()
    await page.getByLabel('Save this view as').fill('By medium')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await page.getByRole('button', { name: 'By medium', exact: true }).waitFor()
    await page.keyboard.press('Escape')
  })

  it('finds columns and views again after leaving', async () => {
    const { page } = browser
    await openScreen(page, '/')
    await openPlan()
    await cell('Offline screen').waitFor()
    expect(await page.getByText('4 pieces · 0 scans').count()).toBe(0)
    await page.getByRole('button', { name: 'Views' }).click()
    await page.getByRole('button', { name: 'By medium', exact: true }).click()
    await page.getByText('4 pieces · 0 scans').waitFor()
    await page.getByRole('button', { name: 'Views' }).click()
    await page.getByRole('button', { name: 'Delete the view By medium' }).click()
    await page.getByText('No view is saved yet').waitFor()
    await page.keyboard.press('Escape')
  })
})

describe('many at once', () => {
  it('sets, duplicates and archives what is chosen, and brings it back', async () => {
    const { page } = browser
    await openPlan()
    await choose('Bus one')
    await page.keyboard.press('Space')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Space')
    const bar = page.getByRole('region', { name: 'Selected pieces' })
    await bar.getByText('2 pieces chosen').waitFor()
    await expectAccessible(page)
    await bar.getByLabel('Set', { exact: true }).click()
    await page.getByRole('option', { name: 'Place' }).click()
    await bar.getByLabel('to', { exact: true }).fill('Depot')
    await bar.getByRole('button', { name: 'Set for all' }).click()
    await said('2 pieces changed.')
    expect((await plan()).filter(({ place }) => place === 'Depot').map(({ name }) => name)).toEqual([
      'Bus one',
      'Bus two',
    ])
    await bar.getByRole('button', { name: 'Duplicate' }).click()
    await said('2 pieces added, each with a short link of its own.')
    await bar.getByRole('button', { name: 'Archive' }).click()
    await said('2 pieces changed.')
    expect((await plan('&shown=archived')).map(({ name }) => name)).toEqual(['Bus one', 'Bus two'])
    await page.getByLabel('Which pieces').click()
    await page.getByRole('option', { name: 'archived' }).click()
    await cell('Bus two').waitFor()
    await page.getByRole('columnheader', { name: 'Selected' }).click()
    await bar.getByRole('button', { name: 'Restore' }).click()
    // Archiving said the same words: what they did is looked at until it is there.
    await expect.poll(() => plan('&shown=archived')).toEqual([])
  })

  it('issues a numbered series', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/plan?new=series`)
    await page.getByLabel('To', { exact: true }).fill('12')
    await page.getByLabel('Name of the pieces').fill('Table card {n}')
    await page.getByRole('combobox', { name: 'Medium' }).fill('print')
    await page.getByRole('combobox', { name: 'Source' }).fill('table-card')
    await page.getByLabel('Destination', { exact: true }).fill('https://saltmarsh.example/menu')
    await page.getByRole('button', { name: /^More/ }).click()
    await page.getByRole('combobox', { name: 'Content' }).fill('card-{n}')
    await page.getByRole('textbox', { name: 'Short link' }).fill('card-{n}')
    await page.getByRole('button', { name: 'Add series' }).click()
    await cell('Table card 012').waitFor()
    const cards = (await plan()).filter(({ source }) => source === 'table-card')
    expect([
      cards.length,
      cards[11]?.slug,
      cards[11]?.content,
      new Set(cards.map(({ routeId }) => routeId)).size,
    ]).toEqual([12, 'CARD-012', 'card-012', 1])
  })

  it('moves a piece to another campaign, scans and all', async () => {
    const { page } = browser
    await api(page, 'POST', '/campaigns', { name: 'Autumn', zone: 'Europe/Berlin', utmCampaign: 'autumn-26' })
    await openPlan()
    await choose('Hall screen')
    await page.keyboard.press('Space')
    await page.getByRole('button', { name: 'Move…' }).click()
    const dialog = page.getByRole('dialog', { name: 'Move 1 piece' })
    await dialog.getByLabel('To the campaign').click()
    await page.getByRole('option', { name: 'Autumn' }).click()
    await dialog.getByRole('button', { name: 'Move', exact: true }).click()
    await said('1 piece moved.')
    await cell('Hall screen').waitFor({ state: 'hidden' })
    expect((await api<{ codes: number }>(page, 'GET', '/campaigns/2')).codes).toBe(1)
  })
})

describe('files', () => {
  it('all symbols come as one ZIP, named by a pattern', async () => {
    const { page } = browser
    await openPlan()
    await page.getByRole('button', { name: 'Files and more' }).click()
    await page.getByRole('menuitem', { name: /All symbols as a ZIP/ }).click()
    const dialog = page.getByRole('dialog', { name: 'All symbols as a ZIP file' })
    await dialog.getByLabel('Names of the files').fill('{colour}')
    await dialog.getByText('{colour} is no field').waitFor()
    await dialog.getByLabel('Names of the files').fill('{n} {link}')
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      dialog.getByRole('button', { name: 'Download' }).click(),
    ])
    const names = Object.keys(unzipSync(readFileSync(await file.path())))
    expect(names).toContain('18 CARD-012.svg')
    expect(file.suggestedFilename()).toBe('Summer 2026 print files.zip')
  })

  it('a plan that was downloaded changes nothing when it is handed in again', async () => {
    const { page } = browser
    await page.getByRole('button', { name: 'Files and more' }).click()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: /The plan as XLSX/ }).click(),
    ])
    await openScreen(page, '/campaigns/1/import')
    await page.setInputFiles('input[type=file]', {
      name: 'again.xlsx',
      mimeType: 'application/octet-stream',
      buffer: readFileSync(await file.path()),
    })
    await page.getByText(/again\.xlsx: 0 pieces to create, 0 to change, 18 the same, 0 refused/).waitFor()
    await page.getByText('Nothing here would change the plan.').waitFor()
  })
})

describe('settings', () => {
  it('a house rule is written, shown by an example, and holds in the form', async () => {
    const { page } = browser
    await openScreen(page, '/settings/tags')
    await page.getByLabel('Content pattern').fill('{place}-{colour}')
    await page.getByText('{colour} is no field').waitFor()
    await page.getByLabel('Content pattern').fill('{place}-{size}')
    await page.getByText('For example: ferry-pier-west-gate-60').waitFor()
    await page.getByLabel('Allowed media').fill('print\nscreen')
    await page.getByLabel('A medium that is not allowed').click()
    await page.getByRole('option', { name: 'is refused' }).click()
    await page.getByRole('button', { name: 'Add parameter' }).click()
    await page.getByLabel('Name in the address').fill('region')
    await page.getByLabel('Label').fill('Region')
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('Everything is saved.').waitFor()

    await openScreen(page, '/campaigns/1/plan?new')
    await page.getByLabel('Name of the piece').fill('Balloon')
    await page.getByRole('combobox', { name: 'Medium' }).fill('balloon')
    await page.getByRole('combobox', { name: 'Source' }).fill('fair')
    await page.getByLabel('Region (region), if any').fill('north')
    await page.getByLabel('Destination', { exact: true }).fill('https://saltmarsh.example/fair')
    await page.getByText('region=north').waitFor()
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page.getByText('“balloon” is not among the media of the house').waitFor()
    await page.getByRole('combobox', { name: 'Medium' }).fill('screen')
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page.getByRole('complementary', { name: 'Balloon' }).waitFor()
  })

  it('the channel table is put in another order, and tried', async () => {
    const { page } = browser
    await openScreen(page, '/settings/channels')
    await page.getByRole('status').filter({ hasText: 'falls in Offline print' }).waitFor()
    await page.getByLabel('Channel of line 4').fill('Walls')
    await page.getByRole('button', { name: 'Line 4 up' }).click()
    await page.getByRole('status').filter({ hasText: 'falls in Walls' }).waitFor()
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('Everything is saved.').waitFor()
    expect((await api<{ value: { channel: string }[] }>(page, 'GET', '/channels')).value[2]?.channel).toBe(
      'Walls',
    )
  })

  it('a domain is named, its records set, checked, used, and removed only by who says what dies', async () => {
    const { page } = browser
    await openScreen(page, '/settings/domains')
    await page.getByLabel('Host name').fill('https://qr.saltmarsh.example')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await page.getByText('Give only the host name').waitFor()
    await page.getByLabel('Host name').fill('qr.saltmarsh.example')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await page
      .getByRole('table', { name: 'Records of qr.saltmarsh.example' })
      .getByText('_flimbo.qr.saltmarsh.example')
      .waitFor()
    await page.getByRole('button', { name: 'Check', exact: true }).click()
    await page.getByText('There is no CNAME record of qr.saltmarsh.example yet').waitFor()
    await page.getByRole('button', { name: 'Set them in the DNS stand-in' }).click()
    await page.getByRole('button', { name: 'Check', exact: true }).click()
    await page.getByText('Both records are there').waitFor()
    await expectAccessible(page)

    const { shortLink } = await api<Piece>(page, 'POST', '/codes', {
      campaignId: 1,
      name: 'On the domain',
      medium: 'print',
      source: 'card',
      destination: 'https://saltmarsh.example/card',
      domainId: 2,
      slug: 'card',
    })
    expect(shortLink).toMatch(/^http:\/\/qr\.saltmarsh\.example:\d+\/CARD$/)
    await page.reload()
    await page.getByRole('button', { name: 'Remove', exact: true }).click()
    const dialog = page.getByRole('dialog', { name: 'Remove qr.saltmarsh.example' })
    await dialog.getByText('1 short link').waitFor()
    expect(await dialog.getByRole('button', { name: 'Remove the domain' }).isDisabled()).toBe(true)
    await dialog.getByLabel('Type 1 to go on').fill('1')
    await dialog.getByRole('button', { name: 'Remove the domain' }).click()
    await page.getByRole('table', { name: 'Records of qr.saltmarsh.example' }).waitFor({ state: 'hidden' })
  })
})

describe('the next year', () => {
  it('a campaign is duplicated with its year carried forward, pinned, and put away', async () => {
    const { page } = browser
    await openScreen(page, '/campaigns/1/plan')
    await page.getByRole('button', { name: 'Pin, duplicate, archive' }).click()
    await expectAccessible(page)
    await page.getByRole('menuitem', { name: /Duplicate…/ }).click()
    const dialog = page.getByRole('dialog', { name: 'Duplicate “Summer 2026”' })
    expect([
      await dialog.getByLabel('Name', { exact: true }).inputValue(),
      await dialog.getByLabel('Campaign value').inputValue(),
    ]).toEqual(['Summer 2027', 'summer-27'])
    await dialog.getByRole('button', { name: 'Duplicate', exact: true }).click()
    await page.waitForURL(/\/campaigns\/3\/plan/)
    await cell('Table card 012').waitFor()
    expect((await api<{ codes: number }>(page, 'GET', '/campaigns/3')).codes).toBe(
      (await api<{ codes: number }>(page, 'GET', '/campaigns/1')).codes,
    )

    await page.getByRole('button', { name: 'Pin, duplicate, archive' }).click()
    await page.getByRole('menuitem', { name: /Pin to the desk/ }).click()
    await page.getByRole('menu').waitFor({ state: 'hidden' })
    await page.getByRole('button', { name: 'Pin, duplicate, archive' }).click()
    await page.getByRole('menuitem', { name: /Unpin/ }).waitFor()
    await page.keyboard.press('Escape')
    await openScreen(page, '/campaigns/1/plan')
    await page.getByRole('button', { name: 'Pin, duplicate, archive' }).click()
    await page.getByRole('menuitem', { name: /^Archive/ }).click()
    await page.getByRole('heading', { name: 'Desk' }).waitFor()
    await page.getByRole('link', { name: /Summer 2027/ }).waitFor()
    expect(await page.getByRole('main').getByRole('heading', { level: 2 }).allInnerTexts()).toEqual([
      'Failing destinations',
      expect.stringContaining('Summer 2027'),
      'Autumn',
    ])
    expect(await page.getByRole('link', { name: 'Summer 2026' }).count()).toBe(0)
    expect(browser.complaints).toEqual([])
  })
})
