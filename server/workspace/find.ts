import { findApi, type Hit } from '@flimbo/core/workspace'
import { mount, type Mounts } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'

const HITS_MAX = 8

/** Finds things by any part of what they are called; the likeliest kinds first, a few of each. */
export function findEndpoint(mounts: Mounts, { read }: Pick<Database, 'read'>): void {
  mount(mounts, findApi, async ({ query, who }) => {
    const like = `%${query.q.replace(/[\\%_]/g, '\\$&')}%`
    const within = { like, workspaceId: who.workspace.id }
    const matches = (...columns: string[]) =>
      `k.workspaceId = :workspaceId AND (${columns.map((c) => `${c} LIKE :like ESCAPE '\\'`).join(' OR ')})`

    const campaigns = read
      .createQueryBuilder()
      .select([
        "'campaign' AS kind",
        'k.id AS id',
        'k.id AS campaignId',
        'k.name AS name',
        'k.utmCampaign AS detail',
      ])
      .from(tables.campaigns, 'k')
      .where(matches('k.name', 'k.utmCampaign'), within)
    const codes = read
      .createQueryBuilder()
      .select([
        "'code' AS kind",
        'c.id AS id',
        'c.campaignId AS campaignId',
        'c.name AS name',
        "c.slug || ' · ' || c.source AS detail",
      ])
      .from(tables.codes, 'c')
      .innerJoin(tables.campaigns.options.name, 'k', 'k.id = c.campaignId')
      .where(matches('c.name', 'c.slug', 'c.source', 'c.content', 'c.place'), within)
    const routes = read
      .createQueryBuilder()
      .select([
        "'route' AS kind",
        'r.id AS id',
        'r.campaignId AS campaignId',
        'r.name AS name',
        'r.destination AS detail',
      ])
      .from(tables.routes, 'r')
      .innerJoin(tables.campaigns.options.name, 'k', 'k.id = r.campaignId')
      .where(matches('r.name', 'r.destination'), within)

    const pages = read
      .createQueryBuilder()
      .select([
        "'page' AS kind",
        'p.id AS id',
        'p.campaignId AS campaignId',
        'p.name AS name',
        'p.title AS detail',
      ])
      .from(tables.pages, 'p')
      .innerJoin(tables.campaigns.options.name, 'k', 'k.id = p.campaignId')
      .where(matches('p.name', 'p.title'), within)

    const found = await Promise.all(
      [campaigns, codes, routes, pages].map((search) =>
        search.orderBy('name').limit(HITS_MAX).getRawMany<Hit>(),
      ),
    )
    return { hits: found.flat() }
  })
}
