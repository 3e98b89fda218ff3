import { Autocomplete, TextField } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import type { Scope } from '@flimbo/core/scans'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'

interface Option {
  kind: 'campaign' | 'route' | 'code'
  id: number
  name: string
}
const KINDS = { campaign: '', route: 'Route: ', code: '' } as const
const OFFERED = 500

/** Whose results: the whole campaign's, a route's or a piece's. */
export function ScopeChoice({
  scope,
  choose,
}: {
  scope: Scope
  choose: (kind: Option['kind'], id: number) => void
}) {
  const campaign = useCampaign()
  const query = { campaignId: campaign.id, pageSize: OFFERED, sort: 'name' } as const
  const routes = useAnswer(routesApi.list, { query })
  const codes = useAnswer(codesApi.list, { query })
  const options: Option[] = [
    { kind: 'campaign', id: campaign.id, name: 'The whole campaign' },
    ...(routes.data?.rows ?? []).map(({ id, name }) => ({ kind: 'route' as const, id, name })),
    ...(codes.data?.rows ?? []).map(({ id, name }) => ({ kind: 'code' as const, id, name })),
  ]
  const chosen = options.find(({ kind, id }) => id === scope[`${kind}Id`])
  return (
    <Autocomplete
      size="small"
      sx={{ width: 300 }}
      disableClearable
      options={options}
      value={chosen ?? options[0]}
      getOptionLabel={({ kind, name }) => KINDS[kind] + name}
      getOptionKey={({ kind, id }) => `${kind}${String(id)}`}
      isOptionEqualToValue={(a, b) => a.kind === b.kind && a.id === b.id}
      onChange={(_event, { kind, id }) => {
        choose(kind, id)
      }}
      renderInput={(params) => <TextField {...params} label="Results of" />}
    />
  )
}
