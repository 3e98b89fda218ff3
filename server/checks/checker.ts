import { checkSentence, isFailure, judge, type Check, type CheckRun } from '@flimbo/core/checks'
import { In } from 'typeorm'
import { fillPlaceholders, readDestination, tag, tagPairs, utmOf } from '@flimbo/core/routing'
import {
  insertedId,
  tables,
  type CampaignRow,
  type CheckRow,
  type CodeRow,
  type Database,
  type RouteRow,
} from '../database/index.ts'
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

interface Run {
  running: boolean
  done: number
  total: number
  bad: number
  cancelled: boolean
}

/** Follows destinations and keeps what came of it. */
export function destinationChecker({
  database,
  live,
  reach,
}: {
  database: Database
  live: LiveHub
  reach: Reach
}) {
  const runs = new Map<number, Run>()

  /** Follows a route with the tags of one of its pieces; or the piece's own destination, where it has one and that is meant. */
  async function check({ route, campaign, code, own }: ToCheck): Promise<Check> {
    const isOwn = own && code !== null && code.otherwise !== ''
    const reading = readDestination(isOwn ? code.otherwise : route.destination)
    if (!reading.ok) throw new Error(reading.sentence)
    const utm = utmOf(code ?? UNTAGGED, campaign.utmCampaign)
    // Placeholders are filled as some scan would fill them: no site has a page called {country}.
    const filled = fillPlaceholders(reading.url.href, {
      ...SAMPLE_SCAN,
      code: code?.slug ?? '',
      content: code?.content ?? '',
    })
    const { address } = tag(new URL(filled), utm, code?.extra)
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

  async function work(workspaceId: number, run: Run, queue: ToCheck[]): Promise<void> {
    let told = Date.now()
    async function one(): Promise<void> {
      for (let next = queue.shift(); next && !run.cancelled; next = queue.shift()) {
        // A route whose check itself fails must not end the run; it is left as it was.
        const result = await tagged(next)
          .then(check)
          .catch(() => null)
        run.done++
        if (result && result.verdict !== 'fine') run.bad++
        if (Date.now() - told > TOLD_MS) {
          told = Date.now()
          live.tell(workspaceId, { type: 'change', of: 'route', id: next.route.id })
        }
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, one))
    live.tell(workspaceId, { type: 'change', of: 'route', id: 0 })
  }

  const IDLE: Run = { running: false, done: 0, total: 0, bad: 0, cancelled: false }
  const viewOf = ({ running, done, total, bad }: Run): CheckRun => ({ running, done, total, bad })

  return {
    check,
    sample,
    /** Begins checking every live route; a run that is under way goes on instead. */
    async begin(workspaceId: number, campaignId?: number): Promise<CheckRun> {
      const known = runs.get(workspaceId)
      if (known?.running) return viewOf(known)
      const run: Run = { ...IDLE, running: true }
      runs.set(workspaceId, run)
      // However it ends, it has ended: another one may begin.
      const end = () => {
        run.running = false
      }
      try {
        const queue = await everything(workspaceId, campaignId)
        run.total = queue.length
        work(workspaceId, run, queue).then(end, end)
      } catch (error) {
        end()
        throw error
      }
      return viewOf(run)
    },
    run: (workspaceId: number): CheckRun => viewOf(runs.get(workspaceId) ?? IDLE),
    cancel(workspaceId: number): CheckRun {
      const run = runs.get(workspaceId)
      if (run) run.cancelled = true
      return viewOf(run ?? IDLE)
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
