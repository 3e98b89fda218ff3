import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fillCodes } from '../bench/fill.ts'
import { api, builtServer, expectAccessible, watchedBrowser } from './running.ts'

const PIECES = 50_000
let server: Awaited<ReturnType<typeof builtServer>>
let browser: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer(async (file) => {
    await fillCodes(file, PIECES)
  })
  browser = await watchedBrowser()
  const { page } = browser
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.goto(server.office)
  await api(page, 'POST', '/session', { email: 'bench@saltmarsh.example', password: 'bench bench bench' })
})
afterAll(async () => {
  await browser.close()
  await server.close()
})

function rows<T>(sql: string, ...values: unknown[]): T[] {
  const database = new Sqlite(server.file, { readonly: true })
  try {
    return database.prepare(sql).all(...values) as T[]
  } finally {
    database.close()
  }
}
const press = async (...keys: string[]) => {
  for (const key of keys) await browser.page.keyboard.press(key)
}
/** What the cell under the cursor says. */
const here = () =>
  browser.page.evaluate(
    () =>
      document.getElementById(
        document.querySelector('[role=grid]')?.getAttribute('aria-activedescendant') ?? '',
      )?.textContent ?? '',
  )
// Fifty thousand pieces take their time where other tests want the same two cores.
const PATIENCE = { timeout: 60_000 }
const said = (text: string | RegExp) => browser.page.getByText(text).first().waitFor(PATIENCE)
const inClipboard = (text: string) =>
  browser.page.evaluate((value) => navigator.clipboard.writeText(value), text)

describe('a plan of 50,000 pieces, by keyboard alone', () => {
  it('is reached by Tab, and its last row by one key', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/plan`)
    await page.getByRole('gridcell', { name: 'Piece 0', exact: true }).waitFor()
    for (
      let i = 0;
      i < 40 && !(await page.evaluate(() => document.activeElement?.getAttribute('role') === 'grid'));
      i++
    )
      await press('Tab')
    expect(await page.getByRole('grid').getAttribute('aria-rowcount')).toBe(String(PIECES + 1))
    await press('Control+Home', 'ArrowRight')
    await expect.poll(here).toBe('Piece 0')
    await press('Control+ArrowDown')
    await page.getByRole('gridcell', { name: 'Piece 49999', exact: true }).waitFor()
    await expect.poll(here).toBe('Piece 49999')
    await press('PageUp', 'Control+ArrowUp')
    await page.getByRole('gridcell', { name: 'Piece 0', exact: true }).waitFor()
    // No more rows are drawn than are seen.
    expect(await page.getByRole('row').count()).toBeLessThan(60)
    await expectAccessible(page)
  })

  it('edits a cell, takes it back, and makes it again', async () => {
    const { page } = browser
    await press('Enter')
    await page.keyboard.type('Pier poster')
    await press('Enter')
    await said('1 piece changed.')
    await expect.poll(here).toBe('Piece 1')
    expect(rows('SELECT name, version FROM codes WHERE id = 1')).toEqual([
      { name: 'Pier poster', version: 2 },
    ])
    await press('Control+z')
    await said('1 piece changed back.')
    expect(rows('SELECT name, version FROM codes WHERE id = 1')).toEqual([{ name: 'Piece 0', version: 3 }])
    await press('Control+y')
    await said('1 piece changed again.')
    await page.getByRole('gridcell', { name: 'Pier poster', exact: true }).waitFor()
  })

  it('says what cannot stand in a cell, and drops it on Esc', async () => {
    const { page } = browser
    await press('Control+Home', ...Array<string>(6).fill('ArrowRight'), 'Enter')
    await page.keyboard.type('large')
    await press('Tab')
    await said('is no size')
    await expectAccessible(page)
    await press('Escape')
    await expect.poll(here).toBe('30')
    await press('Enter')
    await page.keyboard.type('4,5 cm')
    await press('Tab')
    await said('1 piece changed.')
    expect(rows('SELECT sizeMm FROM codes WHERE id = 1')).toEqual([{ sizeMm: 45 }])
  })

  it('fills a block down, copies it, and empties it', async () => {
    const { page } = browser
    await press('Control+Home', 'ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowRight', 'Enter')
    await page.keyboard.type('north')
    await press('Enter')
    await said('1 piece changed.')
    // As somebody goes on who has read that.
    await page.waitForTimeout(500)
    await press('ArrowUp', 'Shift+ArrowDown', 'Shift+ArrowDown', 'Control+d')
    await said('2 pieces changed.')
    expect(rows('SELECT content FROM codes WHERE id < 5 ORDER BY id')).toEqual([
      { content: 'north' },
      { content: 'north' },
      { content: 'north' },
      { content: 'piece-3' },
    ])
    await press('Shift+ArrowLeft', 'Control+c')
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
      'bench\tnorth\r\nbench\tnorth\r\nbench\tnorth',
    )
    await press('ArrowRight', 'Delete')
    await said('1 piece changed.')
    expect(rows('SELECT content FROM codes WHERE id = 3')).toEqual([{ content: '' }])
  })

  it('takes a block of a spreadsheet across thousands of rows, and says which cells it did not take', async () => {
    await inClipboard(
      Array.from(
        { length: 2500 },
        (_, i) => `pasted-${String(i)}\t${i === 700 ? 'huge' : String(40 + (i % 3))}`,
      ).join('\r\n'),
    )
    await press('Control+Home', 'ArrowRight', 'ArrowRight', 'ArrowRight')
    // Content stands beside the size once the destination is not shown.
    const { page } = browser
    await page.getByRole('button', { name: 'Columns and order' }).focus()
    await press('Enter')
    await page.getByRole('checkbox', { name: 'Destination', exact: true }).focus()
    await press('Space', 'Escape')
    await page.getByRole('grid').focus()
    await press('ArrowRight', 'Control+v')
    await said('2,500 pieces changed; 1 cell was not taken.')
    await said('Piece 700, Size mm: “huge” is no size.')
    expect(rows("SELECT count(*) AS n FROM codes WHERE content = 'pasted-' || (id - 1)")).toEqual([
      { n: 2500 },
    ])
    expect(rows('SELECT sizeMm FROM codes WHERE id IN (3, 701, 2500) ORDER BY id')).toEqual([
      { sizeMm: 42 },
      { sizeMm: 30 },
      { sizeMm: 40 },
    ])
    await press('Control+z')
    await said('2,500 pieces changed back.')
    expect(rows("SELECT count(*) AS n FROM codes WHERE content LIKE 'pasted-%'")).toEqual([{ n: 0 }])
  })

  it('sets a field of all pieces at once', async () => {
    const { page } = browser
    await press('Control+a')
    await said('50,000 pieces chosen')
    await page.getByRole('region', { name: 'Selected pieces' }).getByLabel('to', { exact: true }).focus()
    await page.keyboard.type('poster')
    await press('Enter')
    await said('50,000 pieces changed.')
    expect(rows('SELECT medium, count(*) AS n FROM codes GROUP BY 1')).toEqual([
      { medium: 'poster', n: PIECES },
    ])
  })

  it('offers rows pasted beyond the end as new pieces, through the same look an import gets', async () => {
    const { page } = browser
    await inClipboard('Last one\tposter\tbench\nOne more\tposter\tbench')
    await page.getByRole('grid').focus()
    await press('Control+End', 'Home', 'ArrowRight', 'Control+v')
    await page.getByRole('heading', { name: 'Import a plan' }).waitFor(PATIENCE)
    await page.getByText('Destination: give the address this leads to').waitFor()
    await page.getByText('0 pieces to create').waitFor()
    expect(browser.complaints).toEqual([])
  })
})

describe('the results of 50,000 pieces', () => {
  it('open', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/results`)
    await page.getByRole('img', { name: /^Scans by day: 0 scans/ }).waitFor()
    expect(browser.complaints).toEqual([])
  })
})

describe('importing a file', () => {
  it('shows what every line would do, then does it', async () => {
    const { page } = browser
    await page.goto(`${server.office}/campaigns/1/import`)
    const file =
      'Key;Piece;Medium;Source;Destination\nN-1;New sign;poster;sign;https://saltmarsh.example/new\nN-2;Bad sign;poster;sign;nowhere\n'
    await page.setInputFiles('input[type=file]', {
      name: 'signs.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(file),
    })
    await page.getByText('signs.csv: 1 piece to create').waitFor()
    await page.getByText('This is not a whole web address').waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Import the good lines only' }).click()
    await page.getByText('1 created, 0 changed.').waitFor()
    expect(rows("SELECT name, medium FROM codes WHERE key <> ''")).toEqual([
      { name: 'New sign', medium: 'poster' },
    ])
    await page.getByRole('link', { name: 'Go to the plan', exact: true }).click()
    await page
      .getByRole('status')
      .filter({ hasText: /^50,001 pieces$/ })
      .waitFor()
    await page.getByRole('grid').focus()
    await press('Control+End')
    await page.getByRole('gridcell', { name: 'New sign', exact: true }).waitFor()
  })
})
