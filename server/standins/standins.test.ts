import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openPlaces, type FindPlace } from '../scans/index.ts'
import { http } from '../tests/running.ts'
import {
  addressIn,
  destinationSite,
  isStandInHost,
  standInAddress,
  standInTarget,
  STANDIN_PLACES,
} from './index.ts'

const site = destinationSite()
let port = 0
let findPlace: FindPlace
beforeAll(async () => {
  await new Promise<void>((resolve) => {
    site.listen(0, '127.0.0.1', resolve)
  })
  port = (site.address() as AddressInfo).port
  findPlace = await openPlaces()
})
afterAll(() => {
  site.close()
})

describe('the destination site', () => {
  it('answers for .example by host or by path, and shows what the visit came with', async () => {
    for (const [path, headers] of [
      ['/timetable?utm_source=a&utm_medium=b', { host: 'saltmarsh.example' }],
      ['/at/saltmarsh.example/timetable?utm_source=a&utm_medium=b', {}],
    ] as const) {
      const { status, body } = await http('GET', port, path, headers)
      expect(status).toBe(200)
      expect(body).toContain('<title>Summer timetable</title>')
      expect(body).toContain('<td>utm_medium</td><td>b</td>')
    }
  })
  it('answers for nobody else', async () => {
    expect((await http('GET', port, '/', { host: 'elsewhere.test' })).status).toBe(404)
    expect(
      ['saltmarsh.example', 'example', 'notexample', 'saltmarsh.example.test'].map(isStandInHost),
    ).toEqual([true, true, false, false])
  })
  it('lives through addresses that are none', async () => {
    for (const path of [
      '//',
      '///',
      '/at/',
      '/at//',
      '/at/saltmarsh.example//',
      '//saltmarsh.example',
      '/%',
      '/at/%',
      '/at/[::1/x',
    ]) {
      expect((await http('GET', port, path, { host: 'saltmarsh.example' })).status).toBeLessThan(500)
    }
    expect((await http('GET', port, '/timetable', { host: 'saltmarsh.example' })).status).toBe(200)
  })
  it('shows values as text, whatever they are', async () => {
    const { body } = await http(
      'GET',
      port,
      `/at/saltmarsh.example/x?a=${encodeURIComponent('<script>alert("1")</script>')}`,
    )
    expect(body).not.toContain('<script>')
    expect(body).toContain('&lt;script&gt;')
  })
  it('has an address for every page, fragment and all', () => {
    expect(standInAddress(4002, new URL('https://saltmarsh.example/a?b=c#d'))).toBe(
      'http://localhost:4002/at/saltmarsh.example/a?b=c#d',
    )
    for (const address of [
      'https://saltmarsh.example/a?b=c#d',
      'https://collector.example/a/container.js',
      'https://saltmarsh.example/',
    ])
      expect(standInTarget(new URL(standInAddress(4002, new URL(address)))).href).toBe(address)
    for (const address of ['https://saltmarsh.example/a', 'http://localhost:4002/at/elsewhere.test/a'])
      expect(standInTarget(new URL(address)).href).toBe(address)
  })
})

describe('the places of the stand-ins', () => {
  it('are where the city database puts their addresses, each of them and their neighbours', () => {
    const wrong = STANDIN_PLACES.flatMap((place) =>
      Array.from({ length: 8 }, (_, i) => addressIn(place, i, i * 37)).filter((address) => {
        const { country, city } = findPlace(address)
        return country !== place.country || city !== place.city
      }),
    )
    // Neighbours inside a network of 256 are now and then another town's.
    expect(wrong.length).toBeLessThan(STANDIN_PLACES.length * 8 * 0.05)
  })
})

describe('finding a place', () => {
  it.each([
    ['2003:c0::1', 'DE'],
    ['::ffff:2.59.32.77', 'DE'],
    ['2.59.32.77', 'DE'],
    // RFC 5737 and loopback addresses are nowhere; so is what is no address.
    ['192.0.2.1', ''],
    ['127.0.0.1', ''],
    ['::1', ''],
    ['', ''],
    ['unknown', ''],
    ['999.1.1.1', ''],
    ['2.59.32.77, 1.1.1.1', ''],
  ])('of %j answers %j', (address, country) => {
    expect(findPlace(address).country).toBe(country)
  })
  it('gives degrees to four decimals and cities without their districts', () => {
    const { city, latitude } = findPlace('193.99.144.80')
    expect(city).not.toContain('(')
    expect(latitude).toBe(Math.round((latitude ?? 0) * 1e4) / 1e4)
  })
})
