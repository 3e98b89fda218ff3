import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { decide, plainArrival } from '@flimbo/core/routing'
import { openDatabase, tables, type Database } from '../database/index.ts'
import { setUpWorkspace } from '../workspace/index.ts'
import { OWNER } from '../tests/running.ts'
import { DEFAULT_PIECE } from '@flimbo/core/codes'
import { DEFAULT_RULES } from '@flimbo/core/tagging'
import { NO_TAGS } from '@flimbo/core/visitTags'
import { changeCodes, issueCodes } from '../codes/index.ts'
import { changeRoute, insertRoute, limits, lookup, type Lookup } from './index.ts'

let directory: string
let database: Database
let find: Lookup
const by = { personId: 1, at: 1 }

beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-lookup-'))
  database = await openDatabase(join(directory, 'flimbo.sqlite'))
  await setUpWorkspace(database, OWNER)
  await database.write(async (manager) => {
    await manager.insert(tables.campaigns, {
      workspaceId: 1,
      clientId: 1,
      name: 'A',
      zone: 'UTC',
      utmCampaign: 'a',
      startsOn: null,
      endsOn: null,
      version: 1,
      createdAt: 0,
    })
    await insertRoute(
      manager,
      { campaignId: 1, name: 'A', destination: 'https://saltmarsh.example/one', note: '' },
      by,
    )
    await issueCodes(
      manager,
      [
        {
          ...DEFAULT_PIECE,
          campaignId: 1,
          domainId: 1,
          route: 1,
          slug: 'PIER',
          name: 'A',
          medium: 'print',
          source: 's',
          state: 'live',
        },
      ],
      by,
      6,
    )
  })
  find = lookup(database, limits({ countOf: () => null, isMarked: () => false }), () =>
    Promise.resolve(NO_TAGS),
  )
})
afterEach(async () => {
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

const leadTo = (page: string, version: number) =>
  database.write((manager) =>
    changeRoute(manager, 1, version, { destination: `https://saltmarsh.example/${page}` }, by),
  )
const address = async () => {
  const posting = await find.find(1, 'pier')
  const decision = posting && decide(posting.compiled, plainArrival(0))
  return decision?.kind === 'redirect' ? new URL(decision.address).pathname : null
}

describe('looking a short link up', () => {
  it('asks the database once and knows it from then on', async () => {
    expect(find.known(1, 'PIER')).toBeUndefined()
    expect(await address()).toBe('/one')
    expect(find.known(1, 'PIER')).toMatchObject({
      codeId: 1,
      routeId: 1,
      campaignId: 1,
      workspaceId: 1,
      workspaceZone: 'Europe/Berlin',
      revisionId: 1,
    })
  })

  it('sees a change once it is told to forget, and names the new revision', async () => {
    await address()
    await leadTo('two', 1)
    find.forgetRoutes(new Set([1]))
    expect(await address()).toBe('/two')
    expect(find.known(1, 'PIER')?.revisionId).toBe(3)
  })

  it('does not keep what was read before a change and arrived after it', async () => {
    const early = find.find(1, 'PIER')
    await leadTo('two', 1)
    find.forgetRoutes(new Set([1]))
    await early
    expect(await address()).toBe('/two')
  })

  it('remembers what does not exist, until it does', async () => {
    expect([await find.find(1, 'NOTHING'), find.known(1, 'NOTHING')]).toEqual([null, null])
    find.forget([{ domainId: 1, slug: 'NOTHING' }])
    expect(find.known(1, 'NOTHING')).toBeUndefined()
  })

  it('keeps the same slug of two domains apart, and the old slug of a renamed code alive', async () => {
    await database.write(async (manager) => {
      const host = {
        workspaceId: 1,
        state: 'ready' as const,
        token: '',
        home: '',
        unknown: '',
        unknownText: '',
        checkedAt: null,
        finding: '',
        version: 1,
        createdAt: 0,
      }
      await manager.insert(tables.domains, { ...host, host: 'qr.saltmarsh.example' })
      await issueCodes(
        manager,
        [
          {
            ...DEFAULT_PIECE,
            campaignId: 1,
            domainId: 2,
            route: 1,
            slug: 'PIER',
            name: 'B',
            medium: 'print',
            source: 's',
            state: 'live',
          },
        ],
        by,
        6,
      )
      await changeCodes(
        manager,
        { workspaceId: 1, rules: DEFAULT_RULES, destinationFault: () => null },
        [{ id: 1, set: { slug: 'JETTY' } }],
        by,
      )
    })
    const found = await Promise.all([
      find.find(1, 'PIER'),
      find.find(1, 'JETTY'),
      find.find(2, 'PIER'),
      find.find(2, 'JETTY'),
    ])
    expect(found.map((posting) => posting?.codeId ?? null)).toEqual([1, 1, 2, null])
  })

  it.each(['', '-', 'A B', 'A%00', 'Ä', 'x'.repeat(200), "' OR 1=1 --"])(
    'takes %j for no short link, and remembers none of it',
    async (slug) => {
      expect(await find.find(1, slug)).toBeNull()
      expect(find.known(1, slug)).toBeUndefined()
    },
  )
})

describe('a write that fails half way', () => {
  it('leaves nothing behind, and the next one works', async () => {
    await expect(
      database.write(async (manager) => {
        await manager.update(tables.routes, { id: 1 }, { name: 'half' })
        throw new Error('stop')
      }),
    ).rejects.toThrow('stop')
    expect((await database.read.findOneByOrFail(tables.routes, { id: 1 })).name).toBe('A')
    expect(await leadTo('two', 1)).toBe('changed')
  })

  it('is not seen by readers before it is committed', async () => {
    await database.write(async (manager) => {
      await manager.update(tables.routes, { id: 1 }, { name: 'not yet' })
      expect((await database.read.findOneByOrFail(tables.routes, { id: 1 })).name).toBe('A')
    })
    expect((await database.read.findOneByOrFail(tables.routes, { id: 1 })).name).toBe('not yet')
  })
})
