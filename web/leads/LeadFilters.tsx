import { campaignsApi } from '@flimbo/core/campaigns'
import { leadsApi } from '@flimbo/core/leads'
import { useAnswer } from '../api/index.ts'
import { NamePick } from '../ui/index.ts'
import type { LeadView, Narrow } from './filter.ts'
import { PiecePick } from './PiecePick.tsx'

const WIDTH = 200

interface FilterProps {
  readonly chosen: number | null
  readonly change: (id: number | null) => void
}

/** Narrows leads to a form and a piece of a campaign, or to a campaign where they are of all. */
export function LeadFilters({
  campaignId,
  view,
  narrow,
}: {
  campaignId: number | undefined
  view: LeadView
  narrow: Narrow
}) {
  const filter = (name: 'campaign' | 'page' | 'code'): FilterProps => ({
    chosen: view[name] ?? null,
    change(id) {
      narrow({ [name]: id === null ? null : String(id) })
    },
  })
  return campaignId === undefined ? (
    <CampaignFilter {...filter('campaign')} />
  ) : (
    <>
      <FormFilter campaignId={campaignId} {...filter('page')} />
      <PiecePick label="Piece" width={WIDTH} campaignId={campaignId} {...filter('code')} />
    </>
  )
}

function CampaignFilter(filter: FilterProps) {
  const query = { page: 0, pageSize: 200, sort: 'name', order: 'asc', shown: 'current' } as const
  const rows = useAnswer(campaignsApi.list, { query }).data?.rows ?? []
  return <NamePick label="Campaign" width={WIDTH} options={rows} {...filter} />
}

function FormFilter({ campaignId, ...filter }: FilterProps & { campaignId: number }) {
  const rows = useAnswer(leadsApi.forms, { query: { campaignId } }).data?.rows ?? []
  const pages = new Map(rows.map(({ pageId, pageName }) => [pageId, pageName || 'A page that is gone']))
  const options = [...pages].map(([id, name]) => ({ id, name }))
  return <NamePick label="Form on" width={WIDTH} options={options} {...filter} />
}
