import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { HouseStyle } from '@flimbo/core/houseStyles'
import type { Job } from '@flimbo/core/jobs'
import type { Release } from '@flimbo/core/print'
import type { NewStaticCode, StaticCode } from '@flimbo/core/staticCodes'
import { PLAIN_LOOK } from '@flimbo/core/symbol'
import { zxing } from '../../bench/decoders.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign('Summer')).id
})
afterAll(() => flimbo.close())

const WIFI = { kind: 'wifi', security: 'WPA', name: 'Gull; guests', password: 'low "tide"' } as const
const make = async (content: NewStaticCode['content'], more: object = {}) => {
  const { status, body } = await flimbo.ask<StaticCode>('POST', '/api/static-codes', {
    campaignId,
    name: 'Guests',
    content,
    ...more,
  })
  if (status !== 201) throw new Error(JSON.stringify(body))
  return body
}
const path = ({ id }: Pick<StaticCode, 'id'>, rest = '') => `/api/static-codes/${String(id)}${rest}`

/** An order of one static code alone. */
const only = ({ id }: Pick<StaticCode, 'id'>) => ({ filter: { campaignId }, ids: [], staticIds: [id] })

async function readPicture(png: Buffer): Promise<string | null> {
  const { data, info } = await sharp(png)
    .ensureAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true })
  return zxing({ width: info.width, height: info.height, data: new Uint8ClampedArray(data) })
}

describe('a static code', () => {
  it.each<[string, NewStaticCode['content'], string]>([
    // RFC 5870, section 6.1; RFC 6068, section 6.1; RFC 3966, section 6.
    ['place', { kind: 'place', latitude: 48.201, longitude: 16.3695 }, 'geo:48.201,16.3695'],
    ['mail', { kind: 'email', to: 'chris@example.com' }, 'mailto:chris@example.com'],
    ['number', { kind: 'phone', number: '+1-201-555-0123' }, 'tel:+12015550123'],
    ['network', WIFI, 'WIFI:T:WPA;S:Gull\\; guests;P:low \\"tide\\";;'],
  ])('carries a %s by its standard, as its printed picture is read', async (_what, content, text) => {
    const code = await make(content)
    expect(code.text).toBe(text)
    const { body } = await flimbo.ask<Buffer>('GET', path(code, '/file?format=png&dpi=150'))
    expect(await readPicture(body)).toBe(text)
  })

  it.each<[string, object, string, string]>([
    ['a network without a name', { ...WIFI, name: '' }, 'content.name', 'exactly as it is announced'],
    [
      'an IBAN with a wrong digit',
      { kind: 'transfer', name: 'Pier', iban: 'DE88370400440532013000' },
      'content.iban',
      '',
    ],
    ['half an address', { kind: 'address', address: 'saltmarsh' }, 'content.address', 'begin with https://'],
    ['more than a symbol holds', { kind: 'text', text: 'ä'.repeat(3000) }, 'content', 'Leave something out'],
    ['a kind nobody knows', { kind: 'gull' }, 'content.kind', ''],
  ])('is refused with %s', async (_what, content, at, words) => {
    const refused = await flimbo.refused('POST', '/api/static-codes', { campaignId, name: 'X', content })
    expect(refused.fields?.[0]?.path).toBe(at)
    expect(refused.fields?.[0]?.message).toContain(words)
  })

  it('is measured, and is a draft again once it is another one', async () => {
    const code = await make({ kind: 'text', text: 'Moin' })
    expect(code.print.state).toBe('draft')
    const run = await flimbo.ask<Job>('POST', '/api/proof-runs', only(code))
    expect((await flimbo.ended(run.body.id)).sentence).toContain('1 ready')
    const { body: checked } = await flimbo.ask<StaticCode>('GET', path(code))
    expect(checked.print).toMatchObject({ state: 'ready', grade: 'A' })
    const { id: _id, campaignId: _c, text: _t, styleName: _s, print: _p, createdAt: _at, ...rest } = checked
    const changed = await flimbo.ask<StaticCode>('PATCH', path(code), { ...rest, name: 'Other', sizeMm: 50 })
    expect([changed.body.print.state, changed.body.name, changed.body.version]).toEqual(['draft', 'Other', 2])
    const late = await flimbo.refused('PATCH', path(code), { ...rest, name: 'Late' })
    expect([late.status, (late.current as StaticCode).name]).toEqual([409, 'Other'])
  })

  it('is printed in a house style, which is kept while it is', async () => {
    const { body: style } = await flimbo.ask<HouseStyle>('POST', '/api/house-styles', {
      name: 'Ink',
      look: PLAIN_LOOK,
    })
    const code = await make(WIFI, { styleId: style.id })
    expect(code.styleName).toBe('Ink')
    const refused = await flimbo.refused('DELETE', `/api/house-styles/${String(style.id)}`)
    expect(refused.detail).toContain('The static code “Guests” is printed in this house style')
    await flimbo.ask('DELETE', path(code))
    expect((await flimbo.ask('DELETE', `/api/house-styles/${String(style.id)}`)).status).toBe(204)
  })

  it('comes with pieces in one ZIP and on one sheet', async () => {
    const piece = await flimbo.code(campaignId, { name: 'Poster' })
    const guests = await make(WIFI, { name: 'Lounge' })
    const elsewhere = await flimbo.campaign('Elsewhere')
    const stranger = await make(
      { kind: 'text', text: 'Moin' },
      { campaignId: elsewhere.id, name: 'Stranger' },
    )
    const order = { filter: { campaignId }, staticIds: [guests.id, stranger.id] }
    const { body: job } = await flimbo.ask<Job>('POST', '/api/print-files', {
      ...order,
      pattern: '{name}',
      finish: { format: 'svg' },
    })
    await flimbo.ended(job.id)
    const { body } = await flimbo.ask<Buffer>('GET', `/api/jobs/${String(job.id)}/file`)
    expect(Object.keys(unzipSync(body)).sort()).toEqual([
      'Lounge.svg',
      `${piece.name}.svg`,
      'list of files.csv',
    ])
    const sheets = await flimbo.ask<Job>('POST', '/api/sheet-files', { what: 'proof-sheet', ...order })
    expect((await flimbo.ended(sheets.body.id)).file?.name).toBe('Summer proof sheet.pdf')
    const none = await flimbo.refused('POST', '/api/print-files', { filter: { campaignId: elsewhere.id } })
    expect(none.fields?.[0]?.message).toContain('no piece')
  })

  it('is kept as it was released, to the byte, and says what was changed since', async () => {
    const code = await make(WIFI, { name: 'Quay', printRun: 300 })
    const release = { ...only(code), finishes: [{ format: 'svg' }], printer: 'Pier Press', note: '' }
    const { body: job } = await flimbo.ask<Job>('POST', '/api/releases', release)
    expect((await flimbo.ended(job.id)).sentence).toBe('1 piece released.')
    const list = () => flimbo.ask<{ rows: Release[] }>('GET', path(code, '/releases'))
    const [first] = (await list()).body.rows
    expect(first).toMatchObject({ number: 1, name: 'Quay', text: code.text, link: '', printRun: 300 })
    const [file] = first?.files ?? []
    const { body: before } = await flimbo.ask<Buffer>(
      'GET',
      `/api/releases/${String(first?.id)}/files/${file?.sum ?? ''}`,
    )
    expect(createHash('sha256').update(before).digest('hex')).toBe(file?.sum)

    const { body: stored } = await flimbo.ask<StaticCode>('GET', path(code))
    const { id: _id, campaignId: _c, text: _t, styleName: _s, print: _p, createdAt: _at, ...rest } = stored
    await flimbo.ask('PATCH', path(code), { ...rest, content: { ...WIFI, password: 'high tide 9' } })
    const { body: changed } = await flimbo.ask<StaticCode>('GET', path(code))
    expect(changed.print.release?.changed).toEqual(['content'])
    expect((await list()).body.rows[0]?.text).toBe(code.text)
    expect((await flimbo.refused('DELETE', path(code))).detail).toContain('released for print')
  })
})
