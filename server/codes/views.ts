import { utmOf } from '@flimbo/core/tagging'
import { In } from 'typeorm'
import { shortLink, type Code } from '@flimbo/core/codes'
import { checkSentence } from '@flimbo/core/checks'
import { finalAddress } from '@flimbo/core/routing'
import { tables, type CheckRow, type CodeRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { type Reader } from '../reader/index.ts'
import { tallyOf } from '../results/index.ts'
import { styleNames } from '../houseStyles/index.ts'
import { printStatesOf } from '../print/index.ts'
import { codesOnRoutes } from '../routing/index.ts'
import { taggedPiece, type Tagging } from '../tagging/index.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly domains: Domains
  readonly tagging: Tagging
}

function grouped<T, K>(rows: readonly T[], keyOf: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>()
  for (const row of rows) groups.set(keyOf(row), [...(groups.get(keyOf(row)) ?? []), row])
  return groups
}

/** Where a piece stands and what its tags make of its destination. */
function addressed(row: CodeRow, destination: string, utmCampaign: string) {
  const leads = row.otherwise === '' ? destination : row.otherwise
  const tagged = finalAddress(leads, utmOf(row, utmCampaign), row.extra)
  return tagged
    ? { finalAddress: tagged.address, clashes: [...tagged.clashes] }
    : { finalAddress: '', clashes: [] }
}

/** Shows rows as the API does, in the same order: with their route, links, final address, findings, newest check and counts. */
export function codeViewer({ database, reader, domains, tagging }: Parts) {
  const { read } = database

  async function routesOf(rows: readonly CodeRow[]) {
    const ids = [...new Set(rows.map((row) => row.routeId))]
    return {
      routes: new Map((await read.findBy(tables.routes, { id: In(ids) })).map((route) => [route.id, route])),
      shared: await codesOnRoutes(read, ids),
    }
  }

  /** The newest check of each piece, or else of its route. */
  async function checksOf(rows: readonly CodeRow[]): Promise<(row: CodeRow) => Code['check']> {
    const newest = await read
      .createQueryBuilder()
      .select('max(k.id)', 'id')
      .from(tables.checks, 'k')
      .where('k.routeId IN (:...ids)', { ids: [0, ...new Set(rows.map((row) => row.routeId))] })
      .groupBy('k.routeId')
      .addGroupBy('k.codeId')
      .addGroupBy('k.own')
      .getRawMany<{ id: number }>()
    const byRoute = grouped<CheckRow, number>(
      await read.find(tables.checks, {
        where: { id: In(newest.map(({ id }) => id)) },
        order: { id: 'desc' },
      }),
      ({ routeId }) => routeId,
    )
    return (row) => {
      const isOwn = row.otherwise !== ''
      const ofRoute = (byRoute.get(row.routeId) ?? []).filter(({ own, codeId }) =>
        isOwn ? own && codeId === row.id : !own,
      )
      const check = ofRoute.find(({ codeId }) => codeId === row.id) ?? ofRoute[0]
      return check
        ? {
            verdict: check.verdict,
            at: check.at,
            failingSince: check.failingSince,
            sentence: checkSentence(check),
          }
        : null
    }
  }

  return async (rows: readonly CodeRow[]): Promise<Code[]> => {
    if (rows.length === 0) return []
    const ids = rows.map(({ id }) => id)
    const campaigns = new Map(
      (await read.findBy(tables.campaigns, { id: In([...new Set(rows.map((row) => row.campaignId))]) })).map(
        (campaign) => [campaign.id, campaign],
      ),
    )
    const lookers = new Map(
      await Promise.all(
        [...campaigns].map(async ([id, campaign]) => [id, await tagging.lookerOf(campaign)] as const),
      ),
    )
    const [{ routes, shared }, links, checkOf, tallies, styles, printOf] = await Promise.all([
      routesOf(rows),
      read.find(tables.shortLinks, { where: { codeId: In(ids) }, order: { since: 'asc' } }),
      checksOf(rows),
      reader.ask('tallies', 'code', { codes: ids }),
      styleNames(read, rows),
      printStatesOf({ database, domains }, rows),
    ])
    const linksOf = grouped(links, ({ codeId }) => codeId)

    return rows.map((row): Code => {
      const [route, campaign, look] = [
        routes.get(row.routeId),
        campaigns.get(row.campaignId),
        lookers.get(row.campaignId),
      ]
      if (!route || !campaign || !look) throw new Error(`Code ${String(row.id)} has no route or no campaign`)
      const old = (linksOf.get(row.id) ?? []).filter(
        ({ domainId, slug }) => domainId !== row.domainId || slug !== row.slug,
      )
      return {
        ...row,
        routeName: route.name,
        routeVersion: route.version,
        routeState: route.state,
        routeCodes: shared.get(row.routeId) ?? 0,
        origin: domains.origin(row.domainId),
        shortLink: shortLink(domains.origin(row.domainId), row.slug),
        oldLinks: old.map(({ domainId, slug }) => shortLink(domains.origin(domainId), slug)),
        destination: route.destination,
        ...addressed(row, route.destination, campaign.utmCampaign),
        campaign: campaign.utmCampaign,
        print: printOf(row),
        styleName: styles.get(row.styleId) ?? '',
        scans: tallyOf(tallies, row.id),
        ...look(taggedPiece(row, route, campaign.utmCampaign)),
        check: checkOf(row),
      }
    })
  }
}
export type CodeViewer = ReturnType<typeof codeViewer>
