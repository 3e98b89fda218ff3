import { tagPairs, utmOf } from '@flimbo/core/tagging'
import { checkSentence, isFailure, judge, type Check } from '@flimbo/core/checks'
import { In, MoreThanOrEqual } from 'typeorm'
import { finalAddress } from '@flimbo/core/routing'
import {
  insertedId,
  tables,
  type CampaignRow,
  type CheckRow,
  type CodeRow,
  type Database,
  type JobRow,
  type RouteRow,
} from '../database/index.ts'
import { JobCancelled, type JobContext, type JobResult, type Jobs } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Reach } from '../reach/index.ts'
import { follow } from './follow.ts'

/** So many destinations are followed at once. */
const AT_ONCE = 8
/** Screens are told of progress at most this often. */
const TOLD_MS = 2000
/** A route without a piece has nothing but the campaign's value. */
const UNTAGGED = { source: '', medium: '', term: '', content: '' }
const KEPT_MS = 90 * 24 * 60 * 60_000

/** A stored check with its sentence. */
export function checkView(row: CheckRow): Check {
  const { own: _own, ...rest } = row
  return { ...rest, sentence: checkSentence(row) }
}

/** What a placeholder is filled with when nobody scans. */
const SAMPLE_SCAN = { country: 'DE', language: 'de' } as const

/** One destination to be followed. */
interface ToCheck {
  readonly route: RouteRow
  readonly campaign: CampaignRow
  readonly code: CodeRow | null
  readonly own: boolean
}

/** Follows destinations and keeps what came of it. */
export function destinationChecker({
  database,
  live,
  reach,
  jobs,
}: {
  database: Database
  live: LiveHub
  reach: Reach
  jobs: Jobs
}) {
  /** Follows a route with the tags of one of its pieces; or the piece's own destination, where it has one and that is meant. */
  async function check({ route, campaign, code, own }: ToCheck): Promise<Check> {
    const isOwn = own && code !== null && code.otherwise !== ''
    const utm = utmOf(code ?? UNTAGGED, campaign.utmCampaign)
    // Placeholders are filled as some scan would fill them: no site has a page called {country}.
    const sample = { ...SAMPLE_SCAN, code: code?.slug ?? '', content: code?.content ?? '' }
    const tagged = finalAddress(isOwn ? code.otherwise : route.destination, utm, code?.extra, sample)
    if (!tagged) throw new Error(`The destination of route ${String(route.id)} is no address`)
    const { address } = tagged
    const { hops, ending, ms } = await follow(address, reach)
    const { verdict, status, lost } = judge(hops, ending, tagPairs(utm, code?.extra))
    return database.write(async (manager) => {
      const before = await manager.findOne(tables.checks, {
        where: isOwn ? { codeId: code.id, own: true } : { routeId: route.id, own: false },
        order: { id: 'desc' },
      })
      const at = Date.now()
      const row = {
        routeId: route.id,
        codeId: code?.id ?? null,
        own: isOwn,
        address,
        at,
        ms,
        verdict,
        status,
        hops,
        lost,
        failingSince: isFailure(verdict) ? (before?.failingSince ?? at) : null,
      }
      return checkView({ ...row, id: insertedId(await manager.insert(tables.checks, row)) })
    })
  }

  /** The piece whose tags a route is checked with: the oldest that is in use. */
  function sample(routeId: number): Promise<CodeRow | null> {
    return database.read
      .createQueryBuilder(tables.codes, 'c')
      .where("c.routeId = :routeId AND c.state = 'live' AND c.archivedAt IS NULL", { routeId })
      .orderBy('c.id')
      .limit(1)
      .getOne()
  }

  async function liveRoutes(
    workspaceId: number,
    campaignId: number | undefined,
  ): Promise<{ route: RouteRow; campaign: CampaignRow }[]> {
    const campaigns = (await database.read.findBy(tables.campaigns, { workspaceId })).filter(
      ({ id, archivedAt }) => (campaignId === undefined ? archivedAt === null : id === campaignId),
    )
    const routes = await Promise.all(
      campaigns.map(async (campaign) =>
        (await database.read.findBy(tables.routes, { campaignId: campaign.id, state: 'live' })).map(
          (route) => ({ route, campaign }),
        ),
      ),
    )
    return routes.flat()
  }

  /** Everything a run follows: each live route, and each live piece that has a destination of its own. */
  async function everything(workspaceId: number, campaignId: number | undefined): Promise<ToCheck[]> {
    const routes = await liveRoutes(workspaceId, campaignId)
    const byId = new Map(routes.map((each) => [each.route.id, each]))
    const pieces = await database.read
      .createQueryBuilder(tables.codes, 'c')
      .where({ campaignId: In([...new Set(routes.map(({ campaign }) => campaign.id))]) })
      .andWhere("c.otherwise <> '' AND c.state = 'live' AND c.archivedAt IS NULL")
      .orderBy('c.id')
      .getMany()
    const own = pieces.flatMap((code): ToCheck[] => {
      const on = byId.get(code.routeId)
      return on ? [{ ...on, code, own: true }] : []
    })
    return [...routes.map((each): ToCheck => ({ ...each, code: null, own: false })), ...own]
  }

  /** The same with the piece whose tags it is followed with, where none was named. */
  const tagged = async (given: ToCheck): Promise<ToCheck> => ({
    ...given,
    code: given.code ?? (await sample(given.route.id)),
  })

  /** What a check of everything had followed already when it was interrupted. */
  async function followedSince({ createdAt, attempts }: JobRow): Promise<(given: ToCheck) => boolean> {
    if (attempts <= 1) return () => false
    const since = await database.read.findBy(tables.checks, { at: MoreThanOrEqual(createdAt) })
    const followed = new Set(since.map(({ routeId, codeId, own }) => keyOf(routeId, own ? codeId : null)))
    return ({ route, code, own }) => followed.has(keyOf(route.id, own ? (code?.id ?? null) : null))
  }
  const keyOf = (routeId: number, codeId: number | null) => `${String(routeId)}/${String(codeId)}`

  async function run(job: JobRow, { progress, signal }: JobContext): Promise<JobResult> {
    const { campaignId, workspaceId } = job
    const isFollowed = await followedSince(job)
    const queue = (await everything(workspaceId, campaignId ?? undefined)).filter((each) => !isFollowed(each))
    const total = queue.length
    let [done, bad, told] = [0, 0, Date.now()]
    progress(0, total)
    async function one(): Promise<void> {
      for (let next = queue.shift(); next && !signal.aborted; next = queue.shift()) {
        // A route whose check itself fails must not end the run; it is left as it was.
        const result = await tagged(next)
          .then(check)
          .catch(() => null)
        done++
        if (result && result.verdict !== 'fine') bad++
        if (!signal.aborted) progress(done, total)
        if (Date.now() - told > TOLD_MS) {
          told = Date.now()
          live.tell(workspaceId, { type: 'change', of: 'route', id: next.route.id })
        }
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, one))
    live.tell(workspaceId, { type: 'change', of: 'route', id: 0 })
    const checked = `${String(done)} of ${String(total)} ${total === 1 ? 'destination' : 'destinations'} checked`
    if (signal.aborted) throw new JobCancelled(`Cancelled: ${checked}.`)
    return { sentence: `${checked}; ${bad === 0 ? 'all are fine' : `${String(bad)} not as they should be`}.` }
  }
  jobs.define({ kind: 'destination-check', atOnce: 1, tries: 3, run })

  return {
    check,
    sample,
    /** Begins checking every live route; a check of the same that is under way goes on instead. */
    async begin(workspaceId: number, campaign: CampaignRow | null, personId: number | null): Promise<JobRow> {
      const campaignId = campaign?.id ?? null
      const there = await jobs.active(workspaceId, 'destination-check')
      const same = there.find((each) => each.campaignId === campaignId)
      if (same) return same
      const title = campaign ? `Check of all destinations of ${campaign.name}` : 'Check of all destinations'
      return jobs.add({ kind: 'destination-check', workspaceId, personId, campaignId, title, payload: {} })
    },
    /** Forgets checks that are older than three months. */
    async tidy(): Promise<void> {
      await database.write((manager) =>
        manager
          .createQueryBuilder()
          .delete()
          .from(tables.checks)
          .where('at < :before', { before: Date.now() - KEPT_MS })
          .execute(),
      )
    },
  }
}
export type DestinationChecker = ReturnType<typeof destinationChecker>
