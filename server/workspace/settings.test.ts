import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { DEFAULT_RULES, type HouseRules, type TagValues } from '@flimbo/core/tagging'
import type { WorkspaceSettings } from '@flimbo/core/workspace'
import { runningFlimbo, type Running } from '../tests/running.ts'

interface Versioned<T> {
  value: T
  version: number
}

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

/** Makes the signed-in person somebody else for a while. */
async function as(role: 'admin' | 'editor' | 'viewer', work: () => Promise<void>): Promise<void> {
  const set = (to: string) => {
    const database = new Sqlite(flimbo.file)
    database.prepare('UPDATE people SET role = ?').run(to)
    database.close()
  }
  set(role)
  try {
    await work()
  } finally {
    set('admin')
  }
}

describe('the settings of a workspace', () => {
  it('begin as is usual, and are kept from then on', async () => {
    const { body: first } = await flimbo.ask<Versioned<WorkspaceSettings>>('GET', '/api/settings')
    expect(first).toEqual({ value: { slugLength: 6, currency: 'EUR' }, version: 0 })
    const { body: changed } = await flimbo.ask<Versioned<WorkspaceSettings>>('PATCH', '/api/settings', {
      value: { slugLength: 9, currency: 'dkk' },
      version: 0,
    })
    expect(changed).toEqual({ value: { slugLength: 9, currency: 'DKK' }, version: 1 })
    expect((await flimbo.ask('GET', '/api/settings')).body).toEqual(changed)
  })

  it('say how long a generated short link is', async () => {
    const campaign = await flimbo.campaign()
    expect((await flimbo.code(campaign.id)).slug).toHaveLength(9)
  })

  it('are not overwritten by somebody who saw an older state', async () => {
    const problem = await flimbo.refused('PATCH', '/api/settings', {
      value: { slugLength: 5, currency: 'EUR' },
      version: 0,
    })
    expect(problem).toMatchObject({ status: 409, current: { value: { slugLength: 9 }, version: 1 } })
  })

  it.each([
    [{ slugLength: 3, currency: 'EUR' }, 'value.slugLength'],
    [{ slugLength: 13, currency: 'EUR' }, 'value.slugLength'],
    [{ slugLength: 6, currency: 'euro' }, 'value.currency'],
  ])('refuse %j', async (value, path) => {
    expect((await flimbo.refused('PATCH', '/api/settings', { value, version: 1 })).fields?.[0]?.path).toBe(
      path,
    )
  })
})

describe('house rules', () => {
  const rules = (more: Partial<HouseRules>): HouseRules => ({ ...DEFAULT_RULES, ...more })

  it('are the usual ones until somebody decides', async () => {
    expect((await flimbo.ask('GET', '/api/house-rules')).body).toEqual({ value: DEFAULT_RULES, version: 0 })
  })

  it('are an admin’s to change; others may read them', async () => {
    await as('editor', async () => {
      expect(
        (await flimbo.refused('PATCH', '/api/house-rules', { value: rules({ separator: '_' }), version: 0 }))
          .status,
      ).toBe(403)
      expect((await flimbo.ask('GET', '/api/house-rules')).status).toBe(200)
    })
    await as('viewer', async () => {
      expect((await flimbo.refused('PATCH', '/api/channels', { value: [], version: 0 })).status).toBe(403)
    })
  })

  it('count at once: the next look at a piece goes by them', async () => {
    const campaign = await flimbo.campaign('Rules')
    const { id } = await flimbo.code(campaign.id, { source: 'rule_of-two' })
    const kinds = async () =>
      (await flimbo.ask<Code>('GET', `/api/codes/${String(id)}`)).body.findings.map(({ kind }) => kind)
    expect(await kinds()).toEqual(['separator'])
    await flimbo.ask('PATCH', '/api/house-rules', {
      value: rules({ separator: 'any', required: ['term'] }),
      version: 0,
    })
    expect(await kinds()).toEqual(['missing'])
    await flimbo.ask('PATCH', '/api/house-rules', { value: rules({}), version: 1 })
    expect(await kinds()).toEqual(['separator'])
  })
})

describe('the list of values', () => {
  it('grows as pieces are added, the most carried first, across campaigns', async () => {
    const [one, two] = [
      await flimbo.campaign('Values one', 'values-one'),
      await flimbo.campaign('Values two', 'values-two'),
    ]
    await flimbo.code(one.id, { medium: 'sticker' })
    await flimbo.code(two.id, { medium: 'sticker' })
    await flimbo.code(two.id, { medium: 'balloon' })
    const { body } = await flimbo.ask<TagValues>('GET', '/api/tag-values')
    const media = body.medium.filter(({ value }) => value === 'sticker' || value === 'balloon')
    expect(media).toEqual([
      { value: 'sticker', pieces: 2 },
      { value: 'balloon', pieces: 1 },
    ])
    expect(body.campaign.map(({ value }) => value)).toEqual(
      expect.arrayContaining(['values-one', 'values-two']),
    )
  })

  it('leaves out what was archived', async () => {
    const campaign = await flimbo.campaign('Values three')
    const { id } = await flimbo.code(campaign.id, { medium: 'kite' })
    await flimbo.ask('PATCH', `/api/codes/${String(id)}`, { version: 1, archived: true })
    const { body } = await flimbo.ask<TagValues>('GET', '/api/tag-values')
    expect(body.medium.map(({ value }) => value)).not.toContain('kite')
  })
})

describe('another workspace', () => {
  it('sees none of the plan, its files, its checks or its domains, and changes none of it', async () => {
    const campaign = await flimbo.campaign('Mine')
    const code = await flimbo.code(campaign.id)
    const { body: domain } = await flimbo.ask<{ id: number }>('POST', '/api/domains', {
      host: 'mine.saltmarsh.example',
    })
    const database = new Sqlite(flimbo.file)
    database.exec(
      "INSERT INTO workspaces (name, zone, createdAt) VALUES ('Other', 'UTC', 0); INSERT INTO clients (workspaceId, name, createdAt) VALUES (2, 'Other', 0); UPDATE people SET workspaceId = 2",
    )
    try {
      const of = `campaignId=${String(campaign.id)}`
      for (const path of [
        `/api/plan.csv?${of}`,
        `/api/plan.xlsx?${of}`,
        `/api/links.csv?${of}`,
        `/api/campaigns/${String(campaign.id)}/review`,
        `/api/code-groups?${of}&by=medium`,
        `/api/routes/${String(code.routeId)}/checks`,
      ])
        expect([path, (await flimbo.refused('GET', path)).status]).toEqual([path, 404])
      for (const [method, path, body] of [
        ['POST', `/api/codes/${String(code.id)}/checks`, undefined],
        ['POST', '/api/codes/copies', { ids: [code.id] }],
        ['POST', '/api/codes/changes', { changes: [{ id: code.id, set: { name: 'Stolen' } }] }],
        [
          'POST',
          `/api/campaigns/${String(campaign.id)}/copies`,
          { name: 'X', utmCampaign: 'x', startsOn: null, endsOn: null, pieceDays: 'clear' },
        ],
        ['POST', `/api/domains/${String(domain.id)}/look-ups`, undefined],
        ['DELETE', `/api/domains/${String(domain.id)}?links=0`, undefined],
        ['PATCH', '/api/clients/1', { domainId: null }],
      ] as const)
        expect([path, (await flimbo.refused(method, path, body)).status]).toEqual([path, 404])
      expect((await flimbo.ask<{ rows: unknown[] }>('GET', '/api/domains')).body.rows).toHaveLength(1)
      expect((await flimbo.ask<TagValues>('GET', '/api/tag-values')).body.medium).toEqual([])
    } finally {
      database.exec('UPDATE people SET workspaceId = 1')
      database.close()
    }
    expect((await flimbo.ask<Code>('GET', `/api/codes/${String(code.id)}`)).body.name).toBe(code.name)
  })
})
