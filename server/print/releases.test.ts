import { createHash } from 'node:crypto'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import type { HouseStyle } from '@flimbo/core/houseStyles'
import type { Job } from '@flimbo/core/jobs'
import type { BrokenRelease, Release } from '@flimbo/core/print'
import { PLAIN_LOOK, type Look } from '@flimbo/core/symbol'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const BROWN: Look = { ...PLAIN_LOOK, ink: { kind: 'solid', tint: { rgb: '#3a2008', cmyk: null } } }
const PALE: Look = { ...PLAIN_LOOK, ink: { kind: 'solid', tint: { rgb: '#e8dca0', cmyk: null } } }
const style = async (name: string, look: Look) =>
  (await flimbo.ask<HouseStyle>('POST', '/api/house-styles', { name, look })).body
const ORDER = { finishes: [{ format: 'pdf' }, { format: 'svg' }], printer: 'Dune Press', note: 'Matt paper' }

async function release(ids: readonly number[], more: object = {}): Promise<Job> {
  const { body: job, status } = await flimbo.ask<Job>('POST', '/api/releases', {
    ...ORDER,
    filter: { campaignId },
    ids,
    ...more,
  })
  if (status !== 201) throw new Error(JSON.stringify(job))
  return flimbo.ended(job.id)
}
const piece = async (id: number) => (await flimbo.ask<Code>('GET', `/api/codes/${String(id)}`)).body
const releases = async (id: number) =>
  (await flimbo.ask<{ rows: Release[] }>('GET', `/api/codes/${String(id)}/releases`)).body.rows
const fileOf = async ({ id }: Release, sum: string) =>
  (await flimbo.ask<Buffer | string>('GET', `/api/releases/${String(id)}/files/${sum}`)).body
const sha = (bytes: Buffer | string) => createHash('sha256').update(bytes).digest('hex')
const broken = async () =>
  (await flimbo.ask<{ rows: BrokenRelease[]; total: number }>('GET', '/api/broken-releases')).body

describe('a release', () => {
  it('keeps what left the house, to the byte, whatever becomes of the piece', async () => {
    const { id: styleId, version } = await style('Brown', BROWN)
    const code = await flimbo.code(campaignId, { name: 'Pier', slug: 'pier', styleId, printRun: 500 })
    const job = await release([code.id])
    expect([job.state, job.sentence]).toEqual(['done', '1 piece released.'])
    const [first] = await releases(code.id)
    expect(first).toMatchObject({
      number: 1,
      by: 'Anna Petersen',
      name: 'Pier',
      link: 'go.saltmarsh.example/PIER',
      styleName: 'Brown',
      look: BROWN,
      printRun: 500,
      printer: 'Dune Press',
      note: 'Matt paper',
      proof: { readiness: 'ready' },
    })
    if (!first) throw new Error('Nothing was released')
    expect(first.files.map(({ name }) => name)).toEqual(['pier-PIER.pdf', 'pier-PIER-2.svg'])
    const kept = await Promise.all(first.files.map(({ sum }) => fileOf(first, sum)))
    expect(kept.map(sha)).toEqual(first.files.map(({ sum }) => sum))
    expect((await piece(code.id)).print.release).toMatchObject({ number: 1, changed: [] })

    await flimbo.code(campaignId, { name: 'Another', styleId })
    const uses = await flimbo.ask<object>('GET', `/api/house-styles/${String(styleId)}/uses`)
    expect(uses.body).toMatchObject({
      rows: [
        { name: 'Pier', isReleased: true },
        { name: 'Another', isReleased: false },
      ],
      total: 2,
      released: 1,
    })
    await flimbo.ask('PATCH', `/api/house-styles/${String(styleId)}`, { version, look: PLAIN_LOOK })
    await flimbo.ask('PATCH', `/api/codes/${String(code.id)}`, { version: 1, sizeMm: 44, slug: 'pier-new' })
    expect((await piece(code.id)).print.release?.changed).toEqual(['link', 'size', 'look'])
    const again = await Promise.all(first.files.map(({ sum }) => fileOf(first, sum)))
    expect(again).toEqual(kept)
    await release([code.id])
    const [second, before] = await releases(code.id)
    expect([second?.number, second?.look, before]).toEqual([2, PLAIN_LOOK, first])
    expect((await piece(code.id)).print.release).toMatchObject({ number: 2, changed: [] })
  }, 60_000)

  it('is altered by nobody, not even past the office', async () => {
    const code = await flimbo.code(campaignId, { name: 'Fixed' })
    await release([code.id])
    const database = new Sqlite(flimbo.file)
    try {
      expect(() => database.exec("UPDATE releases SET note = 'x'")).toThrow('never altered')
      expect(() => database.exec('DELETE FROM releases')).toThrow('never deleted')
    } finally {
      database.close()
    }
  }, 30_000)

  it('is refused to a piece that will fail, unless somebody insists', async () => {
    const { id: styleId } = await style('Pale', PALE)
    const [good, bad] = [
      await flimbo.code(campaignId, { name: 'Good' }),
      await flimbo.code(campaignId, { name: 'Bad', styleId }),
    ]
    expect((await release([good.id, bad.id])).sentence).toBe(
      '1 piece released. Left out, because it will fail: Bad.',
    )
    expect([(await releases(good.id)).length, (await releases(bad.id)).length]).toEqual([1, 0])
    expect((await release([bad.id], { failing: 'release' })).sentence).toBe('1 piece released.')
    expect((await releases(bad.id))[0]?.proof.readiness).toBe('will-fail')
  }, 60_000)

  it('is carried on by a job that was broken off, and no piece is released twice', async () => {
    const codes = [
      await flimbo.code(campaignId, { name: 'One' }),
      await flimbo.code(campaignId, { name: 'Two' }),
    ]
    const job = await release(codes.map(({ id }) => id))
    const database = new Sqlite(flimbo.file)
    // As it stands after a crash between two pieces, or after the last: it runs still.
    database.prepare("UPDATE jobs SET state = 'running', endedAt = NULL WHERE id = ?").run(job.id)
    database.close()
    const { dataDir } = flimbo.config
    await flimbo.stop()
    flimbo = await runningFlimbo({ FLIMBO_DATA_DIR: dataDir })
    await flimbo.ask('POST', '/api/session', {
      email: 'anna@saltmarsh.example',
      password: 'low tide at noon',
    })
    expect((await flimbo.ended(job.id)).state).toBe('done')
    for (const { id } of codes) expect(await releases(id)).toHaveLength(1)
  }, 60_000)

  it.each([
    [{ finishes: [] }, 'at least one file'],
    [{ filter: { campaignId: 1, search: 'nothing such' }, ids: undefined }, 'no piece to release'],
    [{ printer: 'x'.repeat(300) }, 'no longer than 200'],
  ])('is refused for %j with what to do', async (more, words) => {
    const refused = await flimbo.refused('POST', '/api/releases', {
      ...ORDER,
      filter: { campaignId },
      ...more,
    })
    expect(refused.fields?.[0]?.message).toContain(words)
  })
})

describe('the desk', () => {
  it('names released pieces whose printed link leads nobody on, and why', async () => {
    const before = (await broken()).total
    const codes = await Promise.all(
      ['Paused', 'Off', 'Renamed'].map((name) => flimbo.code(campaignId, { name, slug: name.toLowerCase() })),
    )
    const [paused, off, renamed] = codes
    if (!paused || !off || !renamed) throw new Error('No pieces')
    await release(codes.map(({ id }) => id))
    expect((await broken()).total).toBe(before)
    await flimbo.ask('PATCH', `/api/codes/${String(paused.id)}`, { version: 1, state: 'paused' })
    await flimbo.ask('PATCH', `/api/routes/${String(off.routeId)}`, { version: 1, state: 'paused' })
    // The old link of a renamed piece goes on working: nothing is wrong with it.
    await flimbo.ask('PATCH', `/api/codes/${String(renamed.id)}`, { version: 1, slug: 'renamed-2' })
    expect((await broken()).rows.map(({ name, why }) => [name, why])).toEqual([
      ['Paused', 'The piece is paused.'],
      ['Off', 'Its route “Off” is paused.'],
    ])
  }, 60_000)
})
