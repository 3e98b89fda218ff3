import { dayIn, openSpanOfDays } from '@flimbo/core/time'
import { ROW_FORMAT_NAMES, ROW_FORMATS, scansApi, type RowFormat, type scanFilter } from '@flimbo/core/scans'
import type { z } from 'zod'
import { attach, mount, wrongField, writeTo, type Mounts } from '../api/index.ts'
import type { CampaignRow } from '../database/index.ts'
import { type Reader } from '../reader/index.ts'
import { withinOf, type Channels, type ScanFilter } from '../results/index.ts'
import type { Config } from '../config/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import { cityFinder } from './cities.ts'
import type { RowFiles } from './rowFiles.ts'
import type { LiveHub } from './live.ts'
import type { SignedIn } from '../workspace/index.ts'

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
/** As they are registered with IANA. */
const FILE_TYPES: Readonly<Record<RowFormat, string>> = {
  csv: CSV,
  arrow: 'application/vnd.apache.arrow.file',
  parquet: 'application/vnd.apache.parquet',
}
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

  type Asked = Omit<z.output<typeof scanFilter>, 'from' | 'to'> & {
    readonly from?: string | undefined
    readonly to?: string | undefined
  }
  async function filterOf(
    { workspace }: SignedIn,
    campaign: CampaignRow | null,
    asked: Asked,
  ): Promise<ScanFilter> {
    const { exit, routeId, from, to, counted, filters = {} } = asked
    if (exit !== undefined && routeId === undefined)
      throw wrongField('exit', 'A lane belongs to a route: name the route too.')
    const zone = campaign?.zone ?? workspace.zone
    const isNarrowed = Object.keys(filters).length > 0
    if (isNarrowed && (from === undefined || to === undefined))
      throw wrongField('filters', 'Name both the first and the last day where rows are narrowed.')
    return {
      exit: exit === undefined || routeId === undefined ? undefined : { routeId, name: exit },
      within: withinOf(asked, workspace.id),
      ...openSpanOfDays(zone, from, to ?? dayIn(zone, Date.now())),
      counted,
      ...(isNarrowed && { narrowed: { filters, zone, channels: await tagging.channelsOf(workspace.id) } }),
    }
  }

  mount(mounts, scansApi.list, async ({ query, who, campaign }) => {
    const { page, pageSize, order } = query
    const found = await reader.ask(
      'scansPage',
      await filterOf(who, campaign, query),
      order,
      pageSize,
      page * pageSize,
    )
    return { ...found, page, pageSize }
  })

  mount(mounts, scansApi.csv, async ({ query, who, campaign, response }) => {
    const filter = await filterOf(who, campaign, query)
    attach(response, CSV, 'scans.csv')
    for await (const { bytes } of rowFiles.parts({ of: 'scans', format: 'csv', filter })) {
      await writeTo(response, bytes)
      if (response.destroyed) return undefined
    }
    response.end()
    return undefined
  })

  for (const format of ROW_FORMATS)
    exporter.define<ScanFilter>({
      what: `scans.${format}`,
      type: FILE_TYPES[format],
      // It was a filter when it was stored.
      read: (stored) => stored as ScanFilter,
      nameOf: () => Promise.resolve(`scans.${format}`),
      async write(out, filter, advance) {
        for await (const { bytes, done, total } of rowFiles.parts({ of: 'scans', format, filter })) {
          advance(done, total)
          await writeTo(out, bytes)
        }
      },
    })
  mount(mounts, scansApi.makeFile, async ({ body: { format, ...body }, who, campaign }) => {
    const job = await exporter.order(`scans.${format}`, await filterOf(who, campaign, body), {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign?.id ?? null,
      title: `Scans as ${ROW_FORMAT_NAMES[format]}: ${campaign?.name ?? 'all campaigns'}`,
    })
    return jobView.one(job, who)
  })

  mount(mounts, scansApi.pulse, async ({ who }) => {
    const minutes = await reader.ask('pulse', who.workspace.id, Math.floor(Date.now() / 60_000))
    return { minutes, total: minutes.reduce((sum, n) => sum + n, 0) }
  })

  mount(mounts, scansApi.lastHour, async ({ query, who }) => {
    const last = Math.floor(Date.now() / 1000)
    const counts = await reader.ask('lastHour', withinOf(query, who.workspace.id), last)
    return {
      until: (last + 1) * 1000,
      seconds: counts.flatMap((n, i): [number, number][] => (n > 0 ? [[counts.length - i, n]] : [])),
      total: counts.reduce((sum, n) => sum + n, 0),
    }
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
