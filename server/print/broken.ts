import type { BrokenRelease } from '@flimbo/core/print'
import type { Database } from '../database/index.ts'
import { tables } from '../database/index.ts'

const SHOWN_MAX = 200

/** Released pieces whose printed link leads nobody on: their number, and the first of them. */
export async function brokenReleases(
  { read }: Pick<Database, 'read'>,
  workspaceId: number,
): Promise<{ rows: BrokenRelease[]; total: number }> {
  const found = await read
    .createQueryBuilder(tables.releases, 'p')
    .innerJoin(tables.codes.options.name, 'c', 'c.id = p.codeId')
    .innerJoin(tables.routes.options.name, 'r', 'r.id = c.routeId')
    .innerJoin(tables.campaigns.options.name, 'm', 'm.id = c.campaignId')
    .leftJoin(tables.domains.options.name, 'd', 'd.id = p.domainId')
    .leftJoin(tables.shortLinks.options.name, 's', 's.domainId = p.domainId AND s.slug = p.slug')
    .select('p.codeId', 'codeId')
    .addSelect('c.campaignId', 'campaignId')
    .addSelect('m.name', 'campaignName')
    .addSelect('max(p.name)', 'name')
    .addSelect('p.link', 'link')
    .addSelect('c.state', 'codeState')
    .addSelect('r.state', 'routeState')
    .addSelect('r.name', 'routeName')
    .addSelect('d.state', 'domainState')
    .addSelect('s.codeId', 'holder')
    .where('p.workspaceId = :workspaceId', { workspaceId })
    .andWhere(
      "(c.state <> 'live' OR r.state <> 'live' OR (d.id <> 1 AND d.state <> 'ready') OR s.codeId IS NULL OR s.codeId <> p.codeId)",
    )
    .groupBy('p.codeId')
    .addGroupBy('p.link')
    .orderBy('p.codeId')
    .getRawMany<Found>()
  return {
    total: found.length,
    rows: found.slice(0, SHOWN_MAX).map(({ codeId, campaignId, campaignName, name, link, ...rest }) => ({
      codeId,
      campaignId,
      campaignName,
      name,
      link,
      why: whyOf(rest),
    })),
  }
}

interface Found extends Omit<BrokenRelease, 'why'> {
  readonly codeState: string
  readonly routeState: string
  readonly routeName: string
  readonly domainState: string
  readonly holder: number | null
}

function whyOf({
  codeState,
  routeState,
  routeName,
  domainState,
  holder,
}: Omit<Found, keyof BrokenRelease>): string {
  if (holder === null) return 'Its short link is not there any more.'
  if (domainState !== 'ready') return 'The domain it was printed with was removed.'
  if (codeState !== 'live') return `The piece is ${codeState}.`
  if (routeState !== 'live') return `Its route “${routeName}” is ${routeState}.`
  return 'Its short link leads to another piece.'
}
