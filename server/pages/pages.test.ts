import ICAL from 'ical.js'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import type { StoredFile } from '@flimbo/core/files'
import {
  newPart,
  readTeam,
  type Page,
  type PageRevision,
  type PageSummary,
  type Part,
} from '@flimbo/core/pages'
import { textFromPlain } from '@flimbo/core/fields'
import { NO_RULES, openLife, type Lane, type LaneSet, type Rules } from '@flimbo/core/routing'
import { DOOR, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const PLACE = 'utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26'
const heading = (text: string, id = 'h'): Part => ({ ...newPart('heading', id), text: { en: text } })
const text = (words: string, id = 't'): Part => ({
  ...newPart('text', id),
  text: { en: textFromPlain(words) },
})
const link = (address = 'https://saltmarsh.example/tides', id = 'l'): Part => ({
  ...newPart('link', id),
  label: { en: 'Tide table' },
  address,
})
const CONTENT = [heading('Tides <today>'), text('Mind the mud.'), link()]
const make = (name: string, parts: readonly Part[] = CONTENT) => flimbo.page(campaignId, name, parts)
const pathOf = ({ id }: { id: number }, rest = '') => `/api/pages/${String(id)}${rest}`
async function change(page: Page, parts: readonly Part[]): Promise<Page> {
  const saved = await flimbo.ask<Page>('PATCH', pathOf(page, '/draft'), {
    draftVersion: page.draftVersion,
    content: { ...page.live, parts },
  })
  const { draftVersion } = saved.body
  return (await flimbo.ask<Page>('POST', pathOf(page, '/publish'), { draftVersion })).body
}
const toPage = (pageId: number): Lane => ({
  id: 'page',
  name: '',
  condition: EVERY_SCAN,
  outcome: { kind: 'page', pageId },
  resting: false,
})
async function leading(slug: string, rules: Partial<Rules>): Promise<Code> {
  const code = await flimbo.code(campaignId, { slug })
  await flimbo.live(code.routeId, { ...NO_RULES, ...rules })
  return code
}
const shown = async (path: string, headers = {}) => String((await flimbo.scan(path, headers)).body)
/** Where a page says that something is. */
const hrefs = (markup: string) =>
  [...markup.matchAll(/(?:href|src)="([^"]+)"/g)].map(([, href = '']) => href.replaceAll('&amp;', '&'))
const events = (code: Code) =>
  flimbo
    .rows<{ kind: string; part: string; item: string; apart: string }>(
      `SELECT kind, part, item, apart FROM event_rows r JOIN event_ways w ON w.id = r.wayId
       WHERE codeId = ? ORDER BY r.id`,
      code.id,
    )
    .map(({ kind, part, item, apart }) => [kind, part, item, apart].join(' ').trim())

describe('a page that a lane leads to', () => {
  it('is shown at the short link itself; its links go through the front door, tagged, and are counted without script', async () => {
    const page = await make('Tides')
    const code = await flimbo.codeTo(campaignId, page.id, 'tides')
    const { status, body, headers } = await flimbo.scan('/tides?ref=a')
    expect([status, headers['cache-control'], headers['content-language'], headers['set-cookie']]).toEqual([
      200,
      'no-store',
      'en',
      undefined,
    ])
    expect(body).toMatch(/>Tides &lt;today&gt;<\/h1>\s*<div class="text"\s*><p>Mind the mud.<\/p><\/div>/)
    const [to = ''] = hrefs(String(body)).filter((href) => href.includes('/l/'))
    const next = await flimbo.scan(to)
    expect([next.status, next.headers.location]).toEqual([
      302,
      `https://saltmarsh.example/tides?ref=a&${PLACE}`,
    ])
    await flimbo.scan(to)
    expect(events(code)).toEqual(['opened', 'link l l'])
    expect(flimbo.rows('SELECT outcome, exit, apart FROM scans WHERE codeId = ?', code.id)).toEqual([
      { outcome: 'page', exit: 'page', apart: null },
    ])
  })

  it('has a strict policy: no script, style or picture but its own, by a nonce that is new each time', async () => {
    const page = await make('Strict')
    await flimbo.codeTo(campaignId, page.id, 'strict')
    const [one, two] = [await flimbo.scan('/strict'), await flimbo.scan('/strict')]
    const policy = String(one.headers['content-security-policy'])
    const [, nonce = ''] = /script-src 'nonce-([^']+)'/.exec(policy) ?? []
    expect(policy).not.toContain('unsafe')
    expect(String(one.body)).toContain(`<script nonce="${nonce}">`)
    expect(two.headers['content-security-policy']).not.toBe(policy)
    expect(String(one.body)).not.toMatch(/\son[a-z]+=|\sstyle=|https?:\/\/(?!saltmarsh)/)
  })

  it('is packed for who takes it so', async () => {
    const page = await make('Packed')
    await flimbo.codeTo(campaignId, page.id, 'packed')
    const { headers } = await flimbo.scan('/packed', { 'accept-encoding': 'gzip, br' })
    expect(headers['content-encoding']).toBe('gzip')
    expect(Number(headers['content-length'])).toBeLessThan(6000)
  })

  it('shows what was published by the next scan, as a revision of itself and of each route that leads to it', async () => {
    const page = await make('Live')
    const code = await flimbo.codeTo(campaignId, page.id, 'live')
    await flimbo.scan('/live')
    const before = await flimbo.route(code.routeId)
    const { version, routes } = await change(page, [heading('High water'), ...CONTENT.slice(1)])
    expect([version, routes]).toEqual([3, [{ id: code.routeId, name: 'Pier poster, east gate' }]])
    expect(await shown('/live')).toContain('>High water</h1>')
    expect((await flimbo.route(code.routeId)).version).toBe(before.version + 1)
    const history = (await flimbo.ask<{ rows: PageRevision[] }>('GET', pathOf(page, '/revisions'))).body.rows
    expect(history.map(({ changes }) => changes)).toEqual([
      ['changed the heading “High water”'],
      ['published it for the first time'],
    ])
  })

  it('goes back to what it showed before in one step', async () => {
    const page = await make('Back')
    await flimbo.codeTo(campaignId, page.id, 'back')
    const { version } = await change(page, [heading('Wrong')])
    const { status } = await flimbo.ask('POST', pathOf(page, '/go-back'), { version, number: 1 })
    expect([status, (await shown('/back')).includes('Mind the mud.')]).toEqual([200, true])
  })

  it('may stand where a limit is reached, and in a set of lanes', async () => {
    const page = await make('Everywhere')
    await leading('full', { life: { ...openLife('UTC'), limit: 1, full: { kind: 'page', pageId: page.id } } })
    await flimbo.scan('/full')
    expect(await shown('/full')).toContain('Mind the mud.')
    const { id: setId } = (
      await flimbo.ask<LaneSet>('POST', '/api/lane-sets', { name: 'Weather', lanes: [toPage(page.id)] })
    ).body
    await leading('shared', { shared: { setId, place: 'first' } })
    expect(await shown('/shared')).toContain('Mind the mud.')
    await change(page, [heading('The mud is deep.')])
    expect(await shown('/shared')).toContain('The mud is deep.')
    expect((await flimbo.refused('DELETE', pathOf(page))).detail).toBe(
      '“Pier poster, east gate”, “Weather” lead to “Everywhere”. Lead them elsewhere first.',
    )
  })

  it('speaks the visitor’s language, falls back text by text, and is switched by a link that is no scan', async () => {
    const greet: Part = {
      ...newPart('heading', 'h'),
      text: { de: 'Gezeiten', en: 'Tides', ar: 'المد والجزر' },
    }
    const more: Part = { ...newPart('text', 't'), text: { en: textFromPlain('Mind the mud.') } }
    const page = await flimbo.page(campaignId, 'Languages', [greet, more], {
      languages: ['de', 'en', 'ar'],
      title: { de: 'Gezeiten' },
    })
    const code = await flimbo.codeTo(campaignId, page.id, 'words')
    const german = await flimbo.scan('/words', { 'accept-language': 'de-AT,en;q=0.5' })
    expect(german.headers['content-language']).toBe('de')
    expect(german.body).toMatch(/Gezeiten<\/h1>\s*<div class="text"\s+lang="en" dir="ltr"\s*>/)
    const arabic = hrefs(String(german.body)).find((href) => href.endsWith('/in/ar')) ?? ''
    expect(await shown(arabic)).toMatch(
      /^<!doctype html>\s*<html lang="ar"\s+dir="rtl"\s*>.*المد والجزر<\/h1>/s,
    )
    expect(flimbo.rows('SELECT count(*) AS n FROM scans WHERE codeId = ?', code.id)).toEqual([{ n: 1 }])
    expect((await flimbo.scan('/words', { 'accept-language': 'fr' })).headers['content-language']).toBe('de')
  })

  it('shows a part to those alone whom its condition names', async () => {
    const ours: Part = { ...heading('Moin', 'de'), condition: { kind: 'language', in: ['de'] } }
    const never: Part = { ...heading('Nobody', 'no'), isHidden: true }
    const page = await make('Some', [heading('All'), ours, never])
    await flimbo.codeTo(campaignId, page.id, 'some')
    expect(await shown('/some')).toContain('Moin')
    const english = await shown('/some', { 'accept-language': 'en' })
    expect([english.includes('All'), english.includes('Moin'), english.includes('Nobody')]).toEqual([
      true,
      false,
      false,
    ])
  })
})

describe('what happens on a page', () => {
  const media: Part = { ...newPart('audio', 'a'), label: { en: 'Listen' } }
  const WAV = Buffer.concat([
    Buffer.from(
      'RIFF\x24\x08\0\0WAVEfmt \x10\0\0\0\x01\0\x01\0\x40\x1f\0\0\x40\x1f\0\0\x01\0\x08\0data\0\x08\0\0',
      'latin1',
    ),
    Buffer.alloc(2048, 128),
  ])
  const upload = async (bytes: Uint8Array, name: string) =>
    (await flimbo.ask<StoredFile>('POST', `/api/files?name=${name}`, bytes)).body
  const told = async (path: string, body: string, headers = {}) =>
    (await flimbo.scan(path, { 'content-type': 'text/plain', ...headers }, 'POST', undefined, body)).status

  it('is told by its script, once each for a scan, and only what can have happened', async () => {
    const { key } = await upload(WAV, 'stop.wav')
    const page = await make('Listen', [heading('Stop 1'), { ...media, file: { en: key } }])
    const code = await flimbo.codeTo(campaignId, page.id, 'listen')
    const [, tell = ''] = /const u="([^"]+)"/.exec(await shown('/listen')) ?? []
    expect(await told(tell, 'played a 0\nplayed a 25\nplayed a 25')).toBe(204)
    expect(await told(tell, 'played a 25\nplayed a 100\nstayed - 15')).toBe(204)
    expect(await told(tell, 'played h 25\nplayed a 33\nlink h x\nopened - -\nstayed - 7\n<script>')).toBe(204)
    expect(await told(tell, 'x'.repeat(5000)).catch(() => 0)).not.toBe(200)
    expect(events(code)).toEqual(['opened', 'played a 0', 'played a 25', 'played a 100', 'stayed  15'])
  })

  it('is kept apart for test scans and programs, and leads a made-up visit to the short link', async () => {
    const page = await make('Apart')
    const code = await flimbo.codeTo(campaignId, page.id, 'apart')
    const body = await shown('/apart', { 'user-agent': 'Examplebot/1.0 (+https://bot.example)' })
    await flimbo.scan(hrefs(body).find((href) => href.includes('/l/')) ?? '')
    expect(events(code)).toEqual(['opened   crawler', 'link l l crawler'])
    const forged = await flimbo.scan('/apart/~1.1.1.1.1.1..AAAAAAAAAAAAAAAAAAAAAA/l/l/l')
    expect([forged.status, forged.headers.location]).toEqual([302, '/apart'])
    expect(events(code)).toHaveLength(2)
  })

  it('gives contacts and events as files, and counts who took them', async () => {
    const portrait = await upload(
      await sharp({ create: { width: 700, height: 700, channels: 3, background: '#0c5a66' } })
        .png()
        .toBuffer(),
      'face.png',
    )
    const person: Part = {
      ...newPart('contact', 'c'),
      given: 'Jördis',
      family: 'Vantooft',
      portrait: { en: portrait.key },
      phones: [{ kind: 'work', number: '+49 4931 555 0142' }],
    }
    const trip: Part = {
      ...newPart('event', 'e'),
      label: { en: 'Seal watching' },
      from: '2026-10-24T22:00',
      upTo: '2026-10-25T04:00',
    }
    const page = await make('Card', [person, trip])
    const code = await flimbo.codeTo(campaignId, page.id, 'card')
    const [card = '', day = ''] = hrefs(await shown('/card')).filter((href) => href.includes('/t/'))
    const vcard = await flimbo.scan(card)
    expect(vcard.headers['content-type']).toBe('text/vcard; charset=utf-8')
    expect(vcard.headers['content-disposition']).toBe(
      `attachment; filename="Jordis Vantooft.vcf"; filename*=UTF-8''J%C3%B6rdis%20Vantooft.vcf`,
    )
    const read = new ICAL.Component(ICAL.parse(String(vcard.body)) as unknown[])
    expect(read.getFirstPropertyValue('fn')).toBe('Jördis Vantooft')
    const photo = Buffer.from(String(read.getFirstPropertyValue('photo')), 'base64')
    expect((await sharp(photo).metadata()).width).toBe(540)
    const calendar = new ICAL.Component(ICAL.parse(String((await flimbo.scan(day)).body)) as unknown[])
    const event = new ICAL.Event(calendar.getFirstSubcomponent('vevent') ?? undefined)
    expect(event.startDate.toUnixTime() * 1000).toBe(Date.parse('2026-10-24T22:00+02:00'))
    // An hour comes twice in between.
    expect(event.endDate.toUnixTime() * 1000).toBe(Date.parse('2026-10-25T04:00+01:00'))
    expect(events(code)).toEqual(['opened', 'contact c', 'event e'])
  })
})

describe('keeping pages', () => {
  it('lists them by name, with their parts and the routes that lead there', async () => {
    const other = (await flimbo.campaign('Other', 'other')).id
    await flimbo.page(other, 'B', CONTENT)
    await flimbo.ask('POST', '/api/pages', { campaignId: other, name: 'A', start: 'menu', language: 'de' })
    const { rows } = (
      await flimbo.ask<{ rows: PageSummary[] }>('GET', `/api/pages?campaignId=${String(other)}`)
    ).body
    expect(
      rows.map(({ name, parts, languages, revisionId, hasDraft, routes }) => [
        name,
        parts,
        languages,
        revisionId > 0,
        hasDraft,
        routes,
      ]),
    ).toEqual([
      ['A', 4, ['de'], false, true, []],
      ['B', 3, ['en'], true, false, []],
    ])
    expect((await flimbo.ask<{ pages: number }>('GET', `/api/campaigns/${String(other)}`)).body.pages).toBe(2)
  })

  it('finds one by its name or title', async () => {
    const { id } = await flimbo.page(campaignId, 'Harbour hours', [], { title: { en: 'When we open' } })
    for (const q of ['harbour', 'WE OPEN'])
      expect(
        (await flimbo.ask<{ hits: object[] }>('GET', `/api/find?q=${encodeURIComponent(q)}`)).body.hits,
      ).toEqual([{ kind: 'page', id, campaignId, name: 'Harbour hours', detail: 'When we open' }])
  })

  it('overwrites nothing that somebody else prepared or published', async () => {
    const page = await make('Twice')
    await change(page, [heading('Mine')])
    const late = { draftVersion: page.draftVersion, content: page.live }
    const { status, body } = await flimbo.ask<{ current: Page }>('PATCH', pathOf(page, '/draft'), late)
    expect([status, body.current.live?.parts.length]).toEqual([409, 1])
  })

  it('keeps what is not finished as a draft, and says what keeps it from being published', async () => {
    const { body: page } = await flimbo.ask<Page>('POST', '/api/pages', {
      campaignId,
      name: 'Half',
      start: 'links',
    })
    const { detail, fields } = await flimbo.refused('POST', pathOf(page, '/publish'), { draftVersion: 1 })
    expect(detail).toBe('Link, part 3: Give the address it leads to. There is more: 2 in all beside this.')
    expect(fields?.map(({ path }) => path)).toEqual(['p3.address', 'p4.address', 'p5.address'])
    const lane = await flimbo.code(campaignId, { slug: 'half' })
    expect((await flimbo.draft(lane.routeId, { ...NO_RULES, lanes: [toPage(page.id)] })).status).toBe(200)
    expect((await flimbo.publish(lane.routeId)).body).toMatchObject({
      fields: [{ path: 'rules', message: expect.stringContaining('“Half” is not published yet') as string }],
    })
  })

  it('deletes one that nothing leads to, not even a draft', async () => {
    const page = await make('Gone')
    const { routeId } = await flimbo.code(campaignId, { slug: 'gone' })
    await flimbo.draft(routeId, { ...NO_RULES, lanes: [toPage(page.id)] })
    expect((await flimbo.refused('DELETE', pathOf(page))).detail).toContain('leads to “Gone”')
    await flimbo.ask('DELETE', `/api/routes/${String(routeId)}/draft`)
    expect((await flimbo.ask('DELETE', pathOf(page))).status).toBe(204)
    expect((await flimbo.draft(routeId, { ...NO_RULES, lanes: [toPage(page.id)] })).body).toMatchObject({
      fields: [
        { path: 'rules', message: 'A lane or a bound leads to a page that does not exist. Choose another.' },
      ],
    })
  })

  it('refuses a link to the front door itself, other people’s files, and a page of nobody', async () => {
    const round = await flimbo.ask<Page>('POST', '/api/pages', { campaignId, name: 'Round' })
    const content = { ...round.body.draft, title: { en: 'Round' }, parts: [link(`${DOOR}/PIER`)] }
    await flimbo.ask('PATCH', pathOf(round.body, '/draft'), { draftVersion: 1, content })
    expect(
      (await flimbo.refused('POST', pathOf(round.body, '/publish'), { draftVersion: 2 })).detail,
    ).toContain('in a circle')
    const strange = { ...content, picture: { en: 'AAAAAAAAAAAAAAAAAAAAA' } }
    expect(
      (await flimbo.refused('PATCH', pathOf(round.body, '/draft'), { draftVersion: 2, content: strange }))
        .detail,
    ).toBeDefined()
    expect((await flimbo.refused('POST', '/api/pages', { campaignId: 999, name: 'x' })).status).toBe(404)
  })

  it('refuses a file that is not what its field shows', async () => {
    const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#000' } })
      .png()
      .toBuffer()
    const { key } = (await flimbo.ask<StoredFile>('POST', '/api/files?name=dot.png', picture)).body
    const wrong: Part = { ...newPart('audio', 'a'), label: { en: 'Listen' }, file: { en: key } }
    await expect(make('Deaf', [wrong])).rejects.toThrow('The file is a picture, where a recording belongs.')
  })

  it('is copied, with its parts, as a draft', async () => {
    const page = await make('Master')
    const { body: copy } = await flimbo.ask<Page>('POST', pathOf(page, '/copy'))
    expect([copy.name, copy.live, copy.draft]).toEqual(['Master (copy)', null, page.live])
  })
})

describe('a team', () => {
  it('gets a card and a code each, live at once, or nobody does', async () => {
    const { members } = readTeam(
      'given name,family name,telephone\nAnna,Ebb,+49 4931 5550142\nBo,Flood,+49 4931 5550143',
    )
    const body = {
      campaignId,
      members,
      language: 'en',
      medium: 'print',
      source: 'crew-cards',
      destination: 'https://saltmarsh.example/crew',
    }
    expect((await flimbo.ask('POST', '/api/teams', body)).body).toEqual({ pages: 2, codes: 2 })
    const [code] = flimbo.rows<{ slug: string }>(`SELECT slug FROM codes WHERE name = 'Bo Flood'`)
    expect(await shown(`/${code?.slug ?? ''}`)).toContain('tel:+4949315550143')
    const before = flimbo.rows('SELECT count(*) AS n FROM pages')
    const wrong = { ...body, members: members.map((member) => ({ ...member, phone: '12' })) }
    expect((await flimbo.refused('POST', '/api/teams', wrong)).fields?.[0]?.path).toBe('members.0')
    expect(flimbo.rows('SELECT count(*) AS n FROM pages')).toEqual(before)
  })
})

it('a part may be for those alone who scan for the first time that day', async () => {
  const once: Part = { ...heading('Welcome', 'w'), condition: { kind: 'visit', is: 'first' } }
  const again: Part = { ...heading('Back again', 'b'), condition: { kind: 'visit', is: 'repeat' } }
  const page = await make('Visits', [once, again])
  await flimbo.codeTo(campaignId, page.id, 'visits')
  const [first, second] = [await shown('/visits'), await shown('/visits')]
  expect([first.includes('Welcome'), first.includes('Back again')]).toEqual([true, false])
  expect([second.includes('Welcome'), second.includes('Back again')]).toEqual([false, true])
  // In another language of the page they are still the same visitors.
  const token = /visits\/(~[^/"'\s]+)/.exec(second)?.[1] ?? ''
  const other = await shown(`/visits/${token}/in/en`)
  expect([other.includes('Welcome'), other.includes('Back again')]).toEqual([false, true])
})
