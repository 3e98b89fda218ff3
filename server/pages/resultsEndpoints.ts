import { pageResultsApi } from '@flimbo/core/pages'
import { dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import { missing, mount, type Mounts } from '../api/index.ts'
import type { Reader } from '../reader/index.ts'

/** Days shown where none are asked for. */
const USUAL_DAYS = 30

/** The days that are meant, in a zone, and the moments they begin and end at. */
function periodIn(zone: string, query: { from?: string | undefined; to?: string | undefined }) {
  const to = query.to ?? dayIn(zone, Date.now())
  const from = query.from ?? shiftDay(to, 1 - USUAL_DAYS)
  return { from, to, span: spanOfDays(zone, from, to) }
}

/** What happened on pages, as figures. */
export function pageResultsEndpoints(mounts: Mounts, { reader }: { reader: Reader }): void {
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
}
