import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import {
  addressOf,
  endpoint,
  fieldFaults,
  idParams,
  line,
  openApiDocument,
  pageQuery,
  problemOf,
  requiredLine,
} from './index.ts'
import { newCampaign } from '../campaigns/index.ts'
import { newCode } from '../codes/index.ts'
import { setUp } from '../workspace/index.ts'

const faultsOf = (schema: z.ZodType, value: unknown) => {
  const read = schema.safeParse(value)
  return read.success
    ? {}
    : Object.fromEntries(fieldFaults(read.error).map(({ path, message }) => [path, message]))
}

describe('a line of text', () => {
  it.each([
    ['x'.repeat(10_000), 'no longer than 200 characters'],
    ['two\nlines', 'line breaks and control characters'],
    ['bell\u0007', 'line breaks and control characters'],
    ['', 'Give a name.'],
    ['   ', 'Give a name.'],
    [undefined, 'Give a name.'],
    [7, 'Give a name.'],
  ])('%j is refused in a sentence', (value, sentence) => {
    expect(faultsOf(requiredLine('a name', 200), value)['']).toContain(sentence)
  })
  it('loses the space around it', () => {
    expect(line('a name', 9).parse('  a b ')).toBe('a b')
  })
})

describe('the faults of a form', () => {
  it('name each field once, with a sentence', () => {
    expect(
      faultsOf(newCode, {
        campaignId: 1,
        name: '',
        medium: '',
        source: 'x\u0000',
        level: 'Z',
        sizeMm: 1,
        slug: 'p!er',
        destination: 'ftp://x.example',
      }),
    ).toEqual({
      name: 'Give a name.',
      medium: 'Give a medium, such as print.',
      source: 'Take line breaks and control characters out of a source.',
      level: 'Choose one of the levels L, M, Q and H.',
      sizeMm: 'Make the symbol at least 5 mm wide.',
      slug: 'Use only the letters A to Z, digits and dashes, with no dash at either end: capitals and small letters are the same.',
      destination: 'Phones can only be sent to a web page: begin the address with https:// or http://.',
    })
  })
  it('name a field that does not exist', () => {
    expect(
      faultsOf(newCampaign, { name: 'A', zone: 'Europe/Berlin', utmCampaign: 'a', colour: 'red' }),
    ).toEqual({ colour: expect.stringContaining('“colour” is not a field') as string })
  })
  it('ask for a destination or a route, and not for both', () => {
    const piece = { campaignId: 1, name: 'A', medium: 'print', source: 'b' }
    expect(faultsOf(newCode, piece)).toHaveProperty('destination')
    expect(faultsOf(newCode, { ...piece, routeId: 1, destination: 'https://a.example' })).toHaveProperty(
      'destination',
    )
    expect(faultsOf(newCode, { ...piece, routeId: 1 })).toEqual({})
  })
  it('find days in the wrong order', () => {
    expect(
      faultsOf(newCampaign, {
        name: 'A',
        zone: 'Europe/Berlin',
        utmCampaign: 'a',
        startsOn: '2026-02-02',
        endsOn: '2026-02-01',
      }),
    ).toEqual({ endsOn: 'The last day lies before the first.' })
  })
  it.each([['+01:00'], ['Berlin'], ['Europe/Atlantis'], ['']])('refuse %j as a time zone', (zone) => {
    expect(faultsOf(newCampaign, { name: 'A', zone, utmCampaign: 'a' })).toHaveProperty('zone')
  })
  it('refuse a short password and half an address', () => {
    const given = { workspace: 'W', zone: 'Europe/Berlin', name: 'Anna', email: 'anna@', password: 'short' }
    expect(Object.keys(faultsOf(setUp, given))).toEqual(['email', 'password'])
    expect(
      setUp.parse({ ...given, email: ' Anna@Saltmarsh.Example ', password: 'long enough now' }).email,
    ).toBe('anna@saltmarsh.example')
  })
})

describe('a page of a list', () => {
  const schema = pageQuery(['name', 'scans'], 'name')
  it('has usual bounds', () => {
    expect(schema.parse({})).toEqual({ page: 0, pageSize: 50, sort: 'name', order: 'asc' })
  })
  it.each([
    [{ page: '-1' }],
    [{ pageSize: '501' }],
    [{ sort: 'colour' }],
    [{ order: 'up' }],
    [{ pagesize: '5' }],
  ])('refuses %j', (query) => {
    expect(schema.safeParse(query).success).toBe(false)
  })
})

describe('an endpoint', () => {
  const get = endpoint({
    access: { right: 'view', things: { code: 'params.id' } },
    method: 'GET',
    path: '/codes/:id',
    room: 'codes',
    summary: 'One code',
    params: idParams,
    query: z.object({ q: z.string().optional() }),
    answer: z.object({ id: z.int() }),
  })
  it('has an address', () => {
    expect(addressOf(get.path, { id: 7 }, { q: 'a b&c', page: undefined, order: '' })).toBe(
      '/codes/7?q=a+b%26c',
    )
    expect(() => addressOf(get.path)).toThrow(':id')
  })
  it('is described by OpenAPI 3.1', () => {
    const document = openApiDocument([get], { title: 'T', version: '1' })
    expect(document).toMatchObject({
      openapi: '3.1.0',
      paths: {
        '/codes/{id}': {
          get: {
            parameters: [
              { name: 'id', in: 'path', required: true },
              { name: 'q', in: 'query', required: false },
            ],
            responses: {
              200: {
                content: { 'application/json': { schema: { properties: { id: { type: 'integer' } } } } },
              },
              default: { content: { 'application/problem+json': {} } },
            },
          },
        },
      },
    })
  })
  it('fails with problem details (RFC 9457)', () => {
    expect(problemOf('missing', 'There is no such code.')).toEqual({
      type: '/problems/missing',
      title: 'Not found',
      status: 404,
      detail: 'There is no such code.',
    })
  })
})
