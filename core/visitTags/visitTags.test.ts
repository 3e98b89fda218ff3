import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bodyFault,
  firedBy,
  hitAddress,
  hitBody,
  NO_TAGS,
  tagInWords,
  VISIT_FIELDS,
  visitTag,
  visitTagSettings,
  type VisitTag,
  type VisitValues,
} from './index.ts'

const TAG: VisitTag = {
  id: 'site',
  name: 'Site',
  kind: 'measurement',
  value: 'M-4711',
  address: 'https://collector.example/hit?tid={id}&cs={source}',
  firing: 'page',
  body: '',
  resting: false,
}
const VISIT: VisitValues = {
  address: 'https://saltmarsh.example/timetable?utm_source=pier-poster&x=1#top',
  source: 'pier-poster',
  medium: 'print',
  campaign: 'summer-26',
  term: '',
  content: 'A2 & more',
  code: 'PIER',
  country: 'DE',
  language: 'de-DE',
  device: 'phone',
  time: '1782900000000',
  visit: '7b1f',
}
const wrong = (change: Partial<VisitTag>) =>
  visitTag.safeParse({ ...TAG, ...change }).error?.issues.map(({ message }) => message) ?? []

describe('a visit tag', () => {
  it('is taken as it is defined', () => {
    expect(visitTag.parse({ ...TAG, address: ` ${TAG.address} ` })).toEqual(TAG)
  })

  it.each<[string, Partial<VisitTag>, string]>([
    [
      'whose site a visit would choose',
      { address: 'https://{source}.example/hit' },
      'not in the name of the collector’s site',
    ],
    [
      'whose port a visit would choose',
      { address: 'https://collector.example:{code}/hit' },
      'not in the name',
    ],
    ['without an address', { address: '' }, 'Give the collector’s address.'],
    ['that is no web address', { address: 'javascript:alert(1)' }, 'begin the address with https://'],
    ['without an ID', { value: ' ' }, 'Give the ID the collector gave you.'],
    [
      'of a container that the server would send',
      { kind: 'container', firing: 'server' },
      'Only a measurement can be sent by the server',
    ],
    [
      'of an audience that the server would send',
      { kind: 'audience', firing: 'server' },
      'Only a measurement',
    ],
    ['with a body that a phone would send', { body: '{}' }, 'Only the server sends a body'],
    [
      'with a body that is no JSON',
      { firing: 'server', body: '{"source": {source}}' },
      'inside quotation marks',
    ],
    ['with a body that is no object', { firing: 'server', body: '"x"' }, 'as a JSON object'],
  ])('%s is refused with a sentence', (_what, change, sentence) => {
    expect(wrong(change).join(' ')).toContain(sentence)
  })

  it('has a key and a name of its own', () => {
    const two = (other: Partial<VisitTag>) =>
      visitTagSettings.safeParse({ ...NO_TAGS, tags: [TAG, { ...TAG, ...other }] }).error?.issues[0]?.message
    expect([two({ name: 'Other' }), two({ id: 'b', name: 'SITE' }), two({ id: 'b', name: 'Other' })]).toEqual(
      ['Two tags have the same key.', 'Two tags have the same name.', undefined],
    )
  })

  it('is said in a sentence', () => {
    expect(tagInWords(TAG)).toBe('Measurement M-4711 fires on a light page on the way')
    expect(tagInWords({ ...TAG, firing: 'server' })).toBe(
      'Measurement M-4711 is sent by the server after the redirect',
    )
    expect(tagInWords({ ...TAG, kind: 'audience', resting: true })).toBe(
      'Audience pixel M-4711 is turned off',
    )
  })
})

describe('what a route fires', () => {
  const tags = [
    TAG,
    { ...TAG, id: 'asked', name: 'B', firing: 'asked' as const },
    { ...TAG, id: 'server', name: 'C', firing: 'server' as const },
    { ...TAG, id: 'off', name: 'D', resting: true },
  ]
  it('is sorted by how it fires, in the workspace’s order', () => {
    const fired = firedBy({ ...NO_TAGS, tags }, ['server', 'off', 'asked', 'site'])
    expect([fired?.page, fired?.asked, fired?.server].map((some) => some?.map(({ id }) => id))).toEqual([
      ['site'],
      ['asked'],
      ['server'],
    ])
  })
  it('is nothing where no tag of it is defined, or all rest', () => {
    expect([
      firedBy({ ...NO_TAGS, tags }, []),
      firedBy({ ...NO_TAGS, tags }, ['off', 'gone']),
      firedBy(NO_TAGS, ['site']),
    ]).toEqual([null, null, null])
  })
})

describe('a hit', () => {
  it('carries the visit in its address, each value escaped by where it stands', () => {
    const address = hitAddress(
      { value: 'M 1', address: 'https://collector.example/{id}/hit?dl={address}&c={content}&dt={time}' },
      VISIT,
    )
    expect(address).toBe(
      'https://collector.example/M%201/hit?dl=https%3A%2F%2Fsaltmarsh.example%2Ftimetable%3Futm_source%3Dpier-poster%26x%3D1%23top&c=A2+%26+more&dt=1782900000000',
    )
  })

  it('carries it in its body as JSON, whatever the values are', () => {
    const body = JSON.stringify(Object.fromEntries(VISIT_FIELDS.map((field) => [field, `<{${field}}>`])))
    fc.assert(
      fc.property(
        fc.record(
          Object.fromEntries(Object.keys(VISIT).map((name) => [name, fc.string({ unit: 'binary' })])),
        ),
        (values) => {
          // Every field of a visit is there: the record was made of them.
          const visit = values as unknown as VisitValues
          expect(JSON.parse(hitBody({ value: 'M', body }, visit) ?? '')).toEqual({
            id: '<M>',
            ...Object.fromEntries(Object.entries(visit).map(([name, value]) => [name, `<${value}>`])),
          })
          const query = Object.keys(visit)
            .map((name) => `${name}={${name}}`)
            .join('&')
          const url = new URL(
            hitAddress({ value: 'M', address: `https://collector.example/hit?${query}` }, visit),
          )
          expect([url.origin, url.pathname, [...url.searchParams]]).toEqual([
            'https://collector.example',
            '/hit',
            Object.entries(visit).map(([name, value]) => [name, value]),
          ])
        },
      ),
    )
  })

  it('keeps the shape of its body: lists, numbers, names', () => {
    const body =
      '{"id": "{id}", "events": [{"name": "scan", "at": "{time}", "n": 1, "on": true, "{source}": null}]}'
    expect(hitBody({ value: 'M', body }, VISIT)).toBe(
      '{"id":"M","events":[{"name":"scan","at":1782900000000,"n":1,"on":true,"{source}":null}]}',
    )
    expect([
      hitBody({ value: 'M', body: ' ' }, VISIT),
      bodyFault(''),
      bodyFault(body),
      bodyFault('[]'),
    ]).toEqual([null, null, null, null])
  })
})
