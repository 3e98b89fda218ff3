import { Autocomplete, TextField } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { codesApi } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import type { AskedResults } from './useResults.ts'

type Kind = 'all' | 'client' | 'campaign' | 'route' | 'code'
interface Option {
  readonly kind: Kind
  readonly id: number
  readonly name: string
}
const GROUPS: Readonly<Record<Kind, string>> = {
  all: 'Everything',
  client: 'Clients',
  campaign: 'Campaigns',
  route: 'Routes',
  code: 'Pieces',
}
const ALL: Option = { kind: 'all', id: 0, name: 'All campaigns' }
const OFFERED = 50

/** Whose results: everything, a client's, a campaign's, a route's or a piece's. */
export function ScopeChoice({ asked }: { asked: AskedResults }) {
  const { of, campaign, show } = asked
  const navigate = useNavigate()
  const [address] = useSearchParams()
  const [typed, setTyped] = useState('')
  const options = useOptions(asked, typed)
  const chosen = useChosen(asked) ?? ALL
  const go = (path: string) => {
    // The question goes along; whose it was asked of does not.
    const kept = new URLSearchParams(
      [...address].filter(([name]) => !['code', 'route', 'client'].includes(name)),
    )
    void navigate({ pathname: path, search: kept.toString() })
  }
  function choose({ kind, id }: Option) {
    if (kind === 'all') {
      if (campaign) go('/results')
      else show({ client: null, code: null, route: null })
    } else if (kind === 'client') show({ client: id, code: null, route: null })
    else if (kind === 'campaign') {
      if (id === campaign?.id) show({ code: null, route: null, client: null })
      else go(`/campaigns/${String(id)}/results`)
    } else show({ client: null, code: kind === 'code' ? id : null, route: kind === 'route' ? id : null })
  }
  return (
    <Autocomplete
      size="small"
      sx={{ width: 300 }}
      disableClearable
      options={options}
      value={chosen}
      filterOptions={(all, { inputValue }) =>
        inputValue === chosen.name
          ? all
          : all.filter(({ name }) => name.toLowerCase().includes(inputValue.trim().toLowerCase()))
      }
      groupBy={({ kind }) => GROUPS[kind]}
      getOptionLabel={({ name }) => name}
      getOptionKey={({ kind, id }) => `${kind}${String(id)}`}
      isOptionEqualToValue={(a, b) => a.kind === b.kind && a.id === b.id}
      onInputChange={(_event, text, reason) => {
        setTyped(reason === 'input' ? text : '')
      }}
      onChange={(_event, option) => {
        choose(option)
      }}
      renderInput={(params) => (
        <TextField {...params} label={of.routeId === undefined ? 'Results of' : 'Results of the route'} />
      )}
    />
  )
}

/** What is offered: the largest beginning of each list, or what has what is typed in its name. */
function useOptions({ campaign }: AskedResults, typed: string): Option[] {
  const { clients } = useSession()
  const campaigns = useAnswer(campaignsApi.names, {})
  const query = {
    campaignId: campaign?.id ?? 0,
    pageSize: OFFERED,
    sort: 'name',
    ...(typed.trim() === '' ? {} : { q: typed.trim() }),
  } as const
  const isInCampaign = { enabled: campaign !== null }
  const routes = useAnswer(routesApi.list, { query }, isInCampaign)
  const codes = useAnswer(codesApi.list, { query }, isInCampaign)
  const named = (kind: Kind, rows: readonly { id: number; name: string }[] | undefined): Option[] =>
    (rows ?? []).map(({ id, name }) => ({ kind, id, name }))
  return [
    ALL,
    ...(!campaign && clients.length > 1 ? named('client', clients) : []),
    ...named('campaign', campaigns.data?.rows),
    ...(campaign ? [...named('route', routes.data?.rows), ...named('code', codes.data?.rows)] : []),
  ]
}

/** What is chosen by the address, by its name. */
function useChosen({ of: { clientId, routeId, codeId }, campaign }: AskedResults): Option | null {
  const { clients } = useSession()
  const code = useAnswer(codesApi.get, { params: { id: codeId ?? 0 } }, { enabled: codeId !== undefined })
  const route = useAnswer(routesApi.get, { params: { id: routeId ?? 0 } }, { enabled: routeId !== undefined })
  if (codeId !== undefined) return { kind: 'code', id: codeId, name: code.data?.name ?? '' }
  if (routeId !== undefined) return { kind: 'route', id: routeId, name: route.data?.name ?? '' }
  if (campaign) return { kind: 'campaign', id: campaign.id, name: campaign.name }
  const client = clients.find(({ id }) => id === clientId)
  return client ? { kind: 'client', id: client.id, name: client.name } : null
}
