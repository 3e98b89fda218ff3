import { stringify } from 'csv-stringify'
import { dayIn, spanOfDays } from '@flimbo/core/results'
import { scansApi, type Scope } from '@flimbo/core/scans'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import type { Database } from '../database/index.ts'
import { scopeCondition, scopeOwner, withinChannel, type Channels, type Reader, type ScanFilter } from '../results/index.ts'
import type { Config } from '../config/index.ts'
import { cityFinder } from './cities.ts'
import { csvHeadings, csvValues } from './csv.ts'
import type { LiveHub } from './live.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly live: LiveHub
  readonly tagging: Channels
  readonly config: Pick<Config, 'dataDir'>
}

const PLACES_MAX = 20

const CSV_CHUNK = 5000
/** Proxies close streams that stay silent; a comment line now and then keeps them open. */
const HEARTBEAT_MS = 25_000

export function scansEndpoints(mounts: Mounts, { database, reader, live, tagging, config }: Parts): void {
  const cities = cityFinder(config.dataDir)
  mount(mounts, scansApi.places, async ({ query: { q, kind } }) => ({ rows: (await cities.find(q, kind, PLACES_MAX)).map(({ addresses: _addresses, ...city }) => city) }))

  async function filterOf(workspaceId: number, query: Scope & { from?: string | undefined; to?: string | undefined; counted: ScanFilter['counted']; exit?: string | undefined }): Promise<ScanFilter> {
    if (query.exit !== undefined && query.routeId === undefined) throw wrongField('exit', 'A lane belongs to a route: name the route too.')
    const { zone, utmCampaign } = await scopeOwner(database, workspaceId, query)
    const within = await withinChannel(reader, query, utmCampaign, await tagging.channelsOf(workspaceId))
    const start = query.from === undefined ? 0 : spanOfDays(zone, query.from, query.from).start
    const lastDay = query.to ?? dayIn(zone, Date.now())
    const exit = query.exit === undefined || query.routeId === undefined ? undefined : { routeId: query.routeId, name: query.exit }
    return { exit, ...scopeCondition(within), start, end: spanOfDays(zone, lastDay, lastDay).end, counted: query.counted }
  }

  mount(mounts, scansApi.list, async ({ query, who }) => {
    const { page, pageSize, order } = query
    const found = await reader.ask('scansPage', await filterOf(who.workspace.id, query), order, pageSize, page * pageSize)
    return { ...found, page, pageSize }
  })

  mount(mounts, scansApi.csv, async ({ query, who, response }) => {
    const filter = await filterOf(who.workspace.id, query)
    response.set({ 'Content-Type': 'text/csv; charset=utf-8; header=present', 'Content-Disposition': 'attachment; filename="scans.csv"' })
    const file = stringify({ header: true, columns: csvHeadings, record_delimiter: 'windows', escape_formulas: true })
    file.pipe(response)
    for (let offset = 0; !response.destroyed; offset += CSV_CHUNK) {
      const { rows } = await reader.ask('scansPage', filter, 'asc', CSV_CHUNK, offset)
      for (const row of rows) file.write(csvValues(row))
      if (file.writableNeedDrain) await new Promise((resolve) => { file.once('drain', resolve); response.once('close', resolve) })
      if (rows.length < CSV_CHUNK) break
    }
    file.end()
  })

  mount(mounts, scansApi.pulse, async ({ who }) => {
    const minutes = await reader.ask('pulse', who.workspace.id, Date.now())
    return { minutes, total: minutes.reduce((sum, n) => sum + n, 0) }
  })

  mount(mounts, scansApi.events, ({ who, request, response }) => {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
    response.flushHeaders()
    response.write('retry: 2000\n\n')
    const stop = live.listen(who.workspace.id, (event) => { response.write(`data: ${JSON.stringify(event)}\n\n`) })
    const heartbeat = setInterval(() => { response.write(': still here\n\n') }, HEARTBEAT_MS)
    const forget = live.onClose(() => { response.end() })
    request.on('close', () => {
      stop()
      forget()
      clearInterval(heartbeat)
    })
    return undefined
  })
}
