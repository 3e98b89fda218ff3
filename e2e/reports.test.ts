import { readFile } from 'node:fs/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ReceivedMail } from '@flimbo/core/mail'
import type { Answers } from '@flimbo/core/results'
import { PHONE } from '../server/tests/running.ts'
import { readPdf } from '../server/tests/pdfText.ts'
import { api, builtServer, expectAccessible, seasonPass, setUp, watchedBrowser } from './running.ts'

// A manager hands figures on: as a page, a file, a link and a mail; a client reads them without signing in.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  await setUp(office.page, server.office)
  await seasonPass(office.page, server.standIn, '/pass')
  for (let i = 0; i < 3; i++)
    await fetch(`${server.door}/PASS`, {
      redirect: 'manual',
      headers: { 'user-agent': PHONE, 'x-forwarded-for': `192.0.2.${String(i + 1)}` },
    })
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

const preview = () => office.page.frameLocator('iframe[title="The report as its readers see it"]')

describe('a report', () => {
  it('begins with the figures that are on the screen, and is written beside what its readers see', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/results?by=piece`)
    await page.getByRole('button', { name: 'Report', exact: true }).press('Enter')
    const panel = page.getByRole('dialog', { name: 'Add to a report' })
    await panel.getByLabel('New report').press('Enter')
    await panel.getByText('Give the report a name.').waitFor()
    await panel.getByLabel('New report').fill('Monthly')
    await panel.getByLabel('New report').press('Enter')
    await panel.getByRole('link', { name: 'Monthly' }).press('Enter')
    await preview().getByRole('heading', { name: 'Scans by piece' }).waitFor()
    await preview().getByRole('rowheader', { name: 'Pier poster' }).waitFor()

    await page.getByRole('button', { name: 'Add text' }).press('Enter')
    const text = page.getByRole('textbox', { name: 'Text' })
    await text.press('x')
    await text.fill('A good month on the piers.')
    await preview().getByText('A good month on the piers.').waitFor()
    await page.getByRole('button', { name: /^Move up: A good month/ }).press('Enter')
    await page.getByRole('button', { name: 'Add question' }).press('Enter')
    await page.getByLabel('Title').last().fill('When was it scanned?')
    await preview().getByRole('heading', { name: 'When was it scanned?' }).waitFor()
    await page.getByRole('button', { name: 'Save' }).press('Enter')
    await expect.poll(() => page.getByRole('button', { name: 'Save' }).isDisabled()).toBe(true)
    await page.reload()
    await preview().getByText('A good month on the piers.').waitFor()
    await expectAccessible(page)
  })

  it('is downloaded as a PDF that says what the screen says', async () => {
    const { page } = office
    await page.getByRole('button', { name: 'Download' }).press('Enter')
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'PDF' }).press('Enter'),
    ])
    expect(download.suggestedFilename()).toMatch(/^monthly-\d{4}-\d\d-\d\d\.pdf$/)
    const pdf = await readPdf(await readFile(await download.path()))
    const { answers } = await api<Answers>(page, 'POST', '/figures', {
      campaignId: 1,
      from: '2020-01-01',
      to: '2099-12-31',
      questions: [{ by: ['piece'] }],
    })
    const scans = answers[0]?.total.scans ?? 0
    expect(scans).toBe(3)
    expect(pdf.text).toContain(`Pier poster ${String(scans)}`)
    expect(pdf.text).toContain('A good month on the piers.')
  })

  it('is read by whoever has its link and password, on a phone, and by nobody once that is deleted', async () => {
    const { page } = office
    await page.getByRole('button', { name: 'Share by link' }).press('Enter')
    await page.getByLabel('Password, if any').fill('tide')
    await page.getByLabel('Password, if any').press('Enter')
    await page.getByText('Choose a password of at least 8 characters, or none.').waitFor()
    await page.getByLabel('Password, if any').fill('low tide at noon')
    await page.getByLabel('Password, if any').press('Enter')
    const address = await page.getByRole('link', { name: 'Open' }).getAttribute('href')
    const phone = await watchedBrowser({ width: 360, height: 740, script: false })
    try {
      await phone.page.goto(address ?? '')
      await phone.page.getByLabel('Password').fill('high tide')
      await phone.page.getByLabel('Password').press('Enter')
      await phone.page.getByText('That was not the password.').waitFor()
      await phone.page.getByLabel('Password').fill('low tide at noon')
      await phone.page.getByLabel('Password').press('Enter')
      await phone.page.getByRole('heading', { name: 'Monthly', level: 1 }).waitFor()
      await phone.page.getByRole('rowheader', { name: 'Pier poster' }).waitFor()
      // Nothing but what scrolls by itself is wider than the phone.
      const widest = await phone.page.locator('body').evaluate((body) => body.scrollWidth)
      expect(widest).toBeLessThanOrEqual(360)
      await page.getByRole('button', { name: /^Delete the link/ }).press('Enter')
      await expect.poll(() => page.getByRole('link', { name: 'Open' }).count()).toBe(0)
      await phone.page.reload()
      await phone.page.getByText('This report is not shared any more').waitFor()
      expect(phone.complaints).toEqual([])
    } finally {
      await phone.close()
    }
    await page.keyboard.press('Escape')
  })

  it('is mailed with its files when somebody wants it now, and each month from then on', async () => {
    const { page } = office
    await page.getByRole('button', { name: 'Mail regularly' }).press('Enter')
    const to = page.getByRole('textbox', { name: 'Mail to' })
    await to.fill('jo@gull')
    await page.getByRole('dialog').getByRole('button', { name: 'Save' }).press('Enter')
    await page.getByText('Give a whole e-mail address').waitFor()
    await to.fill('jo@gull.example; max@gull.example')
    await page.getByRole('dialog').getByRole('button', { name: 'Save' }).press('Enter')
    await page
      .getByText('on day 1 of each month at 07:00, Europe/Berlin, to jo@gull.example, max@gull.example')
      .waitFor()
    await page.getByRole('button', { name: 'Mail now' }).press('Enter')
    const mailed = async () =>
      (await api<{ rows: ReceivedMail[] }>(page, 'GET', '/mail/received')).rows.find(({ recipients }) =>
        recipients.includes('max@gull.example'),
      )
    await expect.poll(mailed, { timeout: 30_000 }).toBeDefined()
    expect((await mailed())?.attachments.map(({ type }) => type)).toEqual(['application/pdf'])
    await page.keyboard.press('Escape')
  })

  it('of two windows is not overwritten unseen', async () => {
    const { page } = office
    const other = await page.context().newPage()
    await other.goto(page.url())
    await other.getByLabel('Title').first().fill('Monthly, by Bo')
    await other.getByRole('button', { name: 'Save' }).press('Enter')
    await expect.poll(() => other.getByRole('button', { name: 'Save' }).isDisabled()).toBe(true)
    await other.close()
    await page.getByLabel('Title').first().fill('Monthly, by Anna')
    await page.getByLabel('Title').first().press('Enter')
    await page.getByText('Someone saved this report after you opened it.').waitFor()
    await page.getByRole('button', { name: 'Keep the stored version' }).press('Enter')
    await expect.poll(() => page.getByLabel('Title').first().inputValue()).toBe('Monthly, by Bo')
    await page.getByRole('link', { name: 'All reports' }).press('Enter')
    await page.getByRole('rowheader', { name: 'Monthly, by Bo' }).waitFor()
    await expectAccessible(page)
  })
})
