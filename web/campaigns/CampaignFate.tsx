import { Alert, Button, Stack, Typography } from '@mui/material'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { ApiProblem, useChange } from '../api/index.ts'
import { CopyCampaign } from './CopyCampaign.tsx'

/** What may become of a campaign: pinned to the desk, put away, or begun anew as next year's. */
export function CampaignFate({ campaign, close }: { campaign: Campaign; close: () => void }) {
  const change = useChange(campaignsApi.change)
  const navigate = useNavigate()
  const [trouble, setTrouble] = useState<string | null>(null)
  const [copying, setCopying] = useState(false)
  const set = async (part: { pinned?: boolean; archived?: boolean }) => {
    setTrouble(null)
    try {
      await change.mutateAsync({ params: { id: campaign.id }, body: { version: campaign.version, ...part } })
      close()
      if (part.archived) void navigate('/')
    } catch (error) {
      setTrouble(error instanceof ApiProblem ? error.problem.detail : 'That could not be done. Nothing was changed.')
    }
  }
  const archived = campaign.archivedAt !== null
  return (
    <Stack spacing={1}>
      {trouble !== null && <Alert severity="error" variant="outlined">{trouble}</Alert>}
      <Stack direction="row" spacing={1}>
        <Button variant="outlined" onClick={() => { void set({ pinned: !campaign.pinned }) }}>{campaign.pinned ? 'Unpin' : 'Pin to the desk'}</Button>
        <Button variant="outlined" onClick={() => { setCopying(true) }}>Duplicate…</Button>
        <Button variant="outlined" onClick={() => { void set({ archived: !archived }) }}>{archived ? 'Restore' : 'Archive'}</Button>
      </Stack>
      <Typography variant="body2" color="textSecondary">{archived ? 'It is archived: off the desk, and its codes go on working.' : 'Archiving takes it off the desk; its codes go on working.'}</Typography>
      <CopyCampaign campaign={campaign} open={copying} close={() => { setCopying(false) }} made={(id) => { setCopying(false); close(); void navigate(`/campaigns/${String(id)}/plan`) }} />
    </Stack>
  )
}
