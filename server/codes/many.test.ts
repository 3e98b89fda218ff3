import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code, CodeCellChange, CodeGroup } from '@flimbo/core/codes'
import type { Answers, ResultsSummary } from '@flimbo/core/results'
import type { Route } from '@flimbo/core/routing'
import type { Review } from '@flimbo/core/tagging'
import { runningFlimbo, type Running } from '../tests/running.ts'

interface Page<T> {
  rows: T[]
  total: number
}
interface Outcome {
  changed: number
  refused: { id: number; name: string; sentence: string }[]
  undo: CodeCellChange[]
}

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

const plan = async (campaign: Campaign, query = '') =>
  (await flimbo.ask<Page<Code>>('GET', `/api/codes?campaignId=${String(campaign.id)}&pageSize=500${query}`))
    .body.rows
const change = async (body: object) => (await flimbo.ask<Outcome>('POST', '/api/codes/changes', body)).body
const one = async (id: number) => (await flimbo.ask<Code>('GET', `/api/codes/${String(id)}`)).body
const locationOf = async (slug: string) => (await flimbo.scan(`/${slug}`)).headers.location ?? ''

describe('changing many pieces at once', () => {
  it('changes what can be, tells what cannot, and takes all of it back', async () => {
    const campaign = await flimbo.campaign('Many')
    const [a, b] = [
      await flimbo.code(campaign.id, { name: 'A' }),
      await flimbo.code(campaign.id, { name: 'B', slug: 'many-b' }),
    ]
    const outcome = await change({
      changes: [
        { id: a.id, set: { source: 'banner', slug: 'many-a', sizeMm: 44 } },
        { id: b.id, set: { liveOn: '2026-09-01', downOn: '2026-08-01' } },
      ],
    })
    expect(outcome.changed).toBe(1)
    expect(outcome.refused.map(({ sentence }) => sentence)).toEqual([
      'The piece would be taken down before it goes live.',
    ])
    expect([await locationOf('many-a'), await locationOf(a.slug)]).toEqual(
      Array(2).fill(expect.stringContaining('utm_source=banner')),
    )
    expect((await one(a.id)).oldLinks).toEqual([a.shortLink])
    expect((await change({ changes: outcome.undo })).refused).toEqual([])
    expect(await one(a.id)).toMatchObject({ source: 'pier-poster', slug: a.slug, sizeMm: 30, version: 3 })
    expect((await flimbo.scan('/many-a')).status).toBe(302)
    const gone = { changes: [a.id, 9999].map((id) => ({ id, set: { source: 'x' } })) }
    expect((await flimbo.refused('POST', '/api/codes/changes', gone)).detail).toContain('Load the list again')
    expect((await one(a.id)).source).toBe('pier-poster')
  })

  it('lets nobody take another piece’s short link, a renamed piece’s old one either', async () => {
    const campaign = await flimbo.campaign('Links')
    const [a, b] = [await flimbo.code(campaign.id, { slug: 'first-a' }), await flimbo.code(campaign.id)]
    await change({ changes: [{ id: a.id, set: { slug: 'second-a' } }] })
    for (const slug of ['first-a', 'SECOND-A'])
      expect((await change({ changes: [{ id: b.id, set: { slug } }] })).refused[0]?.sentence).toContain(
        'is taken',
      )
    expect((await change({ changes: [{ id: a.id, set: { slug: 'first-a' } }] })).changed).toBe(1)
    expect(
      (
        await flimbo.refused('POST', '/api/codes', {
          campaignId: campaign.id,
          name: 'C',
          medium: 'print',
          source: 's',
          destination: 'https://saltmarsh.example',
          slug: 'second-a',
        })
      ).fields?.[0]?.path,
    ).toBe('slug')
  })

  it('sets a field of all that match, and leads a piece elsewhere where its route is its own', async () => {
    const campaign = await flimbo.campaign('Matching')
    const [a, b] = [
      await flimbo.code(campaign.id, { name: 'Wall one' }),
      await flimbo.code(campaign.id, { name: 'Leaflet' }),
    ]
    await flimbo.code(campaign.id, { name: 'Wall two', routeId: b.routeId })
    expect(
      await change({ matching: { campaignId: campaign.id, search: 'wall' }, set: { place: 'Pier' } }),
    ).toMatchObject({ changed: 2 })
    expect((await plan(campaign)).map(({ place }) => place)).toEqual(['Pier', '', 'Pier'])
    const led = await change({
      changes: [
        { id: a.id, set: { destination: 'https://saltmarsh.example/z' } },
        { id: b.id, set: { destination: 'https://saltmarsh.example/z' } },
      ],
    })
    expect([led.changed, led.refused[0]?.sentence]).toEqual([
      1,
      expect.stringContaining('2 pieces share the route “Leaflet”'),
    ])
    expect(await locationOf(a.slug)).toContain('/z?utm_source')
    expect((await flimbo.ask<Route>('GET', `/api/routes/${String(a.routeId)}`)).body.version).toBe(2)
    await change({ changes: led.undo })
    expect(await locationOf(a.slug)).toContain('/timetable?')
  })

  it('archives and restores; deletes only what nobody has scanned', async () => {
    const campaign = await flimbo.campaign('Fate')
    const [scanned, fresh] = [
      await flimbo.code(campaign.id, { slug: 'fate-a' }),
      await flimbo.code(campaign.id, { slug: 'fate-b' }),
    ]
    await flimbo.scan('/fate-a')
    const gone = await change({
      changes: [
        { id: scanned.id, set: { state: 'deleted' } },
        { id: fresh.id, set: { state: 'deleted' } },
      ],
    })
    expect([
      gone.changed,
      gone.refused.map(({ id, sentence }) => [id, sentence.includes('Archive it instead')]),
    ]).toEqual([1, [[scanned.id, true]]])
    await change({ changes: [{ id: scanned.id, set: { archived: true } }] })
    expect([
      (await plan(campaign)).length,
      (await plan(campaign, '&shown=archived')).map(({ id }) => id),
      (await plan(campaign, '&shown=deleted')).map(({ id }) => id),
    ]).toEqual([0, [scanned.id], [fresh.id]])
    expect([(await flimbo.scan('/fate-a')).status, (await flimbo.scan('/fate-b')).status]).toEqual([302, 410])
    await change({ changes: [{ id: scanned.id, set: { archived: false } }] })
    expect(await plan(campaign)).toHaveLength(1)
    expect(
      (
        await flimbo.refused('PATCH', `/api/routes/${String(scanned.routeId)}`, {
          version: 1,
          state: 'deleted',
        })
      ).detail,
    ).toContain('Pieces still use this route')
  })

  it('keeps keys apart, and extra parameters in the address', async () => {
    await flimbo.ask('PATCH', '/api/house-rules', {
      version: 0,
      value: {
        letterCase: 'lower',
        separator: '-',
        media: ['print', 'screen'],
        offList: 'refuse',
        required: [],
        contentPattern: '',
        parameters: [{ name: 'region', label: 'Region', required: false }],
      },
    })
    const campaign = await flimbo.campaign('Keys')
    const [a, b] = [
      await flimbo.code(campaign.id, { key: 'K1' }),
      await flimbo.code(campaign.id, { key: 'K2' }),
    ]
    expect((await change({ changes: [{ id: b.id, set: { key: 'K1' } }] })).refused[0]?.sentence).toContain(
      'has the key “K1” already',
    )
    expect(
      (
        await change({
          changes: [
            { id: a.id, set: { extra: { region: 'north & west' } } },
            { id: b.id, set: { medium: 'sky' } },
          ],
        })
      ).refused[0]?.sentence,
    ).toContain('not among the media of the house')
    expect(await locationOf(a.slug)).toContain('&region=north+%26+west#today')
    expect(
      (
        await flimbo.refused('POST', '/api/codes', {
          campaignId: campaign.id,
          name: 'C',
          medium: 'sky',
          source: 's',
          destination: 'https://saltmarsh.example',
        })
      ).fields?.[0]?.path,
    ).toBe('medium')
  })
})

describe('what the linter finds in a plan', () => {
  it('is counted, filtered by, and fixed for a whole column', async () => {
    const campaign = await flimbo.campaign('Slips', 'slips-26')
    for (const [name, source] of [
      ['A', 'bus-back'],
      ['B', 'bus-back'],
      ['C', 'Bus Back'],
      ['D', 'busback'],
    ] as const)
      await flimbo.code(campaign.id, { name, source, content: name.toLowerCase() })
    const review = async () =>
      (await flimbo.ask<Review>('GET', `/api/campaigns/${String(campaign.id)}/review`)).body
    expect(
      (await review()).kinds.map(({ kind, field, pieces, fixable }) => [kind, field, pieces, fixable]),
    ).toEqual([
      ['look-alike', 'source', 2, 2],
      ['letter-case', 'source', 1, 1],
      ['spaces', 'source', 1, 1],
    ])
    expect(
      (await plan(campaign, '&finding=look-alike&sort=name')).map(({ name, findings }) => [
        name,
        findings[0]?.fix,
      ]),
    ).toEqual([
      ['C', 'bus-back'],
      ['D', 'bus-back'],
    ])
    const fixed = await change({
      matching: { campaignId: campaign.id },
      fix: { kind: 'look-alike', field: 'source' },
    })
    expect(fixed.changed).toBe(2)
    expect(await review()).toMatchObject({ pieces: 4, kinds: [], unassigned: 0 })
    await change({ changes: fixed.undo })
    expect((await review()).kinds).toHaveLength(3)
  })

  it('tells which channel each piece falls in, and results can be read by it', async () => {
    const campaign = await flimbo.campaign('Channels', 'channels-26')
    const [print, screen] = [
      await flimbo.code(campaign.id, { slug: 'ch-print' }),
      await flimbo.code(campaign.id, { slug: 'ch-screen', medium: 'screen' }),
    ]
    for (const slug of ['ch-print', 'ch-print', 'ch-screen']) await flimbo.scan(`/${slug}`)
    expect([(await one(print.id)).channel, (await one(screen.id)).channel]).toEqual([
      'Offline print',
      'Offline screen',
    ])
    const byChannel = async (filters = {}) => {
      const { body } = await flimbo.ask<Answers>('POST', '/api/figures', {
        campaignId: campaign.id,
        from: '2020-01-01',
        to: '2099-12-31',
        questions: [{ by: ['channel'], filters }],
      })
      return body.answers[0]?.rows.map(({ keys, scans }) => [keys[0], scans])
    }
    expect(await byChannel()).toEqual([
      ['Offline print', 2],
      ['Offline screen', 1],
    ])
    expect(await byChannel({ channel: ['Offline screen'] })).toEqual([['Offline screen', 1]])
    expect(
      (
        await flimbo.ask<Page<unknown>>(
          'GET',
          `/api/scans?campaignId=${String(campaign.id)}&from=2020-01-01&to=2099-12-31&filters=${encodeURIComponent('{"channel":["Offline print"]}')}`,
        )
      ).body.total,
    ).toBe(2)
    const { body: stored } = await flimbo.ask<{ version: number }>('GET', '/api/channels')
    await flimbo.ask('PATCH', '/api/channels', {
      version: stored.version,
      value: [{ channel: 'Walls', when: [{ field: 'medium', test: 'is', values: ['print'] }] }],
    })
    expect((await byChannel())?.map(([key]) => key)).toEqual(['Walls', ''])
    expect((await plan(campaign, '&channel=-')).map(({ id }) => id)).toEqual([screen.id])
    expect(
      (await flimbo.refused('PATCH', '/api/channels', { version: stored.version, value: [] })).status,
    ).toBe(409)
  })
})

describe('series, copies, moves', () => {
  it('issues a numbered series on one route', async () => {
    const campaign = await flimbo.campaign('Series')
    const { body } = await flimbo.ask<{ ids: number[] }>('POST', '/api/codes/series', {
      piece: {
        campaignId: campaign.id,
        name: 'Table card {n}',
        medium: 'print',
        source: 'table-card',
        content: 'card-{n}',
        slug: 'CARD-{n}',
        destination: 'https://saltmarsh.example/menu',
      },
      numbers: { from: 1, to: 120, digits: 3 },
    })
    const rows = await plan(campaign, '&sort=name')
    expect([
      body.ids.length,
      new Set(rows.map(({ routeId }) => routeId)).size,
      rows[0]?.routeName,
      rows[0]?.routeCodes,
      rows[119]?.name,
    ]).toEqual([120, 1, 'Table card', 120, 'Table card 120'])
    expect(await locationOf('card-077')).toContain('utm_content=card-077')
  })

  it('duplicates pieces under new short links', async () => {
    const campaign = await flimbo.campaign('Copies')
    const code = await flimbo.code(campaign.id, { key: 'K', printRun: 500 })
    await flimbo.ask('POST', '/api/codes/copies', { ids: [code.id] })
    const copy = (await plan(campaign)).find(({ id }) => id !== code.id)
    expect(copy).toMatchObject({
      name: `${code.name} (copy)`,
      printRun: 500,
      routeId: code.routeId,
      key: '',
      scans: { scans: 0 },
    })
    expect(copy?.slug).not.toBe(code.slug)
  })

  it('moves a piece with its scans: with its own route, a copy of a shared one, or onto another', async () => {
    const [from, to] = [await flimbo.campaign('From', 'from-26'), await flimbo.campaign('To', 'to-26')]
    const own = await flimbo.code(from.id, { slug: 'mv-own' })
    const shared = await flimbo.code(from.id, { slug: 'mv-shared' })
    await flimbo.code(from.id, { routeId: shared.routeId })
    const there = await flimbo.code(to.id)
    await flimbo.scan('/mv-own')
    await flimbo.ask('POST', '/api/codes/moves', {
      ids: [own.id, shared.id],
      campaignId: to.id,
      routeId: null,
    })
    expect([await one(own.id), await one(shared.id)]).toMatchObject([
      { campaignId: to.id, routeId: own.routeId, scans: { scans: 1 } },
      { campaignId: to.id, routeName: shared.routeName, routeCodes: 1 },
    ])
    expect((await one(shared.id)).routeId).not.toBe(shared.routeId)
    expect(await locationOf('mv-own')).toContain('utm_campaign=to-26')
    expect(
      (
        await flimbo.ask<ResultsSummary>(
          'GET',
          `/api/results?campaignId=${String(to.id)}&from=2026-01-01&to=2026-01-01`,
        )
      ).body.ever.scans,
    ).toBe(2)
    await flimbo.ask('POST', '/api/codes/moves', {
      ids: [shared.id],
      campaignId: to.id,
      routeId: there.routeId,
    })
    expect((await one(shared.id)).routeCodes).toBe(2)
    expect(
      (
        await flimbo.refused('POST', '/api/codes/moves', {
          ids: [own.id],
          campaignId: from.id,
          routeId: there.routeId,
        })
      ).fields?.[0]?.path,
    ).toBe('routeId')
  })

  it('duplicates a campaign as next year’s plan', async () => {
    const campaign = await flimbo.campaign('Fair 2026', 'fair-26')
    const code = await flimbo.code(campaign.id, { slug: 'fair', liveOn: '2026-02-28', key: 'F1' })
    await flimbo.code(campaign.id, { routeId: code.routeId })
    const old = await flimbo.code(campaign.id)
    await change({ changes: [{ id: old.id, set: { archived: true } }] })
    const { body: copy } = await flimbo.ask<Campaign>(
      'POST',
      `/api/campaigns/${String(campaign.id)}/copies`,
      { name: 'Fair 2027', utmCampaign: 'fair-27', startsOn: null, endsOn: null, pieceDays: 'shift' },
    )
    const rows = await plan(copy)
    expect([copy.codes, copy.routes, rows.map(({ liveOn, key }) => [liveOn, key])]).toEqual([
      2,
      1,
      [
        ['2027-02-28', 'F1'],
        [null, ''],
      ],
    ])
    expect(rows[0]?.routeId).not.toBe(code.routeId)
    expect(await locationOf(rows[0]?.slug ?? '')).toContain('utm_campaign=fair-27')
  })

  it('groups, pins and puts away', async () => {
    const campaign = await flimbo.campaign('Order')
    for (const [name, medium, printRun] of [
      ['B', 'screen', 5],
      ['A', 'print', 7],
      ['C', 'print', null],
    ] as const)
      await flimbo.code(campaign.id, { name, medium, printRun })
    expect((await plan(campaign, '&group=medium&sort=name&order=desc')).map(({ name }) => name)).toEqual([
      'C',
      'A',
      'B',
    ])
    expect((await plan(campaign, '&sort=printRun&order=desc')).map(({ name }) => name)).toEqual([
      'A',
      'B',
      'C',
    ])
    expect(
      (
        await flimbo.ask<{ rows: CodeGroup[] }>(
          'GET',
          `/api/code-groups?campaignId=${String(campaign.id)}&by=medium`,
        )
      ).body.rows,
    ).toEqual([
      { key: 'print', pieces: 2, scans: 0, printRun: 7, cost: 0 },
      { key: 'screen', pieces: 1, scans: 0, printRun: 5, cost: 0 },
    ])
    const patch = (body: object) =>
      flimbo.ask<Campaign>('PATCH', `/api/campaigns/${String(campaign.id)}`, body)
    await patch({ version: 1, pinned: true })
    const names = async (shown = 'current') =>
      (await flimbo.ask<Page<Campaign>>('GET', `/api/campaigns?sort=name&shown=${shown}`)).body.rows.map(
        ({ name }) => name,
      )
    expect((await names())[0]).toBe('Order')
    await patch({ version: 2, archived: true })
    expect([(await names()).includes('Order'), await names('archived')]).toEqual([false, ['Order']])
  })
})
