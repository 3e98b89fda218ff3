import { pageResultsApi, type EventFilter } from '@flimbo/core/pages'
import { dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import { missing, mount, writeTo, type Mounts } from '../api/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import type { Reader } from '../reader/index.ts'
import type { EventRowFilter } from '../results/index.ts'
import type { RowFiles } from '../scans/index.ts'

interface Parts {
  readonly reader: Reader
  readonly exporter: Exporter
  readonly jobView: JobViewer
  readonly rowFiles: RowFiles
}

/** Days shown where none are asked for. */
const USUAL_DAYS = 30
const FILE = 'page-events.csv'

/** The days that are meant, in a zone, and the moments they begin and end at. */
function periodIn(zone: string, query: { from?: string | undefined; to?: string | undefined }) {
  const to = query.to ?? dayIn(zone, Date.now())
  const from = query.from ?? shiftDay(to, 1 - USUAL_DAYS)
  return { from, to, span: spanOfDays(zone, from, to) }
}

/** Which rows are meant: of all days where none are named, as with scans. */
function filterIn(zone: string, { from, to, ...filter }: EventFilter): EventRowFilter {
  const { span } = periodIn(zone, { from: from ?? EARLIEST, to })
  return { ...filter, start: span.start, end: span.end }
}
const EARLIEST = '1970-01-01'

/** What happened on pages, as figures and as the rows they are counted from. */
export function pageResultsEndpoints(mounts: Mounts, { reader, exporter, jobView, rowFiles }: Parts): void {
  mount(mounts, pageResultsApi.page, async ({ params: { id }, query, campaign }) => {
    if (!campaign) throw missing('page')
    const { zone } = campaign
    const { from, to, span } = periodIn(zone, query)
    return { zone, from, to, tallies: await reader.ask('pageTallies', id, span.start, span.end) }
  })

  mount(mounts, pageResultsApi.pieces, async ({ query: { from, to, ...scope }, campaign }) => {
    if (!campaign) throw missing('campaign')
    const { span } = periodIn(campaign.zone, { from, to })
    return { rows: await reader.ask('piecesOnPages', scope, span.start, span.end) }
  })

  mount(
    mounts,
    pageResultsApi.rows,
    async ({ query: { page, pageSize, order, sort: _at, ...filter }, campaign }) => {
      const meant = filterIn(campaign.zone, filter)
      const found = await reader.ask('pageEventRows', meant, order, pageSize, page * pageSize)
      return { ...found, page, pageSize }
    },
  )

  exporter.define<EventRowFilter>({
    what: FILE,
    type: 'text/csv; charset=utf-8; header=present',
    // It was a filter when it was stored.
    read: (stored) => stored as EventRowFilter,
    nameOf: () => Promise.resolve(FILE),
    async write(out, filter, advance) {
      for await (const { bytes } of rowFiles.parts({ of: 'page-events', filter })) {
        advance(0, 0)
        await writeTo(out, bytes)
      }
    },
  })
  mount(mounts, pageResultsApi.makeFile, async ({ body, who, campaign }) => {
    const job = await exporter.order(FILE, filterIn(campaign.zone, body), {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign.id,
      title: `What happened on pages as CSV: ${campaign.name}`,
    })
    return jobView.one(job, who)
  })
}
