import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { PhoneAnswer, PhoneChoices } from '@flimbo/core/phone'
import { NO_RULES } from '@flimbo/core/routing'
import { NO_TAGS, type ReceivedHit } from '@flimbo/core/visitTags'
import { DOOR, http, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  await flimbo.code((await flimbo.campaign()).id, { slug: 'pier' })
})
afterAll(() => flimbo.close())

const owner = { device: 'ipad', place: 'nl-groningen', language: 'nl' }
const scan = async (read: string, count = false) =>
  (await flimbo.ask<PhoneAnswer>('POST', '/api/phone/scans', { read, ...owner, count })).body
const newest = () =>
  flimbo.rows<{ apart: string | null; city: string; device: string; language: string }>(
    'SELECT apart, city, device, language FROM scans JOIN places ON places.id = placeId JOIN agents ON agents.id = agentId ORDER BY scans.id DESC LIMIT 1',
  )[0]

describe('the phone stand-in', () => {
  it('follows the printed link to the destination site, UTM values and all', async () => {
    const { steps, landed } = await scan('HTTP://GO.SALTMARSH.EXAMPLE/PIER')
    expect(steps.map(({ status }) => status)).toEqual([302, 200])
    expect(landed?.address).toContain('utm_source=pier-poster')
    const page = await http(
      'GET',
      flimbo.ports.standIn,
      new URL(landed?.frame ?? '').pathname + new URL(landed?.frame ?? '').search,
    )
    expect(page.body).toContain('<td>utm_source</td><td>pier-poster</td>')
  })

  it('makes a test scan from where it is said to be, or one that counts', async () => {
    await scan(`${DOOR}/PIER`)
    expect(newest()).toEqual({ apart: 'test', city: 'Groningen', device: 'tablet', language: 'nl-NL' })
    await scan(`${DOOR}/PIER`, true)
    expect(newest()).toMatchObject({ apart: null, city: 'Groningen' })
  })

  it('says what a link answers that leads nowhere', async () => {
    expect(await scan(`${DOOR}/NOTHING`)).toMatchObject({
      steps: [{ status: 404, says: expect.stringContaining('no such short link') as string }],
      landed: null,
    })
  })

  it.each([
    ['https://elsewhere.example/x', 'no short link of this Flimbo'],
    ['http://127.0.0.1:1/', 'no short link'],
    ['WIFI:S:pier;;', 'no web address'],
    ['https://', 'no web address'],
  ])('asks nobody for %j', async (read, says) => {
    expect((await scan(read)).steps).toEqual([
      { address: expect.any(String) as string, status: null, says: expect.stringContaining(says) as string },
    ])
  })

  it('stops at a light page and at a question as a phone would, and tells the collector of the visit', async () => {
    const tag = {
      id: 'site',
      name: 'Site',
      kind: 'audience',
      value: 'A-9',
      address: 'https://collector.example/px?id={id}&from={source}&c={country}',
      firing: 'page',
      body: '',
      resting: false,
    }
    const rules = async (tags: object[]) =>
      flimbo.ask('PATCH', '/api/visit-tags', {
        value: { tags, consent: NO_TAGS.consent },
        version: (await flimbo.ask<{ version: number }>('GET', '/api/visit-tags')).body.version,
      })
    await rules([tag, { ...tag, id: 'far', name: 'Far', address: 'https://collector.invalid/px' }])
    const { routeId } = await flimbo.code((await flimbo.campaign('Tagged', 'tagged')).id, { slug: 'tagged' })
    await flimbo.live(routeId, { ...NO_RULES, tags: ['site', 'far'] })
    const light = await scan(`${DOOR}/TAGGED`)
    expect(light.steps.map(({ status, says }) => [status, says])).toEqual([
      [200, 'shows a light page on which visit tags fire'],
      [200, 'is told of the visit'],
      [null, 'lies outside of this machine; a real phone would load it'],
      [200, 'shows “Summer timetable”'],
    ])
    await rules([
      { ...tag, firing: 'asked' },
      { ...tag, id: 'far', name: 'Far', resting: true },
    ])
    const says = async (agrees: boolean) =>
      (
        await flimbo.ask<PhoneAnswer>('POST', '/api/phone/scans', {
          read: `${DOOR}/TAGGED`,
          ...owner,
          agrees,
        })
      ).body.steps.map((step) => step.says)
    expect(await says(true)).toEqual([
      'asks whether visit tags may fire',
      'is told yes, and shows a light page on which visit tags fire',
      'is told of the visit',
      'shows “Summer timetable”',
    ])
    expect(await says(false)).toEqual([
      'asks whether visit tags may fire',
      'is told no, and sends the phone on',
      'shows “Summer timetable”',
    ])
    const { rows } = (await flimbo.ask<{ rows: ReceivedHit[] }>('GET', '/api/visit-tags/received')).body
    expect(rows.map(({ by, values }) => [by, values])).toEqual(
      Array.from({ length: 2 }, () => [
        'phone',
        [
          ['id', 'A-9'],
          ['from', 'pier-poster'],
          ['c', 'NL'],
        ],
      ]),
    )
  })

  it('offers what there is and refuses what there is not', async () => {
    const { body } = await flimbo.ask<PhoneChoices>('GET', '/api/phone')
    expect([body.mayCount, body.places.length > 40, body.devices.length > 8]).toEqual([true, true, true])
    expect(
      (await flimbo.refused('POST', '/api/phone/scans', { read: 'x', ...owner, place: 'atlantis' }))
        .fields?.[0]?.path,
    ).toBe('place')
  })

  it('is not there where the stand-ins are off', async () => {
    const plain = await runningFlimbo({ FLIMBO_STANDINS: 'off' })
    try {
      await plain.setUp()
      expect(
        (await plain.refused('POST', '/api/phone/scans', { read: `${DOOR}/PIER`, ...owner, count: true }))
          .status,
      ).toBe(404)
      expect((await plain.refused('GET', '/api/phone')).detail).toContain('The stand-ins do not run here')
    } finally {
      await plain.close()
    }
  })
})
