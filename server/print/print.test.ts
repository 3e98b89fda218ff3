import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { HouseStyle } from '@flimbo/core/houseStyles'
import type { Job } from '@flimbo/core/jobs'
import { readTable } from '@flimbo/core/plan'
import { encode, freeLevel, PLAIN_LOOK, type Look, type PieceProof } from '@flimbo/core/symbol'
import { DOOR, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaign: Campaign
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaign = await flimbo.campaign()
})
afterAll(() => flimbo.close())

const fullSide = (side: number) => side + 8
const style = async (name: string, look: Look = PLAIN_LOOK) =>
  (await flimbo.ask<HouseStyle>('POST', '/api/house-styles', { name, look })).body
const PALE: Look = {
  ...PLAIN_LOOK,
  ink: { kind: 'solid', tint: { rgb: '#e8dca0', cmyk: null } },
}

describe('the files of a symbol', () => {
  it('SVG has the code’s size and carries a plain file name', async () => {
    const code = await flimbo.code(campaign.id, { name: 'Café “Gull’s Rest”', slug: 'gull', sizeMm: 42.5 })
    const { headers, body } = await flimbo.ask<string>('GET', `/api/codes/${String(code.id)}/file?format=svg`)
    expect(headers['content-disposition']).toBe(
      'attachment; filename="cafe-gull-s-rest-GULL.svg"; filename*=UTF-8\'\'cafe-gull-s-rest-GULL.svg',
    )
    expect(body).toContain('width="42.5mm"')
  })

  it.each([
    [30, 300, 'M'],
    [22, 600, 'H'],
    [100, 72, 'L'],
  ] as const)(
    'PNG of %i mm at %i dpi, level %s, is exactly that wide when printed',
    async (mm, dpi, level) => {
      const code = await flimbo.code(campaign.id)
      const { body } = await flimbo.ask<Buffer>(
        'GET',
        `/api/codes/${String(code.id)}/file?format=png&mm=${String(mm)}&dpi=${String(dpi)}&level=${level}`,
      )
      const { width = 0 } = await sharp(body).metadata()
      const chunk = body.indexOf('pHYs')
      const perMetre = body.readUInt32BE(chunk + 4)
      expect(body[chunk + 12]).toBe(1) // the unit is the metre (PNG specification, 11.3.4.3)
      expect(
        width %
          fullSide(
            encode(
              `${DOOR}/${code.slug}`.toUpperCase(),
              freeLevel(`${DOOR}/${code.slug}`.toUpperCase(), level),
            ).side,
          ),
      ).toBe(0)
      expect((width / perMetre) * 1000).toBeCloseTo(mm, 1)
      expect(perMetre * 0.0254).toBeGreaterThanOrEqual(dpi - 0.02)
    },
  )

  it.each([['mm=0'], ['dpi=9'], ['level=Z'], ['dpi=2400&mm=4000']])(
    'refuses %s with a sentence',
    async (query) => {
      const { id } = await flimbo.code(campaign.id)
      expect((await flimbo.refused('GET', `/api/codes/${String(id)}/file?format=png&${query}`)).status).toBe(
        422,
      )
    },
  )
})

/** The files of a ZIP that a job makes. */
async function zip(body: object) {
  const order = await flimbo.ask<Job>('POST', '/api/print-files', body)
  if (order.status !== 201) throw new Error(JSON.stringify(order.body))
  const { id } = order.body
  const job = await flimbo.ended(id)
  if (job.state !== 'done') return { job, files: {} as Record<string, Uint8Array> }
  const { body: bytes } = await flimbo.ask<Buffer>('GET', `/api/jobs/${String(id)}/file`)
  return { job, files: unzipSync(bytes) }
}

describe('the files of many pieces', () => {
  it('come in one ZIP, each under its own name, with a list that names their sums', async () => {
    const { id } = await flimbo.campaign('Symbols')
    const { id: styleId } = await style('Navy')
    for (const place of ['Pier / west', 'Pier / west', 'CON'])
      await flimbo.code(id, { name: '=Sign', place, ...(place === 'CON' ? { styleId } : {}) })
    const { job, files } = await zip({
      filter: { campaignId: id },
      pattern: '{place}',
      finish: { format: 'eps' },
    })
    expect(job.file?.name).toBe('Symbols print files.zip')
    expect(Object.keys(files)).toEqual([
      'Pier - west.eps',
      'Pier - west-2.eps',
      'CON-.eps',
      'list of files.csv',
    ])
    const [heading, ...rows] = readTable(new TextDecoder().decode(files['list of files.csv']), ',').rows
    expect(heading?.slice(0, 4)).toEqual(['Piece', 'Carries', 'Width mm', 'Height mm'])
    expect(rows.map((row) => [row[0], row[2], row[5]])).toEqual([
      ["'=Sign", '30', 'Plain'],
      ["'=Sign", '30', 'Plain'],
      ["'=Sign", '30', 'Navy'],
    ])
    for (const [, , , , , , name = '', sum] of rows)
      expect(
        createHash('sha256')
          .update(files[name] ?? '')
          .digest('hex'),
      ).toBe(sum)
  })

  it('are those of the named pieces alone, and the same to the byte another time', async () => {
    const { id } = await flimbo.campaign('Twice')
    const [, second] = [await flimbo.code(id, { name: 'A' }), await flimbo.code(id, { name: 'B' })]
    const order = { filter: { campaignId: id }, ids: [second.id], pattern: '{name}' }
    const [one, other] = [await zip(order), await zip(order)]
    expect(Object.keys(one.files)).toEqual(['B.pdf', 'list of files.csv'])
    expect(one.files).toEqual(other.files)
  })

  it('leave out those too large for a picture, and name them', async () => {
    const { id } = await flimbo.campaign('Large')
    await flimbo.code(id, { name: 'Card', sizeMm: 20 })
    await flimbo.code(id, { name: 'Wall', sizeMm: 2000, slug: 'wall' })
    const order = { filter: { campaignId: id }, pattern: '{name}', finish: { format: 'png', dpi: 600 } }
    const { files } = await zip(order)
    expect(Object.keys(files)).toEqual(['Card.png', 'list of files.csv', 'left out.txt'])
    expect(new TextDecoder().decode(files['left out.txt'])).toMatch(
      /^Wall \(WALL\): That would be \d+ pixels a side; .*Choose fewer dpi or take the SVG/,
    )
    const { job } = await zip({ ...order, filter: { campaignId: id, search: 'Wall' } })
    expect([job.state, job.sentence]).toEqual(['failed', expect.stringContaining('Choose fewer dpi')])
  })

  it.each([
    [{ pattern: '{colour}' }, '{colour} is no field'],
    [{ pattern: ' ' }, 'Give a pattern'],
    [{ finish: { bleedMm: 90 } }, 'at most 20 mm'],
    [{ filter: { campaignId: 1, search: 'nothing such' } }, 'no piece to print'],
  ])('are refused for %j with what to do', async (more, words) => {
    const refused = await flimbo.refused('POST', '/api/print-files', {
      filter: { campaignId: campaign.id },
      ...more,
    })
    expect(refused.fields?.[0]?.message).toContain(words)
  })
})

describe('checking pieces before print', () => {
  const run = async (body: object) => {
    const { body: job } = await flimbo.ask<Job>('POST', '/api/proof-runs', body)
    return flimbo.ended(job.id)
  }
  const piece = async (id: number) => (await flimbo.ask<Code>('GET', `/api/codes/${String(id)}`)).body

  it('says of each whether it is ready, and why not; a change makes it a draft again', async () => {
    const { id } = await flimbo.campaign('Proofs')
    const { id: styleId, version } = await style('Pale', PALE)
    const good = await flimbo.code(id, { name: 'Good' })
    const pale = await flimbo.code(id, { name: 'Pale', styleId })
    const far = await flimbo.code(id, { name: 'Far', viewingM: 30 })
    expect(good.print.state).toBe('draft')
    const job = await run({ filter: { campaignId: id } })
    expect([job.state, job.sentence]).toEqual(['done', '1 ready, 0 to be looked at again, 2 will fail.'])
    expect((await piece(good.id)).print).toMatchObject({ state: 'ready', grade: 'A' })
    expect((await piece(pale.id)).print).toMatchObject({ state: 'will-fail' })
    expect((await piece(far.id)).print.sentence).toContain('people will stand 30 m away. Print it larger.')
    const { body } = await flimbo.ask<{ counts: object }>('GET', `/api/campaigns/${String(id)}/print`)
    expect(body.counts).toEqual({ draft: 0, ready: 1, 'look-again': 0, 'will-fail': 2 })

    await flimbo.ask('PATCH', `/api/codes/${String(good.id)}`, { version: 1, note: 'Ask the printer' })
    expect((await piece(good.id)).print.state).toBe('ready')
    await flimbo.ask('PATCH', `/api/house-styles/${String(styleId)}`, { version, look: PLAIN_LOOK })
    await flimbo.ask('PATCH', `/api/codes/${String(good.id)}`, { version: 2, sizeMm: 31 })
    expect([(await piece(pale.id)).print.state, (await piece(good.id)).print.state]).toEqual([
      'draft',
      'draft',
    ])
    expect(
      (await flimbo.ask<{ proof: PieceProof | null }>('GET', `/api/codes/${String(good.id)}/proof`)).body
        .proof,
    ).toBeNull()
    const { body: after } = await flimbo.ask<{ counts: object }>('GET', `/api/campaigns/${String(id)}/print`)
    expect(after.counts).toEqual({ draft: 2, ready: 0, 'look-again': 0, 'will-fail': 1 })
  }, 60_000)

  it('keeps what was measured when it is cancelled, and goes on from there', async () => {
    const { id } = await flimbo.campaign('Cancelled')
    for (let i = 0; i < 6; i++) await flimbo.code(id, { name: `Card ${String(i)}` })
    const { body: job } = await flimbo.ask<Job>('POST', '/api/proof-runs', { filter: { campaignId: id } })
    const measured = () =>
      flimbo.rows('SELECT 1 FROM proofs p JOIN codes c ON c.id = p.codeId WHERE c.campaignId = ?', id).length
    while (measured() === 0) await new Promise((resolve) => setTimeout(resolve, 20))
    await flimbo.ask('DELETE', `/api/jobs/${String(job.id)}`)
    const ended = await flimbo.ended(job.id)
    expect([ended.state, ended.sentence]).toEqual([
      'cancelled',
      'It was cancelled; what was measured by then is kept.',
    ])
    expect(measured()).toBeLessThan(6)
    expect((await run({ filter: { campaignId: id } })).sentence).toContain('6 ready')
  }, 60_000)

  it('is refused where there is nothing to check', async () => {
    const { id } = await flimbo.campaign('Nothing')
    expect(
      (await flimbo.refused('POST', '/api/proof-runs', { filter: { campaignId: id } })).detail,
    ).toContain('no piece to check')
  })
})

describe('a house style', () => {
  it('has a name of its own, and is deleted only once no piece is printed in it', async () => {
    const { id, pieces } = await style('Moss')
    expect(pieces).toBe(0)
    for (const name of ['moss', 'Plain'])
      expect(
        (await flimbo.refused('POST', '/api/house-styles', { name, look: PLAIN_LOOK })).fields?.[0]?.path,
      ).toBe('name')
    const code = await flimbo.code(campaign.id, { name: 'Moss card', styleId: id })
    expect((await flimbo.refused('DELETE', `/api/house-styles/${String(id)}`)).detail).toContain(
      '“Moss card”',
    )
    await flimbo.ask('PATCH', `/api/codes/${String(code.id)}`, { version: 1, styleId: null })
    expect((await flimbo.ask('DELETE', `/api/house-styles/${String(id)}`)).status).toBe(204)
    // Chosen on another screen before it was deleted.
    const gone = await flimbo.refused('PATCH', `/api/codes/${String(code.id)}`, { version: 2, styleId: id })
    expect(gone.status).toBe(404)
  })

  it('that somebody else saved meanwhile is not overwritten', async () => {
    const { id, version } = await style('Brick')
    const path = `/api/house-styles/${String(id)}`
    await flimbo.ask('PATCH', path, { version, name: 'Brick red' })
    const refused = await flimbo.refused('PATCH', path, { version, look: PALE })
    expect([refused.status, (refused.current as HouseStyle).name]).toEqual([409, 'Brick red'])
  })

  it.each([
    ['a colour that is none', { ink: { kind: 'solid', tint: { rgb: 'red', cmyk: null } } }],
    ['a quiet zone that is too narrow', { quietZone: 3 }],
    ['a module of nothing', { modules: { shape: 'dot', size: 0 } }],
    ['fields nobody knows', { modules: { shape: 'gull', size: 1 } }],
  ])('is refused with %s', async (_what, more) => {
    const look = { ...PLAIN_LOOK, ...more }
    expect((await flimbo.refused('POST', '/api/house-styles', { name: 'X', look })).status).toBe(422)
  })

  it('comes with six looks to begin with', async () => {
    const { body } = await flimbo.ask<{ rows: HouseStyle[] }>('GET', '/api/house-styles')
    expect(body.rows.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['Dots', 'Flowing', 'Framed, with its link', 'Rounded', 'Upright bars']),
    )
  })
})
