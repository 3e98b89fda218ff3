import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  emptyContent,
  newPart,
  PART_KINDS,
  PLAIN_STYLE,
  type PageStyle,
  type Part,
  type PartKind,
  type PartOf,
} from '@flimbo/core/pages'
import { textFromPlain } from '@flimbo/core/fields'
import { newQuestion, QUESTION_KINDS, type Question } from '@flimbo/core/forms'
import { PHONE } from '../server/tests/running.ts'
import { api, builtServer, expectAccessible, setUp, watchedBrowser } from './running.ts'

// Every kind of part in every look, as phones are shown it.
let server: Awaited<ReturnType<typeof builtServer>>
let office: Awaited<ReturnType<typeof watchedBrowser>>
let picture: string
let sound: string
let film: string
beforeAll(async () => {
  server = await builtServer()
  office = await watchedBrowser()
  const { page } = office
  await setUp(page, server.office)
  await api(page, 'POST', '/campaigns', { name: 'Summer', zone: 'Europe/Berlin', utmCampaign: 'summer-26' })
  await api(page, 'POST', '/codes', {
    campaignId: 1,
    name: 'Pier',
    slug: 'pier',
    medium: 'print',
    source: 'pier-poster',
    destination: 'https://saltmarsh.example/',
  })
  const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#5a8043' } })
    .png()
    .toBuffer()
  picture = await upload(bytes)
  // What a recording and a film begin with (RIFF; ISO 14496-12); there is nothing in them to be heard.
  sound = await upload(Buffer.from(`RIFF\x24\x08\0\0WAVEfmt \x10${'\0'.repeat(2100)}`, 'latin1'))
  film = await upload(Buffer.from(`\0\0\0\x20ftypisom\0\0\x02\0isomiso2avc1mp41${'\0'.repeat(64)}`, 'latin1'))
  await publish(allParts())
  const page1 = { kind: 'page', pageId: 1 }
  const lane = { id: 'page', name: '', condition: { kind: 'all', of: [] }, outcome: page1, resting: false }
  const route = await api<{ rules: object; draftVersion: number; destination: string }>(
    page,
    'GET',
    '/routes/1',
  )
  const draft = { draftVersion: 0, destination: route.destination, rules: { ...route.rules, lanes: [lane] } }
  await api(page, 'PATCH', '/routes/1/draft', draft)
  await api(page, 'POST', '/routes/1/publish', { version: 1, draftVersion: 1 })
})
afterAll(async () => {
  await office.close()
  await server.close()
})

/** Uploads a file, in the page's own session. @returns its public key */
const upload = (bytes: Buffer): Promise<string> =>
  office.page.evaluate(async (base64) => {
    const body = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0))
    const answer = await fetch('/api/files?name=file', {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body,
    })
    return ((await answer.json()) as { key: string }).key
  }, bytes.toString('base64'))

const en = (text: string) => ({ en: text })
const rich = (text: string) => ({ en: textFromPlain(text) })
const day = [{ from: '09:00', upTo: '18:00' }]
/** What each kind of part says here. */
const SAYS: { [K in PartKind]: () => Partial<PartOf<K>> } = {
  heading: () => ({ text: en('Tides today') }),
  text: () => ({ text: rich('Mind the mud.\n\nBoats leave at noon.') }),
  picture: () => ({ picture: en(picture), alt: en('Dunes'), caption: en('In May') }),
  pictures: () => ({
    items: [1, 2, 3].map((n) => ({ picture: en(picture), alt: en(`Dunes ${String(n)}`) })),
  }),
  link: () => ({ label: en('Tide table'), note: en('For a year'), address: 'https://saltmarsh.example/' }),
  button: () => ({ label: en('Book'), address: 'https://saltmarsh.example/book' }),
  file: () => ({ label: en('The list'), file: en(picture) }),
  audio: () => ({ label: en('Listen'), file: en(sound), transcript: rich('What is said.') }),
  video: () => ({ label: en('Watch'), file: en(film), poster: en(picture) }),
  hours: () => ({ label: en('Office'), hours: { week: [day, day, day, day, day, [], []], except: [] } }),
  place: () => ({
    label: en('East pier'),
    address: en('Am Hafen 1'),
    point: { latitude: 53.55, longitude: 7.2 },
  }),
  event: () => ({ label: en('Seal watching'), from: '2030-07-03T09:00', upTo: '2030-07-03T11:00' }),
  contact: () => ({
    given: 'Anna',
    family: 'Ebb',
    phones: [{ kind: 'work', number: '+4949315550142' }],
    portrait: en(picture),
    sites: [{ name: 'Website', address: 'https://saltmarsh.example/' }],
  }),
  prices: () => ({
    sections: [{ title: en('Tickets'), items: [{ name: en('Adults'), note: en('A day'), price: '18.00' }] }],
  }),
  countdown: () => ({ label: en('First boat in'), moment: '2030-07-03T09:00' }),
  divider: () => ({}),
  questions: () => ({ items: [{ question: en('By card?'), answer: rich('Yes.') }] }),
  form: () => ({
    label: en('Tell us'),
    keptMonths: 6,
    questions: QUESTION_KINDS.map((kind, i) => {
      const fresh = newQuestion(kind, `q${String(i)}`)
      const said = {
        ...('label' in fresh ? { label: en(kind) } : {}),
        ...('name' in fresh ? { name: kind } : {}),
        ...('consent' in fresh ? { consent: rich('I agree to be told.') } : {}),
        ...('parameter' in fresh ? { parameter: 'from' } : {}),
      }
      const filled = fresh.kind === 'section' ? { ...fresh, title: en('About you') } : { ...fresh, ...said }
      return (
        'choices' in filled ? { ...filled, choices: [{ key: 'a', label: en('Lark Holm') }] } : filled
      ) as Question
    }),
  }),
  appSwitch: () => ({
    label: en('Get the app'),
    systems: [{ system: 'iOS', address: 'https://one.example/' }],
    otherwise: 'https://all.example/',
  }),
}
const allParts = (): Part[] =>
  PART_KINDS.map((kind) => ({ ...newPart(kind, kind.toLowerCase()), ...SAYS[kind]() }) as Part)

async function publish(parts: readonly Part[]): Promise<void> {
  const { page } = office
  const { id } = await api<{ id: number }>(page, 'POST', '/pages', { campaignId: 1, name: 'All' })
  const content = { ...emptyContent('en', 'Europe/Berlin'), languages: ['en', 'de'], title: en('All'), parts }
  await api(page, 'PATCH', `/pages/${String(id)}/draft`, { draftVersion: 1, content })
  await api(page, 'POST', `/pages/${String(id)}/publish`, { draftVersion: 2 })
}

const LOOKS: readonly (readonly [string, PageStyle])[] = [
  ['plain', PLAIN_STYLE],
  [
    'of a gradient, large and round',
    {
      ...PLAIN_STYLE,
      scale: 'large',
      face: 'serif',
      corner: 28,
      light: {
        ground: { kind: 'gradient', from: '#FDF3D7', upTo: '#F7D9C4', angle: 160 },
        ink: '#3A1F12',
        accent: '#7A2E12',
      },
      dark: {
        ground: { kind: 'gradient', from: '#101820', upTo: '#243447', angle: 20 },
        ink: '#F2F2F2',
        accent: '#FFC857',
      },
    },
  ],
]

describe.each(LOOKS)('every part in a look that is %s', (name, style) => {
  it.each(['light', 'dark'] as const)(
    'can be used by everybody (WCAG 2.2 AA), %s, at 360 × 740',
    async (scheme) => {
      if (scheme === 'light') await api(office.page, 'POST', '/page-styles', { name, style, isDefault: true })
      const phone = await watchedBrowser({ width: 360, height: 740, scheme, userAgent: PHONE })
      await phone.page.goto(`${server.door}/PIER`)
      await phone.page.getByRole('heading', { name: 'Tides today' }).waitFor()
      await expectAccessible(phone.page)
      expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
      const shown = await phone.page.evaluate(() => document.querySelectorAll('main > *').length)
      expect(shown).toBe(PART_KINDS.length + 1)
      expect(phone.complaints).toEqual([])
      await phone.close()
    },
  )
})

it('is printed with its links written out and without its buttons', async () => {
  const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE })
  await phone.page.goto(`${server.door}/PIER`)
  await phone.page.emulateMedia({ media: 'print' })
  expect(await phone.page.getByRole('link', { name: 'Book' }).isVisible()).toBe(false)
  expect(await phone.page.getByText('Mind the mud.').isVisible()).toBe(true)
  await phone.close()
})

it('says its own words in the style of the workspace too', async () => {
  const phone = await watchedBrowser({ width: 360, height: 740, userAgent: PHONE })
  await phone.page.goto(`${server.door}/NOSUCHLINK`)
  const face = await phone.page.evaluate(() => getComputedStyle(document.body).fontFamily)
  expect(face).toContain('Charter')
  await expectAccessible(phone.page)
  expect(phone.complaints).toEqual([])
  await phone.close()
})
