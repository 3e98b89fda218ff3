import { Box, Button, Skeleton, Stack, Typography } from '@mui/material'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { useState } from 'react'
import { NavLink, Outlet, useOutletContext, useParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Trouble } from '../ui/index.ts'
import { CampaignDialog } from './CampaignDialog.tsx'
import { CampaignFate } from './CampaignFate.tsx'

/** The campaign one is in; only below its frame. */
export function useCampaign(): Campaign {
  return useOutletContext<Campaign>()
}

/** The campaign one is in; null outside of any. */
export function useCampaignIfAny(): Campaign | null {
  const context = useOutletContext<Partial<Campaign> | null | undefined>()
  return typeof context?.id === 'number' && context.zone !== undefined ? (context as Campaign) : null
}

const stagesOf = ({
  codes,
  routes,
  pages,
  leads,
  scans,
}: Campaign): readonly { path: string; name: string; state: string }[] => [
  { path: 'plan', name: 'Plan', state: quantity(codes, 'piece') },
  { path: 'routes', name: 'Routes', state: quantity(routes, 'route') },
  { path: 'print', name: 'Print', state: codes === 0 ? 'nothing to print' : quantity(codes, 'symbol') },
  { path: 'pages', name: 'Pages', state: quantity(pages, 'page') },
  { path: 'results', name: 'Results', state: quantity(scans.scans, 'scan') },
  { path: 'leads', name: 'Leads', state: quantity(leads, 'lead') },
]

/** A campaign: its name, its track, and the stage one is at. */
export function CampaignFrame() {
  const { campaignId } = useParams()
  const campaign = useAnswer(campaignsApi.get, { params: { id: Number(campaignId) } })
  const [settings, setSettings] = useState(false)
  if (campaign.isError)
    return (
      <Trouble
        error={campaign.error}
        retry={() => {
          void campaign.refetch()
        }}
      />
    )
  // The last campaign's answer stays while the next one comes; its screens must not.
  if (!campaign.data || String(campaign.data.id) !== campaignId)
    return <Skeleton variant="rectangular" height={52} />
  return (
    <>
      <Stack
        direction="row"
        sx={{
          alignItems: 'stretch',
          px: 2,
          bgcolor: 'background.paper',
          borderBottom: 1,
          borderColor: 'divider',
          gap: 1,
        }}
      >
        <Box component="nav" aria-label="Stages of the campaign" sx={{ display: 'flex', flex: 1 }}>
          {stagesOf(campaign.data).map((stage, i) => (
            <Stop key={stage.path} {...stage} first={i === 0} />
          ))}
        </Box>
        <CampaignFate campaign={campaign.data} />
        <Button
          color="inherit"
          sx={{ alignSelf: 'center' }}
          onClick={() => {
            setSettings(true)
          }}
        >
          Campaign settings
        </Button>
      </Stack>
      <Outlet context={campaign.data} key={campaignId} />
      <CampaignDialog
        open={settings}
        close={() => {
          setSettings(false)
        }}
        campaign={campaign.data}
      />
    </>
  )
}

/** One stop on the track: a dot on the line, its name and its state. */
function Stop({ path, name, state, first }: { path: string; name: string; state: string; first: boolean }) {
  return (
    <Box
      component={NavLink}
      to={path}
      sx={{
        position: 'relative',
        minWidth: 128,
        pt: 2.25,
        pb: 0.75,
        pr: 3,
        color: 'text.secondary',
        textDecoration: 'none',
        '&::before': {
          content: '""',
          position: 'absolute',
          top: 10,
          left: first ? 6 : 0,
          right: 0,
          borderTop: 2,
          borderColor: 'divider',
        },
        '&::after': {
          content: '""',
          position: 'absolute',
          top: 5,
          left: 0,
          width: 12,
          height: 12,
          borderRadius: '50%',
          border: 2,
          borderColor: 'text.secondary',
          bgcolor: 'background.paper',
          boxSizing: 'border-box',
        },
        '&.active': { color: 'text.primary' },
        '&.active::after': { borderColor: 'primary.main', bgcolor: 'primary.main' },
        '&:hover': { color: 'text.primary' },
      }}
    >
      <Typography component="span" sx={{ fontWeight: 650 }}>
        {name}
      </Typography>{' '}
      <Typography component="span" variant="body2" color="textSecondary">
        {state}
      </Typography>
    </Box>
  )
}
