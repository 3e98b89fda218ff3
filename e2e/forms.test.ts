import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newQuestion, type Question, type QuestionKind, type QuestionOf } from '@flimbo/core/forms'
import { textFromPlain } from '@flimbo/core/fields'
import type { ReceivedMail } from '@flimbo/core/mail'
import { emptyContent, newPart, type PageContent } from '@flimbo/core/pages'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
}
const ask = <K extends QuestionKind>(kind: K, id: string, says: Partial<QuestionOf<K>>): Question =>
  ({ ...newQuestion(kind, id), ...says }) as unknown as Question
const said = (de: string, ar: string) => ({ de, ar })
const QUESTIONS: Question[] = [
  ask('short', 'name', { label: said('Ihr Name', 'اسمك'), name: 'Name', isRequired: true }),
  ask('yesno', 'boat', { label: said('Kommen Sie mit dem Boot?', 'هل تأتي بالقارب؟'), isRequired: true }),
  ask('one', 'which', {
    label: said('Mit welchem?', 'بأي قارب؟'),
    isRequired: true,
    choices: [
      { key: 'lark', label: said('Lerche', 'قبرة') },
      { key: 'tern', label: said('Seeschwalbe', 'خرشنة') },
    ],
    branch: { match: 'all', tests: [{ question: 'boat', is: 'chosen', of: ['yes'] }] },
  }),
]

// A registration by a printed code, from the form to the person who answered.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  const { page } = office
  await setUp(page, server.office)
  const { id: campaignId } = await api<Made>(page, 'POST', '/campaigns', {
    name: 'Open day',
    zone: 'Europe/Berlin',
    utmCampaign: 'open-day',
  })
  const { routeId } = await api<Made>(page, 'POST', '/codes', {
    campaignId,
    name: 'Poster, ticket hall',
    slug: 'openday',
    medium: 'print',
    source: 'poster',
    destination: 'https://saltmarsh.example/open-day',
  })
  const made = await api<Made>(page, 'POST', '/pages', { campaignId, name: 'Registration' })
  const content = {
    ...emptyContent('de', 'Europe/Berlin'),
    languages: ['de', 'ar'],
    title: said('Tag der offenen Tür', 'يوم مفتوح'),
    parts: [
      {
        ...newPart('form', 'join'),
        questions: QUESTIONS,
        thanks: said('Bis bald, {Name}!', 'إلى اللقاء، {Name}!'),
      },
    ],
  }
  await api(page, 'PATCH', `/pages/${String(made.id)}/draft`, { draftVersion: 1, content })
  await api(page, 'POST', `/pages/${String(made.id)}/publish`, { draftVersion: 2 })
  const route = await api<{ draftVersion: number; destination: string; rules: object }>(
    page,
    'GET',
    `/routes/${String(routeId)}`,
  )
  const lane = {
    id: 'form',
    name: '',
    condition: { kind: 'all', of: [] },
    outcome: { kind: 'page', pageId: made.id },
    resting: false,
  }
  const draft = await api<{ version: number; draftVersion: number }>(
    page,
    'PATCH',
    `/routes/${String(routeId)}/draft`,
    {
      draftVersion: route.draftVersion,
      destination: route.destination,
      rules: { ...route.rules, lanes: [lane] },
    },
  )
  await api(page, 'POST', `/routes/${String(routeId)}/publish`, {
    version: draft.version,
    draftVersion: draft.draftVersion,
  })
})
afterAll(async () => {
  expect(office.complaints).toEqual([])
  await office.close()
  await server.close()
})

const leads = () => {
  const database = new Sqlite(server.file, { readonly: true })
  try {
    return database.prepare('SELECT title, language, answers FROM leads ORDER BY id').all() as {
      title: string
      language: string
      answers: string
    }[]
  } finally {
    database.close()
  }
}
const phoneOf = (more: { locale: string; script?: boolean }) =>
  watchedBrowser({ width: 360, height: 740, userAgent: PHONE, ...more })
/** So long somebody reads a form. */
const READ_MS = 1700

describe('a registration', () => {
  it('is filled in without script, in German, at 360 × 740, by keyboard', async () => {
    const phone = await phoneOf({ locale: 'de-AT', script: false })
    const { page } = phone
    await page.goto(`${server.door}/OPENDAY`)
    await page.getByLabel('Ihr Name').fill('Ada Lund')
    await page.getByRole('group', { name: 'Kommen Sie mit dem Boot?' }).getByLabel('Ja').press('Space')
    await page.waitForTimeout(READ_MS)
    await page.getByRole('button', { name: 'Senden' }).press('Enter')
    await page.getByText('Nach Ihren Antworten gibt es weitere Fragen.').waitFor()
    await page.getByLabel('Lerche').press('Space')
    await page.getByRole('button', { name: 'Senden' }).press('Enter')
    await page.getByText('Bis bald, Ada Lund!').waitFor()
    await page.reload()
    await page.getByText('Bis bald, Ada Lund!').waitFor()
    expect(leads()).toHaveLength(1)
    expect(phone.complaints).toEqual([])
    await phone.close()
  })

  it('is read and filled in from right to left, in Arabic, without script', async () => {
    const phone = await phoneOf({ locale: 'ar', script: false })
    const { page } = phone
    await page.goto(`${server.door}/OPENDAY`)
    const document = page.locator('html')
    expect([await document.getAttribute('lang'), await document.getAttribute('dir')]).toEqual(['ar', 'rtl'])
    await page.waitForTimeout(READ_MS)
    await page.getByRole('button', { name: 'إرسال' }).press('Enter')
    await page.getByText('يرجى الإجابة عن هذا السؤال.').first().waitFor()
    await page.getByLabel('اسمك').fill('ليلى')
    await page.getByLabel('لا', { exact: true }).press('Space')
    await page.getByRole('button', { name: 'إرسال' }).press('Enter')
    await page.getByText('إلى اللقاء، ليلى!').waitFor()
    expect(leads()[1]).toMatchObject({ title: 'ليلى', language: 'ar' })
    await phone.close()
  })

  it('asks at once what an answer leads to, keeps what is typed, and is sent when the line is back, once', async () => {
    const phone = await phoneOf({ locale: 'de-AT' })
    const { page } = phone
    await page.goto(`${server.door}/OPENDAY`)
    const which = page.getByRole('group', { name: 'Mit welchem?' })
    expect(await which.isVisible()).toBe(false)
    await page.getByLabel('Ihr Name').fill('Bo Ebbe')
    await page.getByRole('group', { name: 'Kommen Sie mit dem Boot?' }).getByLabel('Ja').check()
    await which.waitFor()
    await which.getByLabel('Seeschwalbe').check()
    await expectAccessible(page)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
    await page.getByText('bleibt auf diesem Telefon').waitFor()
    await page.reload()
    await which.waitFor()
    expect(await page.getByLabel('Ihr Name').inputValue()).toBe('Bo Ebbe')
    expect(await which.getByLabel('Seeschwalbe').isChecked()).toBe(true)
    await page.waitForTimeout(READ_MS)
    await page.context().setOffline(true)
    await page.getByRole('button', { name: 'Senden' }).click()
    await page.getByText('Es gibt keine Verbindung.').waitFor()
    expect(leads()).toHaveLength(2)
    await page.context().setOffline(false)
    await page.getByText('Bis bald, Bo Ebbe!').waitFor()
    expect(leads().map(({ answers }) => JSON.parse(answers) as unknown)[2]).toEqual({
      name: 'Bo Ebbe',
      boat: true,
      which: { chosen: ['tern'] },
    })
    expect(leads()).toHaveLength(3)
    expect(await page.evaluate(() => localStorage.length)).toBe(0)
    await phone.close()
  })

  it('comes to the inbox with the piece that brought it, and is worked on by keyboard', async () => {
    const { page } = office
    await page.goto(`${server.office}/campaigns/1/leads`)
    await page.getByRole('row', { name: /Bo Ebbe/ }).waitFor()
    await expectAccessible(page)
    await page.keyboard.press('j')
    const person = page.getByRole('complementary', { name: 'Bo Ebbe' })
    await person
      .getByRole('list', { name: 'How they came' })
      .getByText('Poster, ticket hall')
      .first()
      .waitFor()
    await person.getByText('Seeschwalbe').waitFor()
    await expectAccessible(page)
    await person.getByLabel('New note').fill('Rang back')
    await person.getByRole('button', { name: 'Write note' }).press('Enter')
    await person.getByText('Rang back').waitFor()
    await person.getByRole('combobox', { name: 'State' }).press('Enter')
    await page.getByRole('option', { name: 'Done' }).press('Enter')
    await page.getByText('1 lead set to done.').waitFor()
    await page.getByRole('button', { name: /^Done 1/ }).waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: /^New 3/ }).waitFor()
    await page.getByLabel('Find in answers').fill('lund')
    await page.getByRole('row', { name: /Ada Lund/ }).waitFor()
    await expect.poll(() => page.getByRole('row', { name: /Bo Ebbe/ }).count()).toBe(0)
    await page.getByLabel('Find in answers').fill('')
    await person.getByRole('button', { name: 'Erase this person' }).press('Enter')
    await page
      .getByRole('dialog', { name: 'Erase this person?' })
      .getByRole('button', { name: 'Erase' })
      .press('Enter')
    await expect.poll(() => leads().map(({ title }) => title)).toEqual(['Ada Lund', 'ليلى'])
    await expect.poll(() => page.getByRole('row', { name: /Bo Ebbe/ }).count()).toBe(0)
  })
  it('mails whoever answered once they confirmed their address, and is counted by its answers', async () => {
    const { page } = office
    const made = await api<{ id: number; draftVersion: number; live: PageContent }>(page, 'GET', '/pages/1')
    const parts = made.live.parts.map((part) =>
      part.kind === 'form'
        ? {
            ...part,
            questions: [
              ...QUESTIONS,
              ask('mail', 'mail', { label: said('Ihre Mailadresse', 'بريدك'), name: 'Mail' }),
            ],
            mails: true,
            mailText: {
              de: textFromPlain('Bis Samstag, {Name}!'),
              ar: textFromPlain('إلى السبت، {Name}!'),
            },
            confirms: true,
          }
        : part,
    )
    const { draftVersion } = await api<{ draftVersion: number }>(page, 'PATCH', '/pages/1/draft', {
      draftVersion: made.draftVersion,
      content: { ...made.live, parts },
    })
    await api(page, 'POST', '/pages/1/publish', { draftVersion })

    const phone = await phoneOf({ locale: 'ar', script: false })
    await phone.page.goto(`${server.door}/OPENDAY`)
    await phone.page.getByLabel('اسمك').fill('سلمى')
    await phone.page.getByRole('group', { name: 'هل تأتي بالقارب؟' }).getByLabel('لا').check()
    await phone.page.getByLabel('بريدك').fill('salma@mailbox.example')
    await phone.page.waitForTimeout(READ_MS)
    await phone.page.getByRole('button', { name: 'إرسال' }).press('Enter')
    await phone.page.getByText('نرسل إليك رسالة بريد.').waitFor()

    const received = async () =>
      (await api<{ rows: ReceivedMail[] }>(page, 'GET', '/mail/received')).rows.filter(({ recipients }) =>
        recipients.includes('salma@mailbox.example'),
      )
    await expect.poll(async () => (await received()).length).toBe(1)
    const [asked] = await received()
    expect(asked?.subject).toBe('يرجى تأكيد عنوان بريدك الإلكتروني')
    const link = /http:\S+~confirm\S+/.exec(asked?.text ?? '')?.[0] ?? ''
    // What is looked at there by a program confirms nothing.
    await page.goto(link)
    await expectAccessible(page)
    await phone.page.goto(link)
    await phone.page.getByRole('button', { name: 'تأكيد العنوان' }).press('Enter')
    await phone.page.getByText('تم تأكيد عنوان بريدك الإلكتروني.').waitFor()
    await phone.close()

    await page.goto(`${server.office}/campaigns/1/leads`)
    await expect.poll(async () => (await received())[0]?.text ?? '').toContain('إلى السبت، سلمى!')
    await page.getByRole('row', { name: /سلمى/ }).waitFor()
    await page.keyboard.press('j')
    const way = page.getByRole('list', { name: 'How they came' })
    await way.getByText('Confirmed').waitFor()
    await way.getByText('Thanked by mail').waitFor()
    await page.goto(`${server.office}/campaigns/1/leads?view=numbers`)
    await page.getByRole('table', { name: 'Leads a scan' }).getByText('Poster, ticket hall').waitFor()
    await expectAccessible(page)
    // Nobody is behind it but who chose it.
    await page.getByRole('link', { name: 'Nein' }).click()
    await page.getByRole('row', { name: /سلمى/ }).waitFor()
    await page.goto(`${server.office}/settings/mail`)
    await page.getByRole('table', { name: 'Mails' }).getByText('salma@mailbox.example').first().waitFor()
    await expectAccessible(page)
  })
})
