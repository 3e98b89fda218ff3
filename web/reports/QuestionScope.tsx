import { MenuItem, TextField } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { codesApi } from '@flimbo/core/codes'
import type { ReportContent } from '@flimbo/core/reports'
import type { SavedValue } from '@flimbo/core/results'
import { routesApi } from '@flimbo/core/routing'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'

interface Props {
  readonly value: SavedValue
  readonly content: ReportContent
  readonly change: (value: SavedValue) => void
}

/** What a question is of: all that its report is of, one of its campaigns, or the piece or route that it was asked of. */
export function QuestionScope({ value, content, change }: Props) {
  const { clients } = useSession()
  const { codeId, routeId, campaignId, clientId, view } = value
  const campaigns = useAnswer(campaignsApi.names, {}).data?.rows ?? []
  const code = useAnswer(codesApi.get, { params: { id: codeId ?? 0 } }, { enabled: codeId !== undefined })
  const route = useAnswer(routesApi.get, { params: { id: routeId ?? 0 } }, { enabled: routeId !== undefined })
  const isOne = content.campaignId !== null
  const named = (): { key: string; name: string } => {
    if (codeId !== undefined) return { key: 'own', name: `Piece: ${code.data?.name ?? ''}` }
    if (routeId !== undefined) return { key: 'own', name: `Route: ${route.data?.name ?? ''}` }
    if (campaignId !== undefined && campaignId !== content.campaignId)
      return { key: `campaign ${String(campaignId)}`, name: '' }
    return clientId === undefined || clientId === content.clientId
      ? { key: '', name: '' }
      : { key: `client ${String(clientId)}`, name: '' }
  }
  const { key, name } = named()
  const choose = (chosen: string) => {
    const [kind, id] = chosen.split(' ')
    if (chosen === '') change({ view })
    else if (kind === 'campaign') change({ campaignId: Number(id), view })
    else if (kind === 'client') change({ clientId: Number(id), view })
  }
  if (isOne && key === '') return null
  const clientOffered = content.clientId === null && !isOne ? clients : []
  return (
    <TextField
      select
      size="small"
      label="Figures of"
      value={key}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      onChange={({ target }) => {
        choose(target.value)
      }}
    >
      <MenuItem value="">All that the report is of</MenuItem>
      {key === 'own' && <MenuItem value="own">{name}</MenuItem>}
      {clientOffered.map((client) => (
        <MenuItem key={client.id} value={`client ${String(client.id)}`}>
          Client: {client.name}
        </MenuItem>
      ))}
      {key.startsWith('campaign') && campaigns.every(({ id }) => id !== campaignId) && (
        <MenuItem value={key}>Another campaign</MenuItem>
      )}
      {campaigns
        .filter(({ id }) => !isOne || id === campaignId)
        .map((campaign) => (
          <MenuItem key={campaign.id} value={`campaign ${String(campaign.id)}`}>
            Campaign: {campaign.name}
          </MenuItem>
        ))}
    </TextField>
  )
}
