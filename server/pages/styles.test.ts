import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { StoredFile } from '@flimbo/core/files'
import { newPart, PLAIN_STYLE, type PageStyle, type SavedStyle } from '@flimbo/core/pages'
import { NO_RULES } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let clientId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  const campaign = await flimbo.campaign()
  campaignId = campaign.id
  clientId = campaign.clientId
  await flimbo.code(campaignId, { slug: 'paused' })
  const page = await flimbo.page(campaignId, 'Stop', [{ ...newPart('heading', 'h'), text: { en: 'Stop' } }])
  await flimbo.codeTo(campaignId, page.id, 'stop')
})
afterAll(() => flimbo.close())

const inked = (ink: string): PageStyle => ({
  ...PLAIN_STYLE,
  scheme: 'light',
  light: { ...PLAIN_STYLE.light, ink },
})
const save = (body: object) => flimbo.ask<SavedStyle>('POST', '/api/page-styles', body)
const change = ({ id, version }: SavedStyle, set: object) =>
  flimbo.ask<SavedStyle>('PATCH', `/api/page-styles/${String(id)}`, { version, ...set })
const seen = async (path: string) => {
  const { body, headers } = await flimbo.scan(path)
  return { markup: String(body), policy: String(headers['content-security-policy']) }
}
const inkOf = (markup: string) => /--i:(#[0-9A-F]{6})/.exec(markup)?.[1]

describe('a page style', () => {
  it('that people could not read is refused, with what to do', async () => {
    const { fields } = await flimbo.refused('POST', '/api/page-styles', {
      name: 'Pale',
      style: inked('#DDDDDD'),
    })
    expect(fields).toEqual([
      { path: 'style.light.ink', message: expect.stringContaining('people need 4.5 : 1') as string },
    ])
  })

  it('is worn by pages that choose none, the client’s before the workspace’s, from the next scan on', async () => {
    const ofWorkspace = (await save({ name: 'House', style: inked('#101010'), isDefault: true })).body
    expect(inkOf((await seen('/stop')).markup)).toBe('#101010')
    const ofClient = (await save({ name: 'Client', style: inked('#202020'), clientId, isDefault: true })).body
    expect(inkOf((await seen('/stop')).markup)).toBe('#202020')
    await change(ofClient, { style: inked('#303030') })
    expect(inkOf((await seen('/stop')).markup)).toBe('#303030')
    await flimbo.ask('DELETE', `/api/page-styles/${String(ofClient.id)}`)
    expect(inkOf((await seen('/stop')).markup)).toBe('#101010')
    await change(ofWorkspace, { isDefault: false })
    expect(inkOf((await seen('/stop')).markup)).toBe(PLAIN_STYLE.light.ink)
  })

  it('is the default of its owner alone: another takes its place', async () => {
    const first = (await save({ name: 'First', style: inked('#111111'), isDefault: true })).body
    await save({ name: 'Second', style: inked('#222222'), isDefault: true })
    const { rows } = (await flimbo.ask<{ rows: SavedStyle[] }>('GET', '/api/page-styles')).body
    expect(rows.filter(({ isDefault }) => isDefault).map(({ name }) => name)).toEqual(['Second'])
    expect(rows.find(({ id }) => id === first.id)?.isDefault).toBe(false)
  })

  it('is worn by what the front door itself says too, under a policy that names that style sheet alone', async () => {
    const [style] = (await flimbo.ask<{ rows: SavedStyle[] }>('GET', '/api/page-styles')).body.rows.filter(
      ({ isDefault }) => isDefault,
    )
    const { markup, policy } = await seen('/nosuchlink')
    expect(inkOf(markup)).toBe(style?.style.light.ink)
    const [, css = ''] = /<style>(.*?)<\/style>/s.exec(markup) ?? []
    expect(policy).toContain(`style-src 'sha256-${createHash('sha256').update(css).digest('base64')}'`)
    const [paused] = flimbo.rows<{ routeId: number }>(`SELECT routeId FROM codes WHERE slug = 'PAUSED'`)
    const message = { kind: 'message', title: 'No boats', text: 'Too windy.' } as const
    const lane = {
      id: 'm',
      name: '',
      condition: { kind: 'all', of: [] },
      outcome: message,
      resting: false,
    } as const
    await flimbo.live(paused?.routeId ?? 0, { ...NO_RULES, lanes: [lane] })
    expect(inkOf((await seen('/paused')).markup)).toBe(style?.style.light.ink)
  })

  it('has a picture of its own, which is kept for as long as it needs it', async () => {
    const bytes = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#3e8fb5' } })
      .png()
      .toBuffer()
    const { key, sum } = (await flimbo.ask<StoredFile>('POST', '/api/files?name=sea.png', bytes)).body
    const ground = { kind: 'picture', file: key, sheet: '#FFFFFF' } as const
    const style = { ...PLAIN_STYLE, scheme: 'light', light: { ...PLAIN_STYLE.light, ground } } as const
    await save({ name: 'Sea', style, isDefault: true })
    const [, href = ''] = /url\("([^"]+)"\)/.exec((await seen('/stop')).markup) ?? []
    expect((await flimbo.scan(href)).headers['content-type']).toBe('image/webp')
    expect((await flimbo.refused('DELETE', `/api/files/${sum}`)).detail).toContain('“Sea” needs this file')
    expect(
      (
        await flimbo.refused('POST', '/api/page-styles', {
          name: 'Lost',
          style: { ...style, light: { ...style.light, ground: { ...ground, file: 'A'.repeat(21) } } },
        })
      ).detail,
    ).toContain('deleted meanwhile')
  })

  it('is not deleted while a page chose it, is called like no other, and overwrites nothing unasked', async () => {
    const chosen = (await save({ name: 'Chosen', style: PLAIN_STYLE })).body
    await flimbo.page(campaignId, 'Dressed', [], { styleId: chosen.id })
    expect((await flimbo.refused('DELETE', `/api/page-styles/${String(chosen.id)}`)).detail).toBe(
      'The page “Dressed” looks like this. Choose another style there first.',
    )
    expect(
      (await flimbo.refused('POST', '/api/page-styles', { name: 'CHOSEN', style: PLAIN_STYLE })).fields?.[0]
        ?.path,
    ).toBe('name')
    expect((await change(chosen, { name: 'Chosen well' })).status).toBe(200)
    expect((await change(chosen, { name: 'Late' })).status).toBe(409)
  })
})
