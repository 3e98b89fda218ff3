import { Autocomplete, TextField } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { codesApi } from '@flimbo/core/codes'
import { leadsApi } from '@flimbo/core/leads'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import type { LeadView } from './filter.ts'

interface Option {
  readonly id: number
  readonly name: string
}
const OFFERED = 50

/** Narrows leads to a form and a piece of a campaign, or to a campaign where they are of all. */
export function LeadFilters({
  campaignId,
  view,
  narrow,
}: {
  campaignId: number | undefined
  view: LeadView
  narrow: (name: string, value: string | null) => void
}) {
  return campaignId === undefined ? (
    <CampaignFilter chosen={view.campaign} narrow={narrow} />
  ) : (
    <>
      <FormFilter campaignId={campaignId} chosen={view.page} narrow={narrow} />
      <PieceFilter campaignId={campaignId} chosen={view.code} narrow={narrow} />
    </>
  )
}

interface FilterProps {
  readonly chosen: number | undefined
  readonly narrow: (name: string, value: string | null) => void
}

function CampaignFilter({ chosen, narrow }: FilterProps) {
  const query = { page: 0, pageSize: 200, sort: 'name', order: 'asc', shown: 'current' } as const
  const rows = useAnswer(campaignsApi.list, { query }).data?.rows ?? []
  return <Choice label="Campaign" name="campaign" options={rows} chosen={chosen} narrow={narrow} />
}

function FormFilter({ campaignId, chosen, narrow }: FilterProps & { campaignId: number }) {
  const rows = useAnswer(leadsApi.forms, { query: { campaignId } }).data?.rows ?? []
  const pages = new Map(rows.map(({ pageId, pageName }) => [pageId, pageName || 'A page that is gone']))
  const options = [...pages].map(([id, name]) => ({ id, name }))
  return <Choice label="Form on" name="page" options={options} chosen={chosen} narrow={narrow} />
}

/** There may be thousands of pieces: those that fit what is typed are asked for. */
function PieceFilter({ campaignId, chosen, narrow }: FilterProps & { campaignId: number }) {
  const [typed, setTyped] = useState('')
  const found = useAnswer(codesApi.list, {
    query: { campaignId, pageSize: OFFERED, sort: 'name', ...(typed === '' ? {} : { q: typed }) },
  }).data
  const known = useAnswer(
    codesApi.get,
    { params: { id: chosen ?? 0 } },
    { enabled: chosen !== undefined },
  ).data
  const rows = found?.rows ?? []
  const options =
    known && chosen !== undefined && !rows.some(({ id }) => id === chosen) ? [known, ...rows] : rows
  return (
    <Choice label="Piece" name="code" options={options} chosen={chosen} narrow={narrow} typing={setTyped} />
  )
}

function Choice({
  label,
  name,
  options,
  chosen,
  narrow,
  typing,
}: FilterProps & {
  label: string
  name: string
  options: readonly Option[]
  typing?: (text: string) => void
}) {
  return (
    <Autocomplete<Option>
      size="small"
      sx={{ width: 200 }}
      options={[...options]}
      value={options.find(({ id }) => id === chosen) ?? null}
      getOptionLabel={(option) => option.name}
      getOptionKey={({ id }) => id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onChange={(_event, option) => {
        narrow(name, option ? String(option.id) : null)
      }}
      onInputChange={(_event, text, reason) => {
        if (reason === 'input') typing?.(text)
        if (reason === 'clear') typing?.('')
      }}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  )
}
