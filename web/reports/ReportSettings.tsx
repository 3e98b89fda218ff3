import { MenuItem, Stack, TextField } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { houseStylesApi } from '@flimbo/core/houseStyles'
import type { ReportContent } from '@flimbo/core/reports'
import { daysOf } from '@flimbo/core/results'
import { useAnswer } from '../api/index.ts'
import { PeriodFields } from '../results/index.ts'
import { useSession } from '../session/index.ts'
import { Sheet, useNow } from '../ui/index.ts'

interface Props {
  readonly content: ReportContent
  readonly zone: string
  /** What it was of when it was saved, by name. */
  readonly ofName: string
  readonly faults: ReadonlyMap<string, string>
  readonly edit: (content: ReportContent) => void
}

/** What a report is called and of, in whose look, and of which days. */
export function ReportSettings({ content, zone, ofName, faults, edit }: Props) {
  const { clients, workspace } = useSession()
  const campaigns = useAnswer(campaignsApi.names, {}).data?.rows ?? []
  const styles = useAnswer(houseStylesApi.list, {}).data?.rows ?? []
  const now = useNow()
  const { name, clientId, campaignId, styleId, period } = content
  const ofClient = clientId === null ? '' : `client ${String(clientId)}`
  const of = campaignId === null ? ofClient : `campaign ${String(campaignId)}`
  const chooseOf = (chosen: string) => {
    const [kind, id] = chosen.split(' ')
    edit({
      ...content,
      clientId: kind === 'client' ? Number(id) : null,
      campaignId: kind === 'campaign' ? Number(id) : null,
    })
  }
  return (
    <Sheet>
      <Stack spacing={2}>
        <TextField
          size="small"
          label="Title"
          value={name}
          error={faults.has('name')}
          helperText={faults.get('name')}
          onChange={({ target }) => {
            edit({ ...content, name: target.value })
          }}
        />
        <Stack direction="row" spacing={1}>
          <TextField
            select
            size="small"
            label="Of"
            value={of}
            sx={{ flex: 1, minWidth: 0 }}
            error={faults.has('campaignId') || faults.has('clientId')}
            helperText={faults.get('campaignId') ?? faults.get('clientId')}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            onChange={({ target }) => {
              chooseOf(target.value)
            }}
          >
            <MenuItem value="">{workspace.name}, all campaigns</MenuItem>
            {clients.map((client) => (
              <MenuItem key={`client ${String(client.id)}`} value={`client ${String(client.id)}`}>
                Client: {client.name}
              </MenuItem>
            ))}
            {/* One that is archived is not offered, and stays. */}
            {campaignId !== null && campaigns.every(({ id }) => id !== campaignId) && (
              <MenuItem value={of}>Campaign: {ofName}</MenuItem>
            )}
            {campaigns.map((campaign) => (
              <MenuItem key={`campaign ${String(campaign.id)}`} value={`campaign ${String(campaign.id)}`}>
                Campaign: {campaign.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            size="small"
            label="Look"
            value={styles.some(({ id }) => id === styleId) ? String(styleId) : ''}
            sx={{ width: 180 }}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            onChange={({ target }) => {
              edit({ ...content, styleId: target.value === '' ? null : Number(target.value) })
            }}
          >
            <MenuItem value="">Plain</MenuItem>
            {styles.map((style) => (
              <MenuItem key={style.id} value={String(style.id)}>
                {style.name}
              </MenuItem>
            ))}
          </TextField>
        </Stack>
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <PeriodFields
            period={period}
            days={daysOf(period, zone, now)}
            change={(next) => {
              edit({ ...content, period: next })
            }}
          />
        </Stack>
      </Stack>
    </Sheet>
  )
}
