import { dayIn, openSpanOfDays } from '@flimbo/core/time'
import { scansApi, type Scope } from '@flimbo/core/scans'
import { attach, mount, wrongField, writeTo, type Mounts } from '../api/index.ts'
import type { CampaignRow } from '../database/index.ts'
import { type Reader } from '../reader/index.ts'
import { withinChannel, type Channels, type ScanFilter } from '../results/index.ts'
import type { Config } from '../config/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import { cityFinder } from './cities.ts'
import type { RowFiles } from './csvParts.ts'
import type { LiveHub } from './live.ts'

interface Parts {
  readonly reader: Reader
  readonly live: LiveHub
  readonly tagging: Channels
  readonly config: Pick<Config, 'dataDir'>
  readonly exporter: Exporter
  readonly jobView: JobViewer
  readonly rowFiles: RowFiles
}

const CSV = 'text/csv; charset=utf-8; header=present'
const PLACES_MAX = 20

/** A screen that is so far behind is not there any more. */
const BEHIND_BYTES = 1 << 20
/** Proxies close streams that stay silent; a comment line now and then keeps them open. */
const HEARTBEAT_MS = 25_000

/** The endpoints of scans, as `core`’s contract describes them. */
export function scansEndpoints(
  mounts: Mounts,
  { reader, live, tagging, config, exporter, jobView, rowFiles }: Parts,
): void {
  const cities = cityFinder(config.dataDir)
  mount(mounts, scansApi.places, async ({ query: { q, kind } }) => ({
    rows: (await cities.find(q, kind, PLACES_MAX)).map(({ addresses: _addresses, ...city }) => city),
  }))

  async function filterOf(
    { zone, utmCampaign, workspaceId }: CampaignRow,
    query: Scope & {
      from?: string | undefined
      to?: string | undefined
      counted: ScanFilter['counted']
      exit?: string | undefined
    },
  ): Promise<ScanFilter> {
    if (query.exit !== undefined && query.routeId === undefined)
      throw wrongField('exit', 'A lane belongs to a route: name the route too.')
    const within = await withinChannel(reader, query, utmCampaign, await tagging.channelsOf(workspaceId))
    const exit =
      query.exit === undefined || query.routeId === undefined
        ? undefined
        : { routeId: query.routeId, name: query.exit }
    return {
      exit,
      within,
      ...openSpanOfDays(zone, query.from, query.to ?? dayIn(zone, Date.now())),
      counted: query.counted,
    }
  }

  mount(mounts, scansApi.list, async ({ query, campaign }) => {
    const { page, pageSize, order } = query
    const found = await reader.ask(
      'scansPage',
      await filterOf(campaign, query),
      order,
      pageSize,
      page * pageSize,
    )
    return { ...found, page, pageSize }
  })

  mount(mounts, scansApi.csv, async ({ query, campaign, response }) => {
    const filter = await filterOf(campaign, query)
    attach(response, CSV, 'scans.csv')
    for await (const part of rowFiles.parts({ of: 'scans', filter })) {
      await writeTo(response, part)
      if (response.destroyed) return undefined
    }
    response.end()
    return undefined
  })

  exporter.define<ScanFilter>({
    what: 'scans.csv',
    type: CSV,
    // It was a filter when it was stored.
    read: (stored) => stored as ScanFilter,
    nameOf: () => Promise.resolve('scans.csv'),
    async write(out, filter, advance) {
      for await (const part of rowFiles.parts({ of: 'scans', filter })) {
        advance(0, 0)
        await writeTo(out, part)
      }
    },
  })
  mount(mounts, scansApi.makeFile, async ({ body, who, campaign }) => {
    const job = await exporter.order('scans.csv', await filterOf(campaign, body), {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign.id,
      title: `Scans as CSV: ${campaign.name}`,
    })
    return jobView.one(job, who)
  })

  mount(mounts, scansApi.pulse, async ({ who }) => {
    const minutes = await reader.ask('pulse', who.workspace.id, Math.floor(Date.now() / 60_000))
    return { minutes, total: minutes.reduce((sum, n) => sum + n, 0) }
  })

  mount(mounts, scansApi.events, ({ who, request, response }) => {
    response.set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    })
    response.flushHeaders()
    response.write('retry: 2000\n\n')
    const forget = live.open({
      workspaceId: who.workspace.id,
      session: who.session,
      send(text) {
        if (response.writableLength > BEHIND_BYTES) response.destroy()
        else response.write(text)
      },
      end() {
        response.end()
      },
    })
    const heartbeat = setInterval(() => {
      if (Date.now() >= who.expiresAt) response.end()
      else response.write(': still here\n\n')
    }, HEARTBEAT_MS)
    request.on('close', () => {
      forget()
      clearInterval(heartbeat)
    })
    return undefined
  })
}
